import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { add, cross, distance, dot, normalize, scale, type Vec3 } from '../geometry/vec.ts';
import { at } from '../lists.ts';
import { oneFace, type BareEdge } from '../testing/one-face.ts';
import { ballPicture } from './ball-picture.ts';
import { bulgesOf, meshArea, meshModel } from './mesh.ts';

const RADIUS = 10;
const ORIGIN: Vec3 = [3, -4, 5];

/** A ball's face within a ring of points on it, run with the face on its left as seen from outside the ball; `seam` is run up and down. */
function faceWithin(ring: readonly Vec3[], { reversed = false, seam = null as Vec3[] | null } = {}) {
  const points = ring.map((d) => add(ORIGIN, scale(normalize(d), RADIUS)));
  const edges: BareEdge[] = [{ curve: { kind: 'spline' }, points: [...points, points[0]!] }];
  const loop = [{ edge: 0, reversed }];
  if (seam) {
    edges.push({ curve: { kind: 'spline' }, points: [points[0]!, ...seam] });
    loop.push({ edge: 1, reversed: false }, { edge: 1, reversed: true });
  }
  return oneFace(
    { surface: { kind: 'sphere', origin: ORIGIN, radius: RADIUS }, reversed, loops: [loop] },
    edges,
  );
}

/** A ring at an angle from a direction, counter-clockwise about it, its radius waving `waves` times. */
function ring(about: Vec3, angle: number, wave = 0, waves = 5, n = 180): Vec3[] {
  const z = normalize(about);
  const x = normalize(cross(Math.abs(z[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0], z));
  const y = cross(z, x);
  return Array.from({ length: n }, (_, i) => {
    const t = (2 * Math.PI * i) / n;
    const a = angle + wave * Math.sin(waves * t);
    return add(scale(z, Math.cos(a)), scale(add(scale(x, Math.cos(t)), scale(y, Math.sin(t))), Math.sin(a)));
  });
}
const direction = fc
  .tuple(...[0, 1, 2].map(() => fc.integer({ min: -20, max: 20 })))
  .map((d) => d as unknown as Vec3)
  .filter((d) => dot(d, d) > 0);

describe('a part of a ball seen from beside it', () => {
  test('has the places within its border, wherever that lies and however much of the ball it takes', () => {
    fc.assert(
      fc.property(
        direction,
        fc.double({ min: 0.3, max: 2.8, noNaN: true }),
        fc.boolean(),
        (about, angle, reversed) => {
          const { model, face } = faceWithin(ring(about, angle), { reversed });
          const picture = ballPicture(model, face)!;
          const z = normalize(about);
          for (const d of ring([1, 2, 3], 1.1, 0.6, 3, 60)) {
            const away = Math.acos(Math.max(-1, Math.min(1, dot(normalize(d), z))));
            if (Math.abs(away - angle) < 0.02) continue;
            expect(picture.has(add(ORIGIN, scale(normalize(d), RADIUS)))).toBe(away < angle);
          }
          for (const { point } of picture.fill()) expect(distance(point, ORIGIN)).toBeCloseTo(RADIUS, 9);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('knows no seam: with one and without it is the same', () => {
    const border = ring([1, 1, 1], 1.2);
    const tip = add(ORIGIN, scale(normalize([1, 1, 1]), RADIUS));
    const [plain, seamed] = [null, [tip]].map((seam) => {
      const { model, face } = faceWithin(border, { seam });
      return ballPicture(model, face)!;
    });
    expect(seamed!.loops).toEqual(plain!.loops);
  });
});

test('a ball’s face is meshed whole where its border winds freely about the poles', () => {
  fc.assert(
    fc.property(direction, fc.double({ min: 0.5, max: 2.3, noNaN: true }), (about, angle) => {
      const border = ring(about, angle, 0.25, 4);
      // Programs lead a seam to a pole that is in the face, whatever else of the border lies on its way round.
      const pole: Vec3 = [0, 0, 1];
      const { model: bare, face } = faceWithin(border);
      const isIn = ballPicture(bare, face)!.has(add(ORIGIN, scale(pole, RADIUS)));
      const from = normalize(border[0]!);
      const seam = Array.from({ length: 9 }, (_, i) =>
        add(ORIGIN, scale(normalize(add(scale(from, 8 - i), scale(pole, i + 1))), RADIUS)),
      );
      const { model } = faceWithin(border, { seam: isIn && from[2] > -0.9 ? seam : null });
      const mesh = meshModel(model);
      expect(mesh.failed).toEqual([]);
      // The area within: the sum over the ring of 1 − cos of its angle, by its turn.
      const n = 3600;
      let area = 0;
      for (let i = 0; i < n; i++) {
        const a = angle + 0.25 * Math.sin((4 * 2 * Math.PI * i) / n);
        area += (RADIUS * RADIUS * (1 - Math.cos(a)) * 2 * Math.PI) / n;
      }
      expect(Math.abs(meshArea(mesh) / area - 1)).toBeLessThan(0.012);
      const corners = Array.from({ length: mesh.positions.length / 3 }, (_, i) =>
        distance([0, 1, 2].map((k) => at(mesh.positions, 3 * i + k)) as Vec3, ORIGIN),
      );
      for (const r of corners) expect(r).toBeCloseTo(RADIUS, 4);
    }),
    { numRuns: 60 },
  );
});

test('the places farthest along the axes are those of the face', () => {
  const { model, face } = faceWithin(ring([1, 0.2, 0.1], 0.9, 0.2, 3));
  expect(bulgesOf(model, face)).toEqual([[13, -4, 5]]);
  const { model: rest, face: all } = faceWithin([...ring([1, 0.2, 0.1], 0.9)].reverse());
  expect(bulgesOf(rest, all)).toHaveLength(5);
});
