import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { DrawingDepths } from '../drawing/depths.ts';
import type { Drawing, Outline } from '../drawing/read-dxf.ts';
import { modelFromDrawing } from '../drawing/to-model.ts';
import { frameFrom, fromFrame } from '../geometry/frame.ts';
import type { Segment, Vec2 } from '../geometry/path.ts';
import { cross, distance, normalize } from '../geometry/vec.ts';
import { patchGraph } from '../model/patches.ts';
import { meshModel } from '../model/mesh.ts';
import type { SolidModel } from '../model/solid-model.ts';
import { soundModel } from '../model/sound.ts';
import { boxModel } from '../testing/box-model.ts';
import { assembled, placeModel } from '../testing/turn-model.ts';
import type { Feature } from './family.ts';
import { recognise } from './recognise.ts';
import { isOptional, familyOf, placeOf } from './registry.ts';
import { featureSchema } from './schema.ts';

/** Plates made from outlines, so that recognition is tested on its own, without files or a kernel. */
const plate = (cuts: { outlines: Segment[][]; depth: number | null }[]): SolidModel => {
  const outlines: Outline[] = [
    {
      layer: 'P',
      segments: polygon([
        [-100, -80],
        [100, -80],
        [100, 80],
        [-100, 80],
      ]),
    },
  ];
  const layers: DrawingDepths['layers'] = { P: { use: 'outline', depth: null } };
  cuts.forEach((c, i) => {
    layers[`L${i}`] = { use: 'cut', depth: c.depth };
    for (const segments of c.outlines) outlines.push({ layer: `L${i}`, segments });
  });
  const drawing: Drawing = {
    format: 'yellow-pin/drawing@1',
    name: 'plate',
    sourceUnits: 'mm',
    outlines,
    notes: [],
  };
  return modelFromDrawing(drawing, { thickness: 20, layers, sizes: {} });
};
const polygon = (points: Vec2[]): Segment[] =>
  points.map((p, i) => ({ kind: 'line', from: p, to: points[(i + 1) % points.length]! }));
const circle = ([x, y]: Vec2, radius: number): Segment[] => [
  { kind: 'arc', from: [x + radius, y], to: [x + radius, y], centre: [x, y], radius, turn: 2 * Math.PI },
];
function capsule([x, y]: Vec2, length: number, width: number, angle: number): Segment[] {
  const [a, r] = [(length - width) / 2, width / 2];
  const at = (u: number, v: number): Vec2 => [
    x + u * Math.cos(angle) - v * Math.sin(angle),
    y + u * Math.sin(angle) + v * Math.cos(angle),
  ];
  return [
    { kind: 'line', from: at(-a, -r), to: at(a, -r) },
    { kind: 'arc', from: at(a, -r), to: at(a, r), centre: at(a, 0), radius: r, turn: Math.PI },
    { kind: 'line', from: at(a, r), to: at(-a, r) },
    { kind: 'arc', from: at(-a, r), to: at(-a, -r), centre: at(-a, 0), radius: r, turn: Math.PI },
  ];
}
const shaped = (model: SolidModel) => recognise(model).features.filter((f) => !isOptional(f));
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('recognition', () => {
  it('gives back the slot that was cut, at any place, angle, size and depth', () => {
    fc.assert(
      fc.property(
        number(-40, 40),
        number(-30, 30),
        number(4, 20),
        number(5, 50),
        number(0, Math.PI),
        fc.option(number(2, 18), { nil: null }),
        (x, y, width, more, angle, depth) => {
          const [slot, ...rest] = shaped(
            plate([{ outlines: [capsule([x, y], width + more, width, angle)], depth }]),
          );
          expect(rest).toEqual([]);
          expect(slot).toMatchObject({
            family: 'slot',
            kind: 'closed',
            bottom: depth === null ? 'open' : 'flat',
          });
          if (slot?.family !== 'slot') return;
          expect(slot.width).toBeCloseTo(width, 4);
          expect(slot.length).toBeCloseTo(width + more, 4);
          expect(slot.depth).toBeCloseTo(depth ?? 20, 4);
          expect(distance(slot.centre, [x, y, 0])).toBeLessThan(1e-4);
          // The sine sees an angle a cosine near 1 hides, and not the length of a rounded unit vector.
          const off = cross(slot.direction, [Math.cos(angle), Math.sin(angle), 0]);
          expect(Math.hypot(...off)).toBeLessThan(2e-6);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('looks at each solid of an assembly by itself: what stands over it in the file is no obstacle', () => {
    const base = plate([{ outlines: [circle([0, 0], 5)], depth: 8 }]);
    const alone = shaped(base)[0]!;
    expect(alone.reachableFrom).toEqual([[0, 0, 1]]);
    const lid = boxModel([-100, -80, base.bounds.max[2]], [100, 80, base.bounds.max[2] + 30]);
    const [hole, ...rest] = shaped(assembled([base, lid]));
    expect(rest).toEqual([]);
    expect(hole).toMatchObject({ solid: 0, reachableFrom: alone.reachableFrom, depth: 8 });
  });

  it('gives back ring and racetrack grooves', () => {
    fc.assert(
      fc.property(number(10, 30), number(2, 8), number(1, 10), (inner, width, depth) => {
        const [ring] = shaped(
          plate([{ outlines: [circle([0, 0], inner + width), circle([0, 0], inner)], depth }]),
        );
        expect(ring).toMatchObject({ family: 'face-groove', shape: 'ring' });
        if (ring?.family === 'face-groove') {
          expect(ring.width).toBeCloseTo(width, 4);
          expect(ring.depth).toBeCloseTo(depth, 4);
          expect(ring.innerDiameter!).toBeCloseTo(2 * inner, 4);
        }
        const [track] = shaped(
          plate([
            {
              outlines: [
                capsule([0, 0], 4 * inner + 2 * width, 2 * inner + 2 * width, 0.4),
                capsule([0, 0], 4 * inner, 2 * inner, 0.4),
              ],
              depth,
            },
          ]),
        );
        expect(track).toMatchObject({ family: 'face-groove', shape: 'racetrack' });
        if (track?.family === 'face-groove')
          expect(track.centrelineLength).toBeCloseTo(4 * inner + Math.PI * (2 * inner + width), 4);
      }),
      { numRuns: 15 },
    );
  });

  it('finds the same in a part that stands askew, far from the origin', () => {
    const model = plate([
      { outlines: [capsule([-40, 20], 50, 12, 0.5)], depth: 8 },
      { outlines: [circle([40, 30], 22), circle([40, 30], 18)], depth: 3 },
      { outlines: [circle([50, -40], 5)], depth: null },
    ]);
    const here = recognise(model);
    const unit = number(-1, 1);
    fc.assert(
      fc.property(unit, unit, unit, number(-1e4, 1e4), (x, y, hint, far) => {
        // Tilted by less than 30°: what is up stays up.
        const frame = frameFrom([far, -far, far / 2], normalize([0.4 * x, 0.4 * y, 1]), [1, hint, 0]);
        const there = recognise(placeModel(model, frame));
        const key = (f: (typeof here.features)[number]) =>
          `${f.family} ${familyOf(f).describe(f, (mm) => mm.toFixed(3))}`;
        expect(there.features.map(key).sort()).toEqual(here.features.map(key).sort());
        for (const f of here.features.filter(
          (g) => g.family !== 'sharp-edge' && g.family !== 'face-groove' && g.family !== 'outline',
        )) {
          const p = fromFrame(frame, placeOf(f));
          expect(there.features.some((g) => g.family === f.family && distance(placeOf(g), p) < 0.005)).toBe(
            true,
          );
        }
      }),
      { numRuns: 25 },
    );
  });

  it('takes a pocket for a pocket and for nothing else', () => {
    const { features, notes } = recognise(
      plate([
        {
          outlines: [
            polygon([
              [-30, -20],
              [30, -20],
              [30, 20],
              [-30, 20],
            ]),
          ],
          depth: 6,
        },
      ]),
    );
    expect(features.filter((f) => !isOptional(f))).toEqual([]);
    expect(notes).toEqual([]);
    const pockets = (list: Feature[]) => list.filter((f) => f.family === 'pocket');
    expect(pockets(features)).toMatchObject([
      { bottom: 'flat', depth: 6, length: 60, width: 40, cornerRadius: 0 },
    ]);
    const window = pockets(
      recognise(
        plate([
          {
            outlines: [
              polygon([
                [-30, -20],
                [30, -20],
                [30, 20],
                [-30, 20],
              ]),
            ],
            depth: null,
          },
        ]),
      ).features,
    );
    expect(window).toMatchObject([{ bottom: 'open', depth: 20, length: 60, width: 40 }]);
  });

  it('gives features that pass the public schema, ids that differ, and the same ids again', () => {
    const model = plate([
      { outlines: [capsule([0, 0], 50, 12, 0)], depth: 8 },
      { outlines: [circle([60, 40], 4)], depth: null },
    ]);
    const { features } = recognise(model);
    for (const f of features) expect(featureSchema.safeParse(f).error).toBeUndefined();
    expect(new Set(features.map((f) => f.id)).size).toBe(features.length);
    expect(recognise(model).features).toEqual(features);
  });

  it('lists each edge of a box once: two loops and the uprights', () => {
    const { features } = recognise(boxModel([0, 0, 0], [40, 30, 20]));
    const edges = features.filter((f) => f.family === 'sharp-edge');
    expect(edges.map((f) => f.loop).sort()).toEqual(['closed', 'closed', 'open', 'open', 'open', 'open']);
    expect(edges.flatMap((f) => f.edges)).toHaveLength(12);
    expect(new Set(edges.flatMap((f) => f.edges)).size).toBe(12);
  });
});

describe('patches', () => {
  it('join the faces of one surface that touch, and keep their outline', () => {
    const model = plate([{ outlines: [circle([0, 0], 10)], depth: 5 }]);
    const graph = patchGraph(model);
    // Six sides, and the wall in two halves as one, and a floor.
    expect(model.faces).toHaveLength(9);
    expect(graph.patches).toHaveLength(8);
    const wall = graph.patches.find((p) => p.surface.kind === 'cylinder')!;
    expect(wall.faces).toHaveLength(2);
    expect(wall.loops.map((l) => l.length).sort()).toEqual([2, 2]);
    for (const p of graph.patches)
      for (const b of p.loops.flat())
        expect(graph.patches[b.other]!.loops.flat().some((c) => c.edge === b.edge)).toBe(true);
  });
});

describe('a damaged model', () => {
  const model = plate([
    { outlines: [capsule([-40, 20], 50, 12, 0.5)], depth: 8 },
    { outlines: [circle([40, 30], 22), circle([40, 30], 18)], depth: 3 },
    { outlines: [circle([50, -40], 5)], depth: null },
  ]);
  const copy = (): SolidModel => structuredClone(model);
  type Damage = (m: SolidModel, i: number) => void;
  const DAMAGE: Damage[] = [
    (m, i) => void (m.faces[i % m.faces.length]!.loops = []),
    (m, i) => void m.faces[i % m.faces.length]!.loops[0]?.pop(),
    (m, i) => void (m.edges[i % m.edges.length]!.points = []),
    (m, i) => void (m.edges[i % m.edges.length]!.points = m.edges[i % m.edges.length]!.points.slice(0, 1)),
    (m, i) => void (m.edges[i % m.edges.length]!.points[0] = [NaN, 0, 0]),
    (m, i) => void (m.edges[i % m.edges.length]!.points[0] = [1e12, 0, 0]),
    (m, i) => void (m.edges[i % m.edges.length]!.faces = []),
    (m, i) => {
      const { surface } = m.faces[i % m.faces.length]!;
      if ('radius' in surface) surface.radius = 0;
    },
    (m, i) => {
      const { surface } = m.faces[i % m.faces.length]!;
      if ('origin' in surface) surface.origin = [NaN, NaN, NaN];
    },
    (m, i) => void (m.faces[i % m.faces.length]!.reversed = !m.faces[i % m.faces.length]!.reversed),
  ];

  it('loses what is damaged, with a note, and keeps what can be stored', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(DAMAGE.length - 1), fc.nat(1000)), { minLength: 1, maxLength: 4 }),
        (mishaps) => {
          const damaged = copy();
          for (const [kind, i] of mishaps) DAMAGE[kind]!(damaged, i);
          const sound = soundModel(damaged);
          expect(meshModel(sound).positions.every(Number.isFinite)).toBe(true);
          const { features, notes } = recognise(sound);
          for (const f of features) expect(featureSchema.safeParse(f).success).toBe(true);
          expect(notes.length).toBeGreaterThanOrEqual(sound.notes.length);
          for (const n of notes) expect(n.message.length).toBeGreaterThan(10);
        },
      ),
      { numRuns: 150 },
    );
  });
});
