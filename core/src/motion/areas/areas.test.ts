import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Vec2 } from '../../geometry/path.ts';
import {
  boxRegion,
  grown,
  isIn,
  NOWHERE,
  regionOf,
  regionOfPoints,
  within,
  without,
  type Region,
} from '../../geometry/region.ts';
import { circle, waysOf } from '../../testing/ways.ts';
import type { Pass } from '../work.ts';
import { clearCorners } from './corners.ts';
import { clearClosed, type ClosedCut } from './clear.ts';
import { cutTowards, waysTowards, type OpenCut } from './towards.ts';
import { zigzag } from './zigzag.ts';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

/** How far places are from the nearest way on a level, the farthest of them, mm. */
function farthest(passes: readonly Pass[], places: readonly Vec2[], z: number): number {
  const level = waysOf(passes).filter(([a, b]) => Math.abs(a[2] - z) < 1e-6 && Math.abs(b[2] - z) < 1e-6);
  let worst = 0;
  for (const [x, y] of places) {
    let best = Infinity;
    for (const [a, b] of level) {
      const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
      const l2 = dx * dx + dy * dy;
      const t = l2 > 0 ? Math.max(0, Math.min(1, ((x - a[0]) * dx + (y - a[1]) * dy) / l2)) : 0;
      best = Math.min(best, Math.hypot(x - a[0] - t * dx, y - a[1] - t * dy));
    }
    worst = Math.max(worst, best);
  }
  return worst;
}

/** Places of a region on a lattice, farther from its border than `inside`. */
function placesIn(region: Region, inside: number, box: readonly [number, number, number, number]): Vec2[] {
  const core = grown(region, -inside);
  const out: Vec2[] = [];
  for (let i = 0; i < 14; i++)
    for (let j = 0; j < 14; j++) {
      const p: Vec2 = [
        box[0] + ((i + 0.37) / 14) * (box[2] - box[0]),
        box[1] + ((j + 0.61) / 14) * (box[3] - box[1]),
      ];
      if (isIn(core, p)) out.push(p);
    }
  return out;
}

const CLOSED: Omit<ClosedCut, 'room' | 'diameter' | 'stepover'> = {
  r: 2,
  top: 0,
  floor: -7,
  perLayer: 3,
  ramp: 3,
  above: 0.5,
  isClimb: true,
};

describe('a closed area', () => {
  it('is cleared whole, and its cutter never leaves its room', () => {
    fc.assert(
      fc.property(
        number(25, 90),
        number(25, 70),
        number(4, 9),
        number(6, 12),
        number(0.2, 0.6),
        fc.boolean(),
        (w, h, corner, d, share, hasIsland) => {
          const radius = Math.min(corner, d / 2);
          const block = grown(boxRegion([radius, radius], [w - radius, h - radius]), radius);
          const island = regionOf([circle([w / 2, h / 2], Math.max(1, (Math.min(w, h) - 2.4 * d) / 2))]);
          const area = hasIsland && Math.min(w, h) > 3 * d ? without(block, island) : block;
          const room = grown(area, -d / 2);
          const passes = clearClosed({ ...CLOSED, room, diameter: d, stepover: share * d });
          // Chords lie inside their arcs, and arcs off the border by a few thousandths.
          const slack = grown(room, 0.02);
          for (const [a, b] of waysOf(passes))
            for (const t of [0, 0.5])
              expect(isIn(slack, [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])])).toBe(true);
          // What a round cutter can reach at all.
          const reached = grown(room, d / 2);
          const places = placesIn(reached, 0.05, [0, 0, w, h]);
          expect(farthest(passes, places, -7)).toBeLessThanOrEqual(d / 2 + 0.02);
        },
      ),
      { numRuns: 8 },
    );
  });

  it('keeps no core in its middle, however far apart its ways are', () => {
    for (const share of [0.6, 0.9])
      for (let radius = 6; radius < 20; radius += 1.9) {
        const room = grown(regionOf([circle([0, 0], radius)]), -5);
        const passes = clearClosed({ ...CLOSED, room, diameter: 10, stepover: share * 10 });
        const places = placesIn(grown(room, 5), 0.05, [-radius, -radius, radius, radius]);
        expect(farthest(passes, places, -7)).toBeLessThanOrEqual(5.02);
      }
  });

  it('is gone down into no steeper than the cutter may, layer by layer', () => {
    const room = grown(boxRegion([0, 0], [60, 40]), -5);
    const passes = clearClosed({ ...CLOSED, room, diameter: 10, stepover: 4.5 });
    const lowest = waysOf(passes).map(([, b]) => b[2]);
    expect(Math.min(...lowest)).toBe(-7);
    for (const [a, b] of waysOf(passes)) {
      const way = Math.hypot(b[0] - a[0], b[1] - a[1]);
      // Straight down it goes where it has been before, or above the metal.
      if (way > 1e-6) expect(a[2] - b[2]).toBeLessThanOrEqual(way * Math.tan((3.001 * Math.PI) / 180) + 1e-9);
    }
  });

  it('that is too narrow for the cutter has no moves', () => {
    const room = grown(boxRegion([0, 0], [60, 9]), -5);
    expect(clearClosed({ ...CLOSED, room, diameter: 10, stepover: 4 })).toEqual([]);
  });
});

const OPEN: Omit<OpenCut, 'walls' | 'area' | 'metal'> = {
  diameter: 12,
  stepover: 5,
  stock: 0.2,
  r: 2,
  top: 0,
  floor: -6,
  perLayer: 3,
  isClimb: true,
};

describe('an open area', () => {
  it('is cut toward its walls from outside the metal, and never into them', () => {
    fc.assert(
      fc.property(number(40, 120), number(30, 90), number(8, 25), number(0, 4), (w, h, deep, stock) => {
        // A step along one side of a block, with stock about all of it.
        const walls = boxRegion([0, deep], [w, h]);
        const block = boxRegion([-stock, -stock], [w + stock, h + stock]);
        const metal = stock > 0.01 ? without(block, walls) : boxRegion([0, 0], [w, deep]);
        const passes = cutTowards({ ...OPEN, walls, metal, area: metal });
        const kept = grown(walls, OPEN.diameter / 2 + OPEN.stock - 0.01);
        for (const { start } of passes)
          expect(isIn(grown(metal, OPEN.diameter / 2), [start[0], start[1]])).toBe(false);
        for (const [a, b] of waysOf(passes))
          for (const t of [0, 0.5, 1])
            expect(isIn(kept, [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])])).toBe(false);
        const due = without(metal, grown(walls, OPEN.stock + 0.02));
        const places = placesIn(due, 0.02, [-stock, -stock, w + stock, h + stock]);
        expect(farthest(passes, places, -6)).toBeLessThanOrEqual(OPEN.diameter / 2 + 0.02);
      }),
      { numRuns: 8 },
    );
  });

  it('that is open at both ends is cut straight through, not round all of the part', () => {
    // Stock of 3 mm stands all round the part, and the outline is made later.
    const part = grown(boxRegion([8, 8], [72, 52]), 8);
    const own = within(part, boxRegion([60, -5], [90, 65]));
    const walls = without(part, own);
    const metal = without(boxRegion([-3, -3], [83, 63]), walls);
    const passes = cutTowards({ ...OPEN, walls, metal, area: own, diameter: 20, stepover: 9, perLayer: 6 });
    expect(passes).toHaveLength(1);
    for (const { moves } of passes) expect(moves.map((m) => m.kind)).toEqual(['line', 'line']);
    expect(
      farthest(passes, placesIn(without(own, grown(walls, 0.23)), 0.02, [58, 0, 80, 60]), -6),
    ).toBeLessThan(10);
  });

  it('all round a part is one closed way, wherever its border begins', () => {
    fc.assert(
      fc.property(number(4, 24), number(0, 6.28), number(60, 120), (corner, turned, w) => {
        const turn = ([x, y]: Vec2): Vec2 => [
          x * Math.cos(turned) - y * Math.sin(turned),
          x * Math.sin(turned) + y * Math.cos(turned),
        ];
        const corners: Vec2[] = [
          [corner, corner],
          [w - corner, corner],
          [w - corner, 60 - corner],
          [corner, 60 - corner],
        ];
        const walls = grown(regionOfPoints([corners.map(turn)]), corner);
        const metal = without(grown(walls, 3), walls);
        for (const distance of waysTowards({ ...OPEN, walls, metal, area: metal }))
          expect(distance.map((way) => way.closed)).toEqual([true]);
      }),
      { numRuns: 40 },
    );
  });

  it('round something that stands is left and entered by one way out of the metal', () => {
    const walls = boxRegion([30, 30], [70, 60]);
    const metal = without(boxRegion([0, 0], [100, 90]), walls);
    const passes = cutTowards({ ...OPEN, walls, metal, area: metal });
    for (const { start, moves } of passes) {
      const end = moves.at(-1);
      if (end?.kind === 'dwell' || !end) throw new Error('a pass ends with a move');
      for (const [x, y] of [start, end.to]) expect(isIn(grown(metal, 6), [x, y])).toBe(false);
    }
  });
});

describe('corners that a wide cutter has left', () => {
  it('are cleared whole, from ground that it has cleared, and never into the walls', () => {
    fc.assert(
      fc.property(number(50, 90), number(45, 70), number(2.2, 5), number(14, 24), (w, h, corner, wide) => {
        const area = grown(boxRegion([corner, corner], [w - corner, h - corner]), corner);
        const walls = without(boxRegion([-60, -60], [w + 60, h + 60]), area);
        const reached = grown(grown(area, -wide / 2), wide / 2);
        const rest = within(grown(grown(without(area, reached), -0.03), 0.53), area);
        const diameter = 2 * corner - 0.4;
        const cut = { ...OPEN, walls, rest, diameter, stepover: 0.45 * diameter };
        const passes = clearCorners(cut);
        expect(passes.length).toBe(4);
        const kept = grown(walls, diameter / 2 + cut.stock - 0.03);
        const stands = grown(without(area, reached), diameter / 2 - 0.02);
        for (const { start } of passes) expect(isIn(stands, [start[0], start[1]])).toBe(false);
        for (const [a, b] of waysOf(passes)) {
          for (const t of [0, 0.5, 1])
            expect(isIn(kept, [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])])).toBe(false);
          // It goes down where nothing is left.
          if (a[2] - b[2] > 1e-6) expect(isIn(stands, [b[0], b[1]])).toBe(false);
        }
        const due = grown(grown(area, -(diameter / 2 + cut.stock)), diameter / 2);
        const places = placesIn(within(rest, due), 0.03, [0, 0, w, h]);
        expect(farthest(passes, places, OPEN.floor)).toBeLessThanOrEqual(diameter / 2 + 0.02);
      }),
      { numRuns: 12 },
    );
  });

  it('are none where nothing is left', () => {
    expect(clearCorners({ ...OPEN, walls: boxRegion([0, 0], [9, 9]), rest: NOWHERE })).toEqual([]);
  });
});

describe('a face', () => {
  it('is milled from edge to edge, each way from the air to the air', () => {
    fc.assert(
      fc.property(number(20, 150), number(20, 150), number(8, 40), number(0.3, 0.9), (w, h, d, share) => {
        const metal = boxRegion([0, 0], [w, h]);
        const passes = zigzag({
          metal,
          diameter: d,
          stepover: share * d,
          r: 2,
          top: 3,
          floor: 0,
          perLayer: 2,
          isOneWay: false,
        });
        expect(passes).toHaveLength(2);
        expect(farthest(passes, placesIn(metal, 1e-3, [0, 0, w, h]), 0)).toBeLessThanOrEqual(d / 2 + 1e-6);
        for (const { start } of passes) expect(isIn(grown(metal, d / 2), [start[0], start[1]])).toBe(false);
      }),
    );
  });
});
