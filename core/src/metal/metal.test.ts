import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Motion } from '../code/read/motion.ts';
import type { ProfilePoint } from '../tools/profile.ts';
import { toolProfile } from '../tools/profile.ts';
import { drill, endMill, usual } from '../testing/fixtures.ts';
import { toolBodies } from './body.ts';
import { MetalGrid } from './grid.ts';
import { MetalRun } from './run.ts';

type P = [number, number, number];
const block = (cell: number, size = 40, height = 30): MetalGrid =>
  new MetalGrid(
    { x0: 0, y0: 0, cell, nx: Math.round(size / cell), ny: Math.round(size / cell) },
    () => [-height, 0],
    0,
  );
const move = (kind: Motion['kind'], from: P, to: P, more: Partial<Motion> = {}): Motion => ({
  line: 1,
  kind,
  tool: 1,
  from,
  to,
  feed: 100,
  speed: 1000,
  ...more,
});
const cut = (grid: MetalGrid, profile: ProfilePoint[], ...motions: Motion[]) => {
  const bodies = toolBodies(profile);
  const run = new MetalRun(grid, () => bodies);
  return motions.flatMap((m, i) => run.run(m, i));
};
const mill = (d: number, flute = 40): ProfilePoint[] => toolProfile(endMill(1, d, flute), null);

describe('the bodies of a tool', () => {
  it('are one for each stretch that widens and narrows', () => {
    const drillBodies = toolBodies(
      toolProfile({ ...drill(1, 8.5, 60), shankDiameter: 10, stickOut: 90 }, null),
    );
    expect(drillBodies.map((b) => [b.part, b.radius, b.low, b.high])).toEqual([
      ['cutting', 4.25, 0, 60],
      ['shank', 5, 60, 90],
    ]);
    expect(drillBodies[0]!.bottom(0)).toBe(0);
    expect(drillBodies[0]!.bottom(4.25)).toBeCloseTo(4.25 / Math.tan((59 * Math.PI) / 180), 9);
    const t = toolBodies(toolProfile(usual('t-cutter', 1, 16), null));
    expect(t.map((b) => b.part)).toEqual(['cutting', 'neck', 'shank']);
    const ball = toolBodies(toolProfile(usual('lollipop', 1, 10), null));
    expect(ball[0]!.bottom(0)).toBeCloseTo(0, 6);
    expect(ball[0]!.top(ball[0]!.radius)).toBeLessThan(ball[0]!.high);
  });
});

describe('metal that is cut', () => {
  it('a drilled hole holds its volume within 1 % at a grid of diameter / 40, and its depth to 0.001 mm', () => {
    const d = 8;
    const grid = block(d / 40, 20);
    const before = grid.volume();
    cut(grid, toolProfile(drill(1, d), null), move('feed', [10.03, 9.96, 5], [10.03, 9.96, -20]));
    const point = d / 2 / Math.tan((59 * Math.PI) / 180);
    const exact = (Math.PI / 4) * d * d * (20 - point + point / 3);
    expect(Math.abs(before - grid.volume() - exact) / exact).toBeLessThan(0.01);
    const lowest = Math.max(...range(grid).map((c) => -(c.at(-1) ?? 0)));
    expect(lowest).toBeLessThanOrEqual(20);
    expect(lowest).toBeGreaterThan(20 - d / 40);
  });

  it('a slot, straight or round, likewise', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 3, max: 10, noNaN: true }),
        fc.double({ min: 0, max: Math.PI / 2, noNaN: true }),
        fc.double({ min: 0.5, max: 12, noNaN: true }),
        (d, angle, depth) => {
          const grid = block(d / 40, 40);
          const [a, b]: P[] = [
            [20 - 8 * Math.cos(angle), 20 - 8 * Math.sin(angle), -depth],
            [20 + 8 * Math.cos(angle), 20 + 8 * Math.sin(angle), -depth],
          ];
          const before = grid.volume();
          cut(grid, mill(d), move('feed', a!, b!));
          const exact = depth * (16 * d + (Math.PI / 4) * d * d);
          expect(Math.abs(before - grid.volume() - exact) / exact).toBeLessThan(0.01);
        },
      ),
      { numRuns: 8 },
    );
  });

  it('a ring cut on a full circle keeps its core, a helix of several turns takes what it passes', () => {
    const [d, r] = [6, 7];
    const grid = block(d / 40, 40);
    const before = grid.volume();
    const start: P = [20 + r, 20, 0];
    cut(
      grid,
      mill(d),
      move('arc', start, [20 + r, 20, -6], { centre: [20, 20, 0], clockwise: false, turns: 4 }),
      move('arc', [20 + r, 20, -6], [20 + r, 20, -6], { centre: [20, 20, -6], clockwise: false, turns: 1 }),
    );
    const exact = 6 * Math.PI * ((r + d / 2) ** 2 - (r - d / 2) ** 2);
    expect(Math.abs(before - grid.volume() - exact) / exact).toBeLessThan(0.01);
    // The core stands.
    expect(grid.column(Math.floor(20 / (d / 40)), Math.floor(20 / (d / 40)))).toEqual([-30, 0]);
    expect(grid.column(Math.floor(27 / (d / 40)), Math.floor(20 / (d / 40)))[1]).toBeCloseTo(-6, 5);
  });

  it('a T-cutter leaves metal above and below its disc', () => {
    const tool = {
      ...usual('t-cutter', 1, 16),
      diameter: 16,
      fluteLength: 5,
      neckDiameter: 7,
      neckLength: 20,
    };
    const grid = block(0.2, 40);
    cut(grid, toolProfile(tool, null), move('feed', [-10, 20, -12], [50, 20, -12]));
    const at = (y: number) => grid.column(100, Math.floor(y / 0.2)).map((z) => Math.round(z * 1e4) / 1e4);
    expect(at(26)).toEqual([-30, -12, -7, 0]);
    expect(at(20)[1]).toBeCloseTo(-12, 4);
    // The neck, which does not cut, met the metal above the disc.
    const [contact] = cut(
      block(0.2, 40),
      toolProfile(tool, null),
      move('feed', [-10, 20, -12], [50, 20, -12]),
    );
    expect(contact).toMatchObject({ part: 'neck', isRapid: false });
    expect(contact!.depth).toBeCloseTo(7, 3);
  });

  it('a ramp goes as deep as its end, and a ball leaves its round under it', () => {
    const grid = block(0.1, 30);
    cut(grid, mill(4), move('feed', [5, 15, 0], [25, 15, -5]));
    expect(grid.column(249, 150)[1]).toBeCloseTo(-5, 2);
    // In the middle of the way the flat end is lowest at its trailing edge: 2 mm behind it, 0.5 mm higher than the tip at the front.
    expect(grid.column(150, 150)[1]).toBeCloseTo(-(15.05 + 2 - 5) / 4, 3);
    const round = block(0.1, 30);
    const ball = toolProfile({ ...endMill(1, 8), cornerRadius: 4 }, null);
    cut(round, ball, move('feed', [5, 15, -3], [25, 15, -3]));
    const aside = round.column(150, 170)[1]!;
    expect(aside).toBeCloseTo(-3 + 4 - Math.sqrt(16 - 2.05 ** 2), 1);
    expect(Math.abs(aside - (-3 + 4 - Math.sqrt(16 - 2.05 ** 2)))).toBeLessThan(0.015);
  });

  it('goes back to a snapshot, and forward again, without a trace', () => {
    const grid = block(0.2, 20);
    const start = grid.snapshot();
    cut(grid, mill(6), move('feed', [5, 10, -4], [15, 10, -4]));
    const after = grid.snapshot();
    const volume = grid.volume();
    cut(grid, mill(6), move('feed', [5, 5, -9], [15, 5, -9]));
    grid.restore(after);
    expect(grid.volume()).toBeCloseTo(volume, 6);
    grid.restore(start);
    expect(grid.volume()).toBeCloseTo(20 * 20 * 30, 3);
  });
});

describe('what is met and was not to be', () => {
  it('a rapid way through metal, with the depth and the place', () => {
    const [hit] = cut(block(0.2), mill(8), move('rapid', [-10, 20, -3], [50, 20, -3]));
    expect(hit).toMatchObject({ motion: 0, part: 'cutting', isRapid: true });
    expect(hit!.depth).toBeCloseTo(3, 4);
  });

  it('nothing in the air, in what the tool has cut itself, or where two tools are one size', () => {
    const grid = block(0.2);
    const down = move('feed', [20, 20, 2], [20, 20, -10]);
    expect(
      cut(
        grid,
        mill(8),
        down,
        move('rapid', [20, 20, -10], [20, 20, 2]),
        move('rapid', [20, 20, 2], [20, 20, -9.5]),
      ),
    ).toEqual([]);
    expect(cut(grid, mill(8), move('rapid', [20, 20, 2], [20, 20, -10]))).toEqual([]);
    expect(cut(grid, mill(8), move('rapid', [-10, 20, 0], [50, 20, 0]))).toEqual([]);
  });

  it('the shank, deeper than the flutes are long beside a wall', () => {
    const short = { ...endMill(1, 8, 10), shankDiameter: 12, stickOut: 60 };
    const [hit] = cut(block(0.2), toolProfile(short, null), move('feed', [-10, 20, -15], [50, 20, -15]));
    expect(hit).toMatchObject({ part: 'shank', isRapid: false });
    expect(hit!.depth).toBeCloseTo(5, 3);
  });
});

function range(grid: MetalGrid): number[][] {
  const out: number[][] = [];
  for (let j = 0; j < grid.place.ny; j++) for (let i = 0; i < grid.place.nx; i++) out.push(grid.column(i, j));
  return out;
}
