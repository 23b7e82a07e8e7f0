import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chordsOf, type KnownMotion } from './chords.ts';

const arc = (part: Partial<KnownMotion>): KnownMotion => ({
  line: 1,
  kind: 'arc',
  tool: 1,
  from: [5, 0, 0],
  to: [5, 0, 0],
  centre: [0, 0, 0],
  clockwise: false,
  turns: 1,
  feed: 100,
  speed: 1000,
  ...part,
});

describe('an arc as chords', () => {
  it('hangs together, stays on its circle and goes the way it is said', () => {
    const angle = fc.double({ min: 0.01, max: 6.2, noNaN: true });
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 200, noNaN: true }), angle, fc.boolean(), (r, a, clockwise) => {
        const end = clockwise ? -a : a;
        const m = arc({
          from: [r, 0, 2],
          to: [r * Math.cos(end), r * Math.sin(end), -1],
          clockwise,
          turns: 0,
        });
        const chords = chordsOf(m);
        expect(chords[0]!.from).toEqual(m.from);
        expect(chords.at(-1)!.to).toEqual(m.to);
        chords.forEach((c, i) => {
          if (i > 0) expect(c.from).toEqual(chords[i - 1]!.to);
          expect(Math.hypot(c.to[0], c.to[1])).toBeCloseTo(r, 6);
          const middle = Math.hypot((c.from[0] + c.to[0]) / 2, (c.from[1] + c.to[1]) / 2);
          expect(r - middle).toBeLessThanOrEqual(Math.max(0.0101, r * 4e-5));
          const side = c.from[0] * c.to[1] - c.from[1] * c.to[0];
          expect(Math.sign(side)).toBe(clockwise ? -1 : 1);
          expect(c.to[2]).toBeLessThan(c.from[2]);
        });
      }),
    );
  });

  it('goes all the way round for a whole turn, once for several at one level, each for a helix', () => {
    const round = chordsOf(arc({}));
    expect(Math.min(...round.map((c) => c.to[0]))).toBeCloseTo(-5, 1);
    expect(chordsOf(arc({ turns: 4 }))).toHaveLength(round.length);
    expect(chordsOf(arc({ turns: 4, to: [5, 0, -8] }))).toHaveLength(4 * round.length);
  });

  it('leaves a straight motion as it is', () => {
    const line = arc({ kind: 'feed', to: [9, 9, 9] });
    expect(chordsOf(line)).toEqual([line]);
  });
});
