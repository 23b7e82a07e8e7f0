import { beforeAll, describe, expect, it } from 'vitest';
import { drawRoundedRectangle, makeSphere, type Shape3D } from 'replicad';
import { recognise } from '@yellow-pin/core/features/recognise';
import { isHole } from '@yellow-pin/core/features/family';
import type { HoleFeature } from '@yellow-pin/core/features/hole/schema';
import { directionFromFrame, frameFrom, fromFrame } from '@yellow-pin/core/geometry/frame';
import { distance, type Vec3 } from '@yellow-pin/core/geometry/vec';
import { readStep } from '@yellow-pin/kernel';
import { plateStep } from './plate-step.ts';
import {
  blind,
  box,
  counterbored,
  cutAll,
  prepare,
  straight,
  sunk,
  turned,
  type Point,
  type Profile,
} from './solids.ts';
import { UP } from './stored-parts.ts';
import { encode, modelOf, holesOf } from './model-of.ts';

const at = (holes: HoleFeature[], x: number, y: number): HoleFeature => {
  const found = holes.filter((h) => Math.hypot(h.entry[0] - x, h.entry[1] - y) < 0.01);
  expect(found, `holes at ${x}, ${y}`).toHaveLength(1);
  return found[0]!;
};

const near = (value: number, expected: number, tolerance = 0.005): void =>
  expect(Math.abs(value - expected), `${value} against ${expected}`).toBeLessThanOrEqual(tolerance);

beforeAll(prepare);

describe('holes of every shape', () => {
  let holes: HoleFeature[];
  beforeAll(async () => {
    const put = (x: number, y: number, profile: Profile) => turned(profile, [x, y, 0], UP);
    const plate = cutAll(box([0, 0, -30], [160, 80, 0]), [
      put(15, 15, straight(8, 40)),
      put(40, 15, blind(8.5, 18)),
      put(65, 15, counterbored(straight(6.6, 40), 11, 6.8)),
      put(90, 15, sunk(straight(5.5, 40), 10.4)),
      put(115, 15, sunk(blind(6.8, 20), 8.6)),
      put(140, 15, [
        [0, 10],
        [5, 10],
        [5, 7],
        [12, 7],
        [12, 4],
        [22, 4],
      ]),
      put(15, 55, [
        [0, 6],
        [10, 6],
        [10 + 2 / Math.tan((59 * Math.PI) / 180), 4],
        [24, 4],
      ]),
      put(40, 55, straight(10, 10)),
      makeSphere(5).translate([40, 55, -10]) as unknown as Shape3D,
      put(65, 55, straight(12, 9)),
      turned(counterbored(straight(6.6, 40), 11, 6.8), [90, 55, -30], [0, 0, -1]),
      put(115, 55, [
        [0, 10.2 / 2],
        [16, 10.2 / 2 - 0.5],
      ]),
      put(140, 55, [
        [0, 5],
        [8, 5],
        [8, 6.5],
        [11, 6.5],
        [11, 5],
        [40, 5],
      ]),
    ]);
    holes = await holesOf([plate]);
  });

  it('finds each once', () => expect(holes).toHaveLength(12));

  it('reads a plain through hole', () => {
    const h = at(holes, 15, 15);
    expect(h).toMatchObject({
      kind: 'through',
      role: 'plain',
      bottom: { shape: 'open' },
      interrupted: false,
      axis: [0, 0, 1],
    });
    near(h.depth, 30);
    expect(h.reachableFrom).toHaveLength(2);
  });

  it('reads a drilled blind hole with its point', () => {
    const h = at(holes, 40, 15);
    expect(h.kind).toBe('blind');
    expect(h.bottom.shape).toBe('cone');
    near(h.bottom.shape === 'cone' ? h.bottom.angle : 0, 118, 0.05);
    near(h.depth, 18);
    expect(h.reachableFrom).toEqual([[0, 0, 1]]);
    expect(h.threadCandidates[0]).toEqual({ designation: 'M10x1.5', basis: 'tap drill diameter' });
  });

  it('reads counterbore and countersink with their sizes', () => {
    const bore = at(holes, 65, 15);
    expect(bore.role).toBe('counterbored');
    expect(bore.stack).toEqual([
      { shape: 'cylinder', diameter: 11, length: 6.8 },
      { shape: 'flat', startDiameter: 11, endDiameter: 6.6 },
      { shape: 'cylinder', diameter: 6.6, length: 23.2 },
    ]);
    const sink = at(holes, 90, 15);
    expect(sink.role).toBe('countersunk');
    expect(sink.stack[0]).toMatchObject({ shape: 'cone', startDiameter: 10.4, endDiameter: 5.5, angle: 90 });
  });

  it('keeps an entry chamfer in the stack and the role plain', () => {
    const h = at(holes, 115, 15);
    expect(h.role).toBe('plain');
    expect(h.stack[0]).toMatchObject({ shape: 'cone', startDiameter: 8.6 });
    near(h.depth, 20);
  });

  it('reads three steps, and a step that ends in a cone', () => {
    const three = at(holes, 140, 15);
    expect(three.role).toBe('stepped');
    expect(three.stack.flatMap((s) => (s.shape === 'cylinder' ? [s.diameter, s.length] : []))).toEqual([
      20, 5, 14, 7, 8, 10,
    ]);
    expect(three.bottom.shape).toBe('flat');
    const coned = at(holes, 15, 55);
    expect(coned.stack.map((s) => s.shape)).toEqual(['cylinder', 'cone', 'cylinder']);
  });

  it('reads a ball end', () => {
    const h = at(holes, 40, 55);
    expect(h.bottom.shape).toBe('ball');
    near(h.depth, 10);
  });

  it('reads a flat floor', () => {
    const h = at(holes, 65, 55);
    expect(h.bottom.shape).toBe('flat');
    near(h.depth, 9);
  });

  it('reads a counterbore on the far side from that side, reachable from both', () => {
    const h = at(holes, 90, 55);
    expect(h.role).toBe('counterbored');
    expect(h.axis).toEqual([0, 0, -1]);
    expect(h.stack[0]).toMatchObject({ diameter: 11, length: 6.8 });
    expect(h.reachableFrom).toHaveLength(2);
  });

  it('takes a 1:16 taper for a tapered hole', () => {
    const h = at(holes, 115, 55);
    expect(h.role).toBe('tapered');
    expect(h.stack[0]!.shape).toBe('cone');
  });

  it('reads a bore crossed by a ring undercut as one cylinder over its whole length', () => {
    const h = at(holes, 140, 55);
    expect(h.stack).toEqual([{ shape: 'cylinder', diameter: 10, length: 30 }]);
  });
});

describe('walls as files store them', () => {
  it.each(['seam', 'halves', 'spline'] as const)('reads %s walls alike', async (wall) => {
    const model = await readStep(encode(plateStep({ holes: 6, wall })));
    const { features: all, notes } = recognise(model);
    const features = all.filter(isHole);
    expect(features).toHaveLength(6);
    for (const h of features) near(h.stack[0]!.shape === 'cylinder' ? h.stack[0]!.diameter : 0, 5);
    expect(features.filter((h) => h.kind === 'blind')).toHaveLength(3);
    expect(notes.some((n) => n.code === 'surface-recovered')).toBe(wall === 'spline');
  });

  it('reads a tilted part far from the origin, in inches', async () => {
    const [angle, shift] = [33, [900, -400, 250] as Point];
    const body = cutAll(box([0, 0, -20], [80, 60, 0]), [
      turned(blind(8.5, 12, 140), [20, 20, 0], UP),
      turned(sunk(straight(6.6, 30), 13), [60, 40, 0], UP),
    ]);
    const tilted = body.rotate(angle, [0, 0, 0], [1, 2, 0.5]).translate(shift) as Shape3D;
    const holes = await holesOf([tilted], 'INCH');
    expect(holes).toHaveLength(2);
    const frame = rotationFrame(angle, [1, 2, 0.5]);
    const entry = fromFrame({ ...frame, origin: shift }, [20, 20, 0]);
    const drilled = holes.find((h) => h.kind === 'blind')!;
    expect(distance(drilled.entry, entry)).toBeLessThan(0.005);
    expect(distance(drilled.axis, directionFromFrame(frame, [0, 0, 1]))).toBeLessThan(1e-6);
    near(drilled.depth, 12);
    near(drilled.bottom.shape === 'cone' ? drilled.bottom.angle : 0, 140, 0.05);
    expect(holes.find((h) => h.kind === 'through')!.role).toBe('countersunk');
  });
});

function rotationFrame(angleDeg: number, about: Vec3) {
  const l = Math.hypot(...about);
  const [x, y, z] = about.map((v) => v / l) as Vec3;
  const [c, s] = [Math.cos((angleDeg * Math.PI) / 180), Math.sin((angleDeg * Math.PI) / 180)];
  const column = (i: number): Vec3 =>
    [
      [c + x * x * (1 - c), y * x * (1 - c) + z * s, z * x * (1 - c) - y * s],
      [x * y * (1 - c) - z * s, c + y * y * (1 - c), z * y * (1 - c) + x * s],
      [x * z * (1 - c) + y * s, y * z * (1 - c) - x * s, c + z * z * (1 - c)],
    ][i] as Vec3;
  return frameFrom([0, 0, 0], column(2), column(0));
}

describe('cavities that cross', () => {
  it('keeps a hole whole across a cross bore, and marks both', async () => {
    const body = cutAll(box([0, 0, -40], [60, 60, 0]), [
      turned(straight(6, 34), [30, 30, 0], UP),
      turned(straight(14, 70), [0, 30, -20], [-1, 0, 0]),
    ]);
    const holes = await holesOf([body]);
    expect(holes).toHaveLength(2);
    const small = holes.find((h) => h.kind === 'blind')!;
    near(small.depth, 34);
    expect(small.interrupted).toBe(true);
    expect(holes.find((h) => h.kind === 'through')!.interrupted).toBe(true);
  });

  it('reads two equal holes that cross', async () => {
    const body = cutAll(box([0, 0, -40], [60, 60, 0]), [
      turned(straight(10, 50), [30, 30, 0], UP),
      turned(straight(10, 70), [0, 30, -20], [-1, 0, 0]),
    ]);
    const holes = await holesOf([body]);
    expect(holes).toHaveLength(2);
    for (const h of holes)
      expect(h).toMatchObject({ kind: 'through', interrupted: true, stack: [{ diameter: 10 }] });
  });

  it('takes the two cheeks of a fork for two holes', async () => {
    const body = cutAll(box([0, 0, -40], [60, 40, 0]), [
      box([20, -1, -30], [40, 41, 1]),
      turned(straight(8, 70), [0, 20, -15], [-1, 0, 0]),
    ]);
    const holes = await holesOf([body]);
    expect(holes).toHaveLength(2);
    for (const h of holes) near(h.depth, 20);
  });

  it('keeps the full depth of a hole broken by a slot across its mouth', async () => {
    const body = cutAll(box([0, 0, -30], [60, 40, 0]), [
      box([-1, 17.5, -6], [61, 22.5, 1]),
      turned(blind(8, 20), [30, 20, 0], UP),
    ]);
    const h = at(await holesOf([body]), 30, 20);
    near(h.depth, 20);
    near(h.entry[2], 0);
    expect(h.interrupted).toBe(true);
  });

  it('starts full engagement at the lowest point of a slanted entry', async () => {
    const wedge = cutAll(box([0, 0, -30], [60, 40, 0]), [
      box([-80, -50, 0], [140, 90, 60]).rotate(15, [0, 0, 0], [0, 1, 0]) as Shape3D,
    ]);
    const holes = await holesOf([wedge.cut(turned(straight(8, 60), [30, 20, 10], UP)) as Shape3D]);
    expect(holes).toHaveLength(1);
    near(holes[0]!.entryDrop, 8 * Math.tan((15 * Math.PI) / 180), 0.01);
  });
});

describe('false friends', () => {
  it('takes no boss, pocket corner, slot end, notch or ring groove for a hole', async () => {
    const rounded = (w: number, d: number, r: number, x: number, y: number, depth: number): Shape3D =>
      drawRoundedRectangle(w, d, r)
        .sketchOnPlane('XY')
        .extrude(depth + 1)
        .translate([x, y, -depth]) as unknown as Shape3D;
    let body = cutAll(box([0, 0, -30], [160, 90, 0]), [
      rounded(40, 24, 5, 30, 25, 10),
      rounded(36, 10, 4.999, 90, 20, 8),
      turned(straight(12, 40), [0, 60, 0], UP),
      turned(straight(12, 40), [160, 60, 0], UP),
    ]);
    body = body.fuse(turned(straight(14, 5), [60, 65, 15], UP, 0)) as Shape3D;
    const ring = turned(straight(30, 4), [120, 60, 0], UP).cut(
      turned(straight(22, 5), [120, 60, 0], UP),
    ) as Shape3D;
    body = body.cut(ring) as Shape3D;
    const { features, notes } = recognise(await modelOf([body]));
    expect(features.filter(isHole)).toEqual([]);
    expect(features.map((f) => f.family)).toEqual(expect.arrayContaining(['face-groove', 'slot', 'pocket']));
    expect(notes).toEqual([]);
  });
});
