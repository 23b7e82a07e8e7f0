import { describe, expect, it } from 'vitest';
import { deriveJob } from '../job/derive.ts';
import { BOUNDS, hole, LIBRARY, plan } from '../testing/fixtures.ts';
import type { Feature } from '../features/family.ts';
import type { HoleFeature } from '../features/hole/schema.ts';
import { applyCorrections, targetOf } from './apply.ts';
import { correctionSchema, type Correction } from './schema.ts';

const drilled = (x: number, part: Partial<HoleFeature> = {}) =>
  hole({ entry: [x, 20, 0], stack: [{ shape: 'cylinder', diameter: 8, length: part.depth ?? 20 }], ...part });
const apply = (features: Feature[], ...corrections: Correction[]) => {
  for (const c of corrections) correctionSchema.parse(JSON.parse(JSON.stringify(c)));
  return applyCorrections(features, corrections);
};
const holes = (features: Feature[]): HoleFeature[] =>
  features.filter((f): f is HoleFeature => f.family === 'hole');

describe('corrections', () => {
  it('dismiss what is none, and only that', () => {
    const [a, b] = [drilled(10), drilled(40)];
    const done = apply([a, b], { id: 'c1', kind: 'dismiss', targets: [targetOf(a)] });
    expect(done.features).toEqual([b]);
    expect(done.lost).toEqual([]);
  });
  it('set depth, top and bottom of many at once', () => {
    const [a, b] = [drilled(10), drilled(40, { depth: 12 })];
    const typed = holes(
      apply([a, b], {
        id: 'c',
        kind: 'levels',
        targets: [a, b].map(targetOf),
        raiseTop: 0,
        lowerBottom: 0,
        depth: 25,
      }).features,
    );
    expect(typed.map((h) => [h.depth, h.stack[0]])).toEqual([
      [25, { shape: 'cylinder', diameter: 8, length: 25 }],
      [25, { shape: 'cylinder', diameter: 8, length: 25 }],
    ]);
    const moved = holes(
      apply([a, b], {
        id: 'c',
        kind: 'levels',
        targets: [a, b].map(targetOf),
        raiseTop: 3,
        lowerBottom: 1,
        depth: null,
      }).features,
    );
    expect(moved.map((h) => [h.entry[2], h.depth])).toEqual([
      [3, 24],
      [3, 16],
    ]);
  });
  it('turn a through hole round', () => {
    const a = drilled(10, { kind: 'through', bottom: { shape: 'open' }, depth: 30 });
    const [turned] = holes(
      apply([a], { id: 'c', kind: 'approach', targets: [targetOf(a)], from: [0, 0, -1] }).features,
    );
    expect(turned).toMatchObject({ axis: [0, 0, -1], entry: [10, 20, -30], reachableFrom: [[0, 0, -1]] });
  });
  it('join the cheeks of a fork, and split a hole at a gap', () => {
    const [upper, lower] = [
      drilled(10, { depth: 8, kind: 'through', bottom: { shape: 'open' } }),
      drilled(10, { entry: [10, 20, -22], depth: 8, kind: 'through', bottom: { shape: 'open' } }),
    ];
    const [joined, ...rest] = holes(
      apply([upper, lower], { id: 'c', kind: 'join', targets: [upper, lower].map(targetOf) }).features,
    );
    expect(rest).toEqual([]);
    expect(joined).toMatchObject({
      depth: 30,
      entry: [10, 20, 0],
      stack: [{ diameter: 8, length: 30 }],
      interrupted: true,
    });
    const back = holes(
      apply([joined!], { id: 'c', kind: 'split', targets: [targetOf(joined!)], from: 8, to: 22 }).features,
    );
    expect(back.map((h) => [h.entry[2], h.depth, h.kind])).toEqual([
      [0, 8, 'through'],
      [-22, 8, 'through'],
    ]);
    expect(
      apply([upper, drilled(50)], { id: 'c', kind: 'join', targets: [upper, drilled(50)].map(targetOf) })
        .lost[0]!.reason,
    ).toContain('one axis');
  });
  it('make an entry chamfer a job of its own', () => {
    const chamfered = drilled(10, {
      stack: [
        { shape: 'cone', startDiameter: 9, endDiameter: 8, angle: 90, length: 0.5 },
        { shape: 'cylinder', diameter: 8, length: 19.5 },
      ],
    });
    const { features } = apply([chamfered], { id: 'c', kind: 'own-chamfer', targets: [targetOf(chamfered)] });
    expect(features.map((f) => f.family)).toEqual(['hole', 'chamfer']);
    expect(holes(features)[0]!.stack).toEqual([{ shape: 'cylinder', diameter: 8, length: 20 }]);
    expect(features[1]).toMatchObject({ width: 0.5, angle: 45, kind: 'circular', side: 'inside' });
  });
  it('put in what was not found', () => {
    const { features } = apply([], {
      id: 'hand-1',
      kind: 'made',
      feature: {
        family: 'hole',
        entry: [5, 6, 0],
        axis: [0, 0, 1],
        diameter: 6,
        depth: 15,
        through: false,
        faces: [],
      },
    });
    expect(features[0]).toMatchObject({
      id: 'hand-1',
      family: 'hole',
      depth: 15,
      stack: [{ shape: 'cylinder', diameter: 6, length: 15 }],
    });
  });
  it('build on each other: a depth, then another approach, each told apart', () => {
    const a = drilled(10);
    const done = apply(
      [a],
      { id: 'c1', kind: 'levels', targets: [targetOf(a)], raiseTop: 2, lowerBottom: 0, depth: null },
      { id: 'c2', kind: 'approach', targets: [targetOf(a)], from: [0, 0, 1] },
    );
    expect(done.lost).toEqual([]);
    expect(done.by.get(a.id)).toEqual(['c1', 'c2']);
    expect(holes(done.features)[0]).toMatchObject({ depth: 22, reachableFrom: [[0, 0, 1]] });
  });
  it('never let a tool come in where there is no way: a blind hole from below, any hole from the side', () => {
    const [blind, through] = [
      drilled(10),
      drilled(40, { kind: 'through', bottom: { shape: 'open' }, depth: 30 }),
    ];
    for (const [hole, from] of [
      [blind, [0, 0, -1]],
      [blind, [1, 0, 0]],
      [through, [1, 0, 0]],
    ] as [HoleFeature, [number, number, number]][]) {
      const done = apply([hole], { id: 'c', kind: 'approach', targets: [targetOf(hole)], from });
      expect(done.features).toEqual([hole]);
      expect(done.lost).toEqual([{ id: 'c', reason: expect.stringContaining('along its axis') as string }]);
    }
  });
  it('keep the steps of a hole together, and refuse a depth that leaves one of them nothing', () => {
    const sunk = drilled(10, {
      kind: 'through',
      bottom: { shape: 'open' },
      depth: 30,
      stack: [
        { shape: 'cone', startDiameter: 12, endDiameter: 6, angle: 90, length: 3 },
        { shape: 'cylinder', diameter: 6, length: 27 },
      ],
    });
    const bored = drilled(40, {
      stack: [
        { shape: 'cylinder', diameter: 11, length: 6 },
        { shape: 'flat', startDiameter: 11, endDiameter: 6 },
        { shape: 'cylinder', diameter: 6, length: 14 },
      ],
    });
    const total = (h: HoleFeature): number =>
      h.stack.reduce((n, s) => n + (s.shape === 'flat' ? 0 : s.length), 0);
    const raised = holes(
      apply([sunk, bored], {
        id: 'c',
        kind: 'levels',
        targets: [sunk, bored].map(targetOf),
        raiseTop: 2,
        lowerBottom: 1,
        depth: null,
      }).features,
    );
    expect(raised.map((h) => [h.depth, total(h)])).toEqual([
      [33, 33],
      [23, 23],
    ]);
    expect(raised[1]!.stack[0]).toMatchObject({ diameter: 11, length: 8 });
    const refused = apply([bored], {
      id: 'c',
      kind: 'levels',
      targets: [targetOf(bored)],
      raiseTop: 0,
      lowerBottom: 0,
      depth: 5,
    });
    expect(refused.features).toEqual([bored]);
    expect(refused.lost).toHaveLength(1);
    // Joined, a counterbore would be gone without a word.
    expect(
      apply([bored, drilled(40, { entry: [40, 20, -40] })], {
        id: 'c',
        kind: 'join',
        targets: [targetOf(bored), targetOf(drilled(40, { entry: [40, 20, -40] }))],
      }).lost[0]!.reason,
    ).toContain('plain holes');
  });
  it('say when their feature is gone, and change nothing else', () => {
    const done = apply([drilled(10)], {
      id: 'c',
      kind: 'dismiss',
      targets: [targetOf(drilled(70)), targetOf(drilled(10))],
    });
    expect(done.features).toEqual([]);
    expect(done.lost).toEqual([{ id: 'c', reason: '1 of its 2 features are no longer there' }]);
  });
  it('reach the plan: rows, coverage and code follow', () => {
    const p = plan();
    const features = [drilled(10), drilled(40)];
    p.corrections = [
      { id: 'c', kind: 'levels', targets: [targetOf(features[0]!)], raiseTop: 0, lowerBottom: 0, depth: 10 },
    ];
    const job = deriveJob({ features, bounds: BOUNDS, plan: p, library: LIBRARY });
    expect(job.rows.map((r) => r.holes.map((h) => h.depth))).toEqual([[10], [20]]);
    expect([...job.corrected.by.keys()]).toEqual([features[0]!.id]);
  });
});
