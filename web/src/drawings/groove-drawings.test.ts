import { describe, expect, it } from 'vitest';
import type { GrooveShape } from '@yellow-pin/core/features/groove-shape';
import type { PlannedOperation } from '@yellow-pin/core/job/derive';
import type { GrooveView } from '@yellow-pin/core/operations/groove-view';
import { cutterOff, grooveSide } from './groove-section.ts';
import { drawPlan, PLAN_HEIGHT, PLAN_WIDTH } from './groove-plan.ts';
import { drawSection } from './section-drawing.ts';

const SHUT = { open: false, beyond: 0 };
const shape = (part: Partial<GrooveShape> = {}): GrooveShape => ({
  path: [{ kind: 'line', from: [-20, 0], to: [20, 0] }],
  closed: false,
  ends: [SHUT, SHUT],
  levels: [{ top: 0, bottom: -8, halfTop: 5, halfBottom: 5 }],
  through: false,
  isOneSided: false,
  floorRadius: 0,
  ...part,
});
const view = (own: GrooveShape): GrooveView =>
  ({
    label: 'A1',
    shape: own,
    entryZ: 0,
    depth: 8,
    width: 10,
    metalZ: 0,
    metalFrom: null,
  }) as unknown as GrooveView;
/** An operation of one straight cut at a distance from the middle. */
const cutAt = (y: number, diameter: number): PlannedOperation =>
  ({
    tool: { kind: 'end-mill', diameter },
    parameters: [{ key: 'depth', label: 'floor', type: 'length', value: 8, source: 'model', editable: true }],
    work: [
      {
        label: 'A1',
        x: -20,
        y: 0,
        r: 2,
        z: -8,
        entryZ: 0,
        metalZ: 0,
        motion: {
          kind: 'path',
          passes: [
            {
              start: [-20, 0, 2],
              moves: [
                { kind: 'line', to: [-20, y, -8], feed: 'lead' },
                { kind: 'line', to: [20, y, -8], feed: 'finish' },
              ],
            },
          ],
        },
      },
    ],
  }) as unknown as PlannedOperation;

describe('a groove cut across', () => {
  it('has the walls of each level by depth below its top', () => {
    const tee = shape({
      levels: [
        { top: 0, bottom: -4, halfTop: 3, halfBottom: 3 },
        { top: -4, bottom: -8, halfTop: 6, halfBottom: 7 },
      ],
    });
    expect(grooveSide(tee, 0)).toEqual([
      [3, 0],
      [3, 4],
      [6, 4],
      [7, 8],
    ]);
  });

  it('has the cutter where it cuts the wall, to scale', () => {
    const d = drawSection(view(shape()), cutAt(2, 6), null);
    expect(cutterOff(view(shape()), cutAt(2, 6))).toBe(2);
    expect((d.toolX - d.centre) / d.k).toBeCloseTo(2, 6);
    expect(d.tipY).toBeCloseTo(d.y(8), 6);
    expect(d.dimensions.map((x) => [x.from, x.to])).toEqual([[0, 8]]);
  });

  it('has a cutter in the air before a wall on its left', () => {
    const own = shape({ isOneSided: true, levels: [{ top: 0, bottom: -8, halfTop: 3, halfBottom: 3 }] });
    // The air is on the left of the way, at greater Y: the centre stands 5 before the wall, its edge 3 in it.
    expect(cutterOff(view(own), cutAt(5, 16))).toBe(-5);
  });
});

describe('a groove from above', () => {
  it('fits its window, with the way of the cutter in it', () => {
    const paths: GrooveShape['path'][] = [
      [{ kind: 'line', from: [-20, 0], to: [20, 0] }],
      [{ kind: 'line', from: [0, -90], to: [0, 90] }],
    ];
    for (const path of paths) {
      const { walls, cuts, leads } = drawPlan(view(shape({ path })), cutAt(0, 6));
      expect(cuts).not.toBe('');
      expect(leads).not.toBe('');
      const numbers = walls
        .join(' ')
        .match(/-?[\d.]+ -?[\d.]+/g)!
        .map((t) => t.split(' ').map(Number));
      for (const [x, y] of numbers as [number, number][]) {
        expect(x).toBeGreaterThanOrEqual(0);
        expect(x).toBeLessThanOrEqual(PLAN_WIDTH);
        expect(y).toBeGreaterThanOrEqual(0);
        expect(y).toBeLessThanOrEqual(PLAN_HEIGHT);
      }
    }
  });
});
