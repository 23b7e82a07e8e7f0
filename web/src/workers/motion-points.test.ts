import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { RIGID_TAP_BUILT_IN } from '@yellow-pin/core/code/profiles/shipped';
import { readProgram } from '@yellow-pin/core/code/read/read';
import type { Motion } from '@yellow-pin/core/code/read/motion';
import { motionPoints } from './motion-points.ts';

const motion = (part: Partial<Motion>): Motion => ({
  line: 1,
  kind: 'feed',
  tool: 1,
  from: [0, 0, 0],
  to: [10, 0, 0],
  feed: 100,
  speed: 1000,
  ...part,
});
const arc = (part: Partial<Motion>) => motionPoints(motion({ kind: 'arc', centre: [0, 0, 0], ...part }));

describe('the way of a motion', () => {
  it('is its two ends where it is straight', () => {
    expect(motionPoints(motion({}))).toEqual([
      [0, 0, 0],
      [10, 0, 0],
    ]);
  });
  it('is nothing where an end is not known, or the machine waits', () => {
    expect(motionPoints(motion({ from: [null, 0, 0] }))).toEqual([]);
    expect(motionPoints(motion({ kind: 'dwell' }))).toEqual([]);
  });
  it('goes round by the sense of the arc', () => {
    const middle = (clockwise: boolean) => {
      const points = arc({ from: [5, 0, 0], to: [-5, 0, 0], clockwise });
      return points[(points.length - 1) / 2]!;
    };
    expect(middle(false)[1]).toBeCloseTo(5);
    expect(middle(true)[1]).toBeCloseTo(-5);
  });
  it('is drawn as often round as the text says: once for a full circle, three times with two turns more', () => {
    const start = 'G21 G17 G90 G94 G54\nT1 M6\nS500 M3\nG0 X5. Y0.\nG43 H1 Z0.\n';
    const wayOf = (line: string): number => {
      const { motions } = readProgram(`${start}${line}\nM30`, RIGID_TAP_BUILT_IN);
      const points = motionPoints(motions.find((m) => m.kind === 'arc')!);
      expect(points[points.length - 1]).toEqual([5, 0, -2]);
      return points.slice(1).reduce((n, p, i) => n + Math.hypot(...p.map((v, k) => v - points[i]![k]!)), 0);
    };
    expect(wayOf('G2 X5. Y0. Z-2. I-5. F100.')).toBeCloseTo(Math.hypot(2 * Math.PI * 5, 2), 0);
    expect(wayOf('G2 X5. Y0. Z-2. I-5. P2 F100.')).toBeCloseTo(Math.hypot(6 * Math.PI * 5, 2), 0);
  });
  it('stays at its radius', () => {
    const angle = fc.double({ min: -3, max: 3, noNaN: true });
    fc.assert(
      fc.property(angle, angle, fc.boolean(), fc.integer({ min: 0, max: 3 }), (a, b, clockwise, turns) => {
        const on = (t: number): [number, number, number] => [7 * Math.cos(t), 7 * Math.sin(t), 0];
        for (const p of arc({ from: on(a), to: on(b), clockwise, turns }))
          expect(Math.hypot(p[0], p[1])).toBeCloseTo(7, 6);
      }),
    );
  });
});
