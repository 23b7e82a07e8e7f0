import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { closeOutline, meetsAny, windingOf, type Turns } from './close-outline.ts';
import { insideTest, signedArea, type Flat } from './triangulate.ts';

const TURN = 2 * Math.PI * 10;
const cylinder: Turns = { u: TURN, v: 0, poles: {} };
const flat = (u: number, v: number): Flat => ({ u, v, point: [u, v, 0] });
/** A rim once round at a height, without the point that it comes back to. */
const rim = (v: number, n: number, start = 0, sense: 1 | -1 = 1): Flat[] =>
  Array.from({ length: n }, (_, i) => flat(start + (sense * TURN * i) / n, v));
const hole = (u: number, v: number, r: number): Flat[] =>
  Array.from({ length: 16 }, (_, i) => {
    const a = (-2 * Math.PI * i) / 16;
    return flat(u + r * Math.cos(a), v + r * Math.sin(a));
  });
const area = (loops: Flat[][]): number => loops.reduce((sum, l) => sum + signedArea(l), 0) / 2;

describe('loops of a surface that comes back to itself', () => {
  test('how often one goes round is counted, wherever it begins', () => {
    expect(windingOf(rim(0, 24, 3), 'u', TURN)).toBe(1);
    expect(windingOf(rim(0, 24, 3, -1), 'u', TURN)).toBe(-1);
    expect(windingOf(hole(5, 5, 2), 'u', TURN)).toBe(0);
    expect(windingOf(rim(0, 24), 'v', 0)).toBe(0);
  });

  test('two rims are one outline with all of the wall in it, however they are turned to each other', () => {
    const angle = fc.double({ min: -100, max: 100, noNaN: true });
    fc.assert(
      fc.property(
        angle,
        angle,
        fc.integer({ min: 3, max: 60 }),
        fc.integer({ min: 3, max: 60 }),
        (a, b, n, m) => {
          const out = closeOutline([rim(0, n, a), rim(8, m, b, -1)], cylinder, 1);
          expect(out).toHaveLength(1);
          // Each rim is there with its beginning twice: once on either side of the cut.
          expect(out[0]).toHaveLength(n + m + 2);
          expect(Math.abs(area(out))).toBeCloseTo(8 * TURN, 6);
        },
      ),
    );
  });

  test('holes in the wall stay holes, brought beside the outline', () => {
    const out = closeOutline([rim(0, 24), rim(30, 24, 0, -1), hole(20 + 3 * TURN, 15, 4)], cylinder, 1);
    expect(out).toHaveLength(2);
    const octagonal = Math.abs(area([hole(0, 0, 4)]));
    expect(Math.abs(area(out))).toBeCloseTo(30 * TURN - octagonal, 6);
    const middle = out[1]!.reduce((sum, f) => sum + f.u, 0) / 16;
    expect(middle).toBeGreaterThan(-TURN);
    expect(middle).toBeLessThan(2 * TURN);
  });

  test('the cut between rims that wave meets neither of them, nor a hole, and holes stay inside', () => {
    const wave = (n: number, v: number, rise: number, start: number, sense: 1 | -1): Flat[] =>
      Array.from({ length: n }, (_, i) => {
        const u = start + (sense * TURN * i) / n;
        return flat(
          u,
          v + rise * Math.sin((3 * 2 * Math.PI * u) / TURN) + 1.5 * Math.sin((11 * 2 * Math.PI * u) / TURN),
        );
      });
    const angle = fc.double({ min: 0, max: TURN, noNaN: true });
    fc.assert(
      fc.property(angle, angle, fc.array(angle, { minLength: 0, maxLength: 3 }), (a, b, places) => {
        const holes = places.map((u, i) => hole(u + (i - 1) * TURN, 15 + (i - 1) * 4.5, 1.5));
        const rims = [wave(120, 0, 5, a, 1), wave(90, 30, -4, b, -1)];
        const out = closeOutline([...rims, ...holes], cylinder, 1);
        const [outline, ...inner] = out;
        // No side of the outline crosses another: its area is what lies between the two waves, which is 30 high in the mean.
        expect(Math.abs(area([outline!])) / (30 * TURN)).toBeCloseTo(1, 2);
        const inside = insideTest([outline!]);
        for (const l of inner) for (const f of l) expect(inside(f.u, f.v)).toBe(true);
        const cutAt = outline!.findIndex((f, i) => i > 0 && Math.abs(f.v - outline![i - 1]!.v) > 8);
        const [p, q] = [outline![cutAt - 1]!, outline![cutAt]!];
        expect(meetsAny(p, q, [...rims, ...holes], 'u', TURN)).toBe(false);
      }),
      { numRuns: 60 },
    );
  });

  test('a rim and a pole are an outline up to the pole', () => {
    const cone: Turns = { ...cylinder, poles: { lower: { v: -12, point: [0, 0, -12] } } };
    const out = closeOutline([rim(0, 24, 0, -1)], cone, 1);
    expect(out).toHaveLength(1);
    expect(Math.abs(area(out))).toBeCloseTo(12 * TURN, 6);
    expect(out[0]!.filter((f) => f.v === -12)).toHaveLength(2);
  });

  test('a ball with holes in it has an outline of its own, and one that is whole nothing else', () => {
    const ball: Turns = {
      ...cylinder,
      whole: (from) => [flat(from, -15), flat(from + TURN, -15), flat(from + TURN, 15), flat(from, 15)],
    };
    expect(area(closeOutline([], ball, 1))).toBeCloseTo(30 * TURN, 6);
    const out = closeOutline([hole(0, 0, 3), hole(20, 5, 2)], ball, 1);
    expect(out).toHaveLength(3);
    expect(area(out)).toBeCloseTo(30 * TURN + area([hole(0, 0, 3), hole(0, 0, 2)]), 6);
    // The cut meets neither hole.
    const cut = out[0]![0]!.u;
    for (const l of out.slice(1))
      for (const f of l) {
        expect(f.u).toBeGreaterThan(cut);
        expect(f.u).toBeLessThan(cut + TURN);
      }
    expect(closeOutline([], cylinder, 1)).toEqual([]);
  });

  test('a ring between two rims across its tube goes the way its face lies', () => {
    const ring: Turns = { u: TURN, v: 40, poles: {} };
    const short = closeOutline([rim(5, 12), rim(15, 12, 0, -1)], ring, 1);
    expect(Math.abs(area(short))).toBeCloseTo(10 * TURN, 6);
    const long = closeOutline([rim(5, 12, 0, -1), rim(15, 12)], ring, 1);
    expect(Math.abs(area(long))).toBeCloseTo(30 * TURN, 6);
  });
});
