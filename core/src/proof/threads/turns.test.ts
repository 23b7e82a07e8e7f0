import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Motion } from '../../code/read/motion.ts';
import { turnsAbout } from './turns.ts';

type P = readonly [number, number, number];
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const motion = (from: P, to: P, part: Partial<Motion> = {}): Motion => ({
  line: 1,
  kind: 'feed',
  tool: 1,
  from,
  to,
  feed: 100,
  speed: 2000,
  ...part,
});

/** A helix of whole turns about a place, each an arc of its own. */
function helix(
  [x, y]: readonly [number, number],
  r: number,
  turns: number,
  pitch: number,
  clockwise: boolean,
): Motion[] {
  return Array.from({ length: turns }, (_, i) =>
    motion([x + r, y, -i * pitch], [x + r, y, -(i + 1) * pitch], {
      kind: 'arc',
      clockwise,
      turns: 1,
      line: i + 1,
      centre: [x, y, 0],
      feed: 100 + i,
    }),
  );
}

/** The same in chords. */
function chords(r: number, turns: number, pitch: number, n: number, sense: 1 | -1): Motion[] {
  const at = (k: number): P => {
    const a = (sense * 2 * Math.PI * k) / n;
    return [r * Math.cos(a), r * Math.sin(a), (-k * pitch) / n];
  };
  return Array.from({ length: turns * n }, (_, k) => motion(at(k), at(k + 1)));
}
const about = (x = 0, y = 0, isTapered = false) => ({ x, y, isTapered });

describe('turns round an axis', () => {
  it('of a helix are as many as it has, whichever way and wherever it goes round', () => {
    fc.assert(
      fc.property(
        number(-200, 200),
        number(-200, 200),
        number(1, 30),
        fc.integer({ min: 1, max: 9 }),
        number(0.5, 4),
        fc.boolean(),
        (x, y, r, n, pitch, clockwise) => {
          const [found, ...more] = turnsAbout(helix([x, y], r, n, pitch, clockwise), about(x, y));
          expect(more).toEqual([]);
          expect(found!.clockwise).toBe(clockwise);
          const [a, b] = [found!.places[0]!, found!.places.at(-1)!];
          expect(Math.abs(b.angle - a.angle)).toBeCloseTo(2 * Math.PI * n, 6);
          expect(a.z - b.z).toBeCloseTo(n * pitch, 6);
          expect(found!.feed).toBe(100 + n - 1);
          for (const p of found!.places) expect(p.radius).toBeCloseTo(r, 6);
        },
      ),
    );
  });

  it('in chords are the same turns', () => {
    fc.assert(
      fc.property(
        number(3, 20),
        fc.integer({ min: 2, max: 5 }),
        number(0.5, 3),
        fc.constantFrom(1, -1),
        (r, n, pitch, sense) => {
          const [found] = turnsAbout(chords(r, n, pitch, 72, sense as 1 | -1), about());
          expect(found!.clockwise).toBe(sense < 0);
          const [a, b] = [found!.places[0]!, found!.places.at(-1)!];
          expect((a.z - b.z) / Math.abs(b.angle - a.angle)).toBeCloseTo(pitch / (2 * Math.PI), 4);
        },
      ),
    );
  });

  it('are none where nothing goes once round, or round another place', () => {
    const half = motion([5, 0, 0], [-5, 0, -1], {
      kind: 'arc',
      clockwise: false,
      turns: 0,
      centre: [0, 0, 0],
    });
    expect(turnsAbout([half], about())).toEqual([]);
    expect(turnsAbout(helix([0, 0], 5, 3, 1, false), about(1, 0))).toEqual([]);
    expect(turnsAbout([motion([5, 0, 0], [50, 0, 0])], about())).toEqual([]);
  });

  it('are two where they change their sense, or begin anew elsewhere', () => {
    const there = helix([0, 0], 5, 2, 1, false);
    const back = helix([0, 0], 5, 2, 1, true).map((m) => ({ ...m, from: m.from, to: m.to }));
    expect(turnsAbout([...there, ...back], about()).map((t) => t.clockwise)).toEqual([false, true]);
    const wider = helix([0, 0], 8, 2, 1, false);
    expect(turnsAbout([...there, motion([5, 0, -2], [8, 0, 0]), ...wider], about())).toHaveLength(2);
  });

  it('may widen along the axis where the thread is tapered, and only there', () => {
    // 1 in 16 on the diameter, in chords: 1/32 of the way on the radius.
    const n = 144;
    const at = (k: number): P => {
      const [a, z] = [(2 * Math.PI * k) / n, (2 * k) / n];
      const r = 10 + z / 32;
      return [r * Math.cos(a), r * Math.sin(a), z];
    };
    const spiral = Array.from({ length: 3 * n }, (_, k) => motion(at(k), at(k + 1)));
    expect(turnsAbout(spiral, about(0, 0, true))).toHaveLength(1);
    // Wider by a hundredth from chord to chord: that is a way out.
    const out = spiral.map((m, k) => {
      const grow = (p: P, j: number): P => [p[0] * (1 + 0.002 * j), p[1] * (1 + 0.002 * j), p[2]];
      return motion(grow(m.from as P, k), grow(m.to as P, k + 1));
    });
    expect(turnsAbout(out, about())).toEqual([]);
  });
});
