import { describe, expect, it } from 'vitest';
import type { EdgeProfile } from '@yellow-pin/core/features/edge/shape';
import type { PlannedOperation } from '@yellow-pin/core/job/derive';
import type { EdgeView } from '@yellow-pin/core/operations/edge-view';
import { drawEdgeSection, EDGE_HEIGHT, EDGE_WIDTH } from './edge-section.ts';
import { drawPlan } from './groove-plan.ts';

const PATH = [{ kind: 'line' as const, from: [0, 0] as [number, number], to: [40, 0] as [number, number] }];
const view = (profile: EdgeProfile, roomBelow: number | null = null): EdgeView =>
  ({
    label: 'E1',
    feature: { roomBelow },
    shape: {
      path: PATH,
      closed: false,
      side: 'outside',
      top: 0,
      profile,
      lean: 0,
      rolled: [],
      isBehind: false,
    },
    entryZ: 0,
    depth: profile.kind === 'chamfer' ? profile.drop : profile.kind === 'round' ? profile.radius : 0,
  }) as unknown as EdgeView;
/** A 90\u00b0 cutter with a tip of 2, its tip 0.9 below the edge: 0.5 wide with 0.4 below (handbook, Edges). */
const operation = (inset: number, drop: number): PlannedOperation =>
  ({
    kind: 'edge-mill',
    tool: {
      kind: 'chamfer-mill',
      diameter: 10,
      tipDiameter: 2,
      pointAngleDeg: 90,
      fluteLength: 10,
      shankDiameter: 10,
      stickOut: 20,
    },
    work: [
      {
        label: 'E1',
        z: -0.9,
        motion: {
          kind: 'path',
          passes: [{ start: [0, -1.4, 2], moves: [{ kind: 'line', to: [40, -1.4, -0.9], feed: 'cut' }] }],
        },
        edges: [{ feature: 'E1', path: PATH, closed: false, top: 0, inset, slope: 1, drop, left: [] }],
      },
    ],
  }) as unknown as PlannedOperation;
const numbers = (path: string): number[] => [...path.matchAll(/-?\d+(?:\.\d+)?/g)].map(Number);

describe('the section of an edge', () => {
  it('has the flank through both ends of the break, the axis 1.4 beside the wall', () => {
    const d = drawEdgeSection(view({ kind: 'sharp' }), operation(0.5, 0.5));
    const [x0, y0, x1, y1] = numbers(d.wanted);
    // From 0.5 inside the corner on the face above to 0.5 below it on the wall.
    expect((x1! - x0!) / d.k).toBeCloseTo(0.5, 1);
    expect((y1! - y0!) / d.k).toBeCloseTo(0.5, 1);
    expect((d.tool!.x - x1!) / d.k).toBeCloseTo(1.4, 1);
    expect(d.deep!.mm).toBeCloseTo(0.9, 9);
    expect((d.deep!.to - d.deep!.from) / d.k).toBeCloseTo(0.9, 9);
    for (const v of [d.tool!.x, d.tool!.y]) expect(v).toBeGreaterThan(0);
    expect(d.tool!.x).toBeLessThan(EDGE_WIDTH);
    expect(d.tool!.y).toBeLessThan(EDGE_HEIGHT);
  });

  it('shows what the model has, and the floor below where there is one near', () => {
    const chamfer = drawEdgeSection(view({ kind: 'chamfer', width: 0.5, drop: 0.5 }, 1.1), operation(0, 0.5));
    expect(chamfer.wanted).toBe('');
    expect(chamfer.floor).toBeGreaterThan(chamfer.tool!.y);
    expect(drawEdgeSection(view({ kind: 'round', radius: 2 }), null)).toMatchObject({
      tool: null,
      deep: null,
    });
    expect(drawEdgeSection(view({ kind: 'round', radius: 2 }), null).metal).toContain('A');
    expect(drawEdgeSection(view({ kind: 'sharp' }, 50), operation(0.5, 0.5)).floor).toBeNull();
  });

  it('of an edge that looks away has the metal above the head', () => {
    const own = view({ kind: 'sharp' });
    const behind = { ...own, shape: { ...own.shape, isBehind: true } };
    const d = drawEdgeSection(behind, operation(0.5, 0.5));
    const [, y0, , y1] = numbers(d.wanted);
    expect((y0! - y1!) / d.k).toBeCloseTo(0.5, 1);
    // No corner of the metal lies below the edge.
    const ys = numbers(d.metal).filter((_, i) => i % 2 === 1);
    expect(Math.max(...ys)).toBeCloseTo(y0!, 1);
    expect(d.tool!.y).toBeGreaterThan(y0!);
  });

  it('of one that rises has the ball through both ends of the break, where the face is most level', () => {
    const own = view({ kind: 'sharp' });
    const up = Math.SQRT1_2;
    const ball = {
      tool: {
        kind: 'end-mill',
        diameter: 6,
        tipDiameter: 0,
        cornerRadius: 3,
        fluteLength: 10,
        shankDiameter: 6,
        stickOut: 20,
      },
      work: [
        {
          label: 'E1',
          z: -3,
          rises: [
            {
              feature: 'E1',
              width: 0.5,
              hollow: 0.02,
              run: [
                { at: [0, 0, 0], up: [0, 0, 1], out: [0, -1, 0] },
                { at: [9, 0, -4], up: [up, 0, up], out: [0, -1, 0] },
              ],
            },
          ],
          motion: { kind: 'path', passes: [] },
        },
      ],
    } as unknown as PlannedOperation;
    const d = drawEdgeSection(own, ball);
    const [x0, y0, x1, y1] = numbers(d.wanted);
    const middle = { x: d.tool!.x, y: d.tool!.y - 3 * d.k };
    for (const [x, y] of [
      [x0!, y0!],
      [x1!, y1!],
    ])
      expect(Math.hypot(x! - middle.x, y! - middle.y) / d.k).toBeCloseTo(3, 1);
  });

  it('and its plan: the edge as a line that is not closed, the way of the cutter beside it', () => {
    const d = drawPlan(view({ kind: 'sharp' }), operation(0.5, 0.5));
    expect(d.walls).toHaveLength(1);
    expect(d.walls[0]).not.toContain('Z');
    expect(d.cuts).toMatch(/^M/);
  });
});
