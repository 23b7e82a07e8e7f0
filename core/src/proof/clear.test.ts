import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { frameFrom } from '../geometry/frame.ts';
import { viewHole, type HoleView } from '../operations/hole-view.ts';
import { hole } from '../testing/fixtures.ts';
import type { ProfilePoint } from '../tools/profile.ts';
import { clearRadius, tooWide } from './clear.ts';

const FRAME = frameFrom([0, 0, 0], [0, 0, 1], [1, 0, 0]);
/** Ø20 to 5 deep, a cone to Ø10 at 8, Ø10 to 20. */
const stepped = (through = false): HoleView =>
  viewHole(
    hole({
      kind: through ? 'through' : 'blind',
      bottom: { shape: through ? 'open' : 'flat' },
      depth: 20,
      stack: [
        { shape: 'cylinder', diameter: 20, length: 5 },
        { shape: 'cone', startDiameter: 20, endDiameter: 10, angle: 90, length: 3 },
        { shape: 'cylinder', diameter: 10, length: 12 },
      ],
    }),
    'A1',
    FRAME,
  )!;
const mill = (radius: number, flute: number): ProfilePoint[] => [
  { part: 'cutting', r: 0, z: 0 },
  { part: 'cutting', r: radius, z: 0 },
  { part: 'cutting', r: radius, z: flute },
];

describe('how wide a hole may be cut', () => {
  it('is its own radius at every depth, along a cone between its ends', () => {
    const v = stepped();
    expect([-1, 2, 6.5, 7.4, 15].map((d) => clearRadius(v, [], d))).toEqual([
      Infinity,
      10,
      7.5,
      expect.closeTo(6, 9),
      5,
    ]);
    expect(clearRadius(v, [], 21)).toBe(0);
    // Below an exit there is nothing to be cut.
    expect(clearRadius(stepped(true), [], 21)).toBe(Infinity);
  });

  it('is that of a wanted rim where it is wider, narrowing by its angle into the part', () => {
    const v = stepped();
    const rim = { z: v.entryZ, diameter: 22, angleDeg: 90, below: false };
    expect(clearRadius(v, [rim], 0)).toBeCloseTo(11, 9);
    expect(clearRadius(v, [rim], 0.6)).toBeCloseTo(10.4, 9);
    expect(clearRadius(v, [rim], 3)).toBe(10);
    // From below it widens the other way.
    const below = { z: v.entryZ - 20, diameter: 12, angleDeg: 90, below: true };
    expect(clearRadius(stepped(true), [below], 19.5)).toBeCloseTo(5.5, 9);
  });
});

describe('a cutter led round', () => {
  it('is too wide where its outline leaves the hole, by place and radius', () => {
    const v = stepped();
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(number(1, 4), number(0, 8), number(8.5, 19), (radius, orbit, depth) => {
        const found = tooWide(mill(radius, 40), orbit, v.entryZ - depth, v, []);
        const over = orbit + radius - 5;
        if (over > 0.04) expect(found).toMatchObject({ clear: 5 });
        if (over < 0.02) expect(found).toBeNull();
      }),
    );
  });

  it('may be as wide as the upper step while it stays in that', () => {
    const v = stepped();
    expect(tooWide(mill(4, 40), 6, v.entryZ - 4.9, v, [])).toBeNull();
    expect(tooWide(mill(4, 40), 6, v.entryZ - 9, v, [])).toMatchObject({
      clear: 5,
      z: -9,
    });
  });

  it('is never met by what is above the part', () => {
    expect(tooWide(mill(30, 40), 10, stepped().entryZ + 0.5, stepped(), [])).toBeNull();
  });
});
