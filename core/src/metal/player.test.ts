import { describe, expect, it } from 'vitest';
import { isHole } from '../features/family.ts';
import { produceJob } from '../job/produce.ts';
import { BOUNDS, hole, LIBRARY, plan } from '../testing/fixtures.ts';
import { MetalGrid } from './grid.ts';
import { meshMetal } from './picture.ts';
import { Player } from './player.ts';

const features = [
  hole({ entry: [20, 20, 0], depth: 20, stack: [{ shape: 'cylinder', diameter: 8, length: 20 }] }),
  hole({ id: 'H2', entry: [70, 50, 0], depth: 12, stack: [{ shape: 'cylinder', diameter: 6, length: 12 }] }),
];

function player(): Player {
  expect(features.every(isHole)).toBe(true);
  const p = plan();
  const block = { kind: 'block' as const, xLow: 0, xHigh: 0, yLow: 0, yHigh: 0, zLow: 0, zHigh: 0 };
  p.setups[0]!.stock = { ...p.setups[0]!.stock, ...block };
  const { job, programs } = produceJob({ features, bounds: BOUNDS, plan: p, library: LIBRARY, name: 'x' });
  const { tools, holders } = LIBRARY;
  return new Player({ mesh: null, faces: null, features, tools, holders }, programs, job.machine);
}

/** Lowest and highest corner of some patches. */
function heights(p: Player): [number, number] {
  const z = p.patches().flatMap(({ mesh }) => [...mesh.positions].filter((_, k) => k % 3 === 2));
  return [Math.min(...z), Math.max(...z)];
}

describe('a program that is played', () => {
  it('shows the stock at its start, and tells afterwards only what changed', () => {
    const p = player();
    p.goTo(0);
    const first = p.patches();
    expect(first.length).toBeGreaterThan(1);
    expect(p.patches()).toEqual([]);
    p.goTo(p.total);
    const after = p.patches();
    expect(after.length).toBeGreaterThan(0);
    expect(after.length).toBeLessThanOrEqual(first.length);
    expect(after.some(({ mesh }) => mesh.tools.some((t) => t > 0))).toBe(true);
  });

  it('goes forth and back: the same moment is the same metal, whichever way it is come to', () => {
    const [a, b] = [player(), player()];
    const half = a.total / 2;
    a.goTo(half);
    b.goTo(b.total);
    b.patches();
    b.goTo(half);
    const there = a.patches();
    const back = new Map(b.patches().map((x) => [x.patch, x.mesh.positions]));
    expect(back.size).toBeGreaterThan(0);
    for (const { patch, mesh } of there)
      if (back.has(patch)) expect([...back.get(patch)!]).toEqual([...mesh.positions]);
    expect(heights(player())[0]).toBeCloseTo(-30, 3);
  });

  it('says where the tool is between the ends of a motion, and which line moves it', () => {
    const p = player();
    const feed = p.motions.findIndex((m) => m.kind === 'feed');
    const [start, end] = [p.ends[feed - 1]!, p.ends[feed]!];
    const pose = p.goTo((start + end) / 2);
    const m = p.motions[feed]!;
    expect(pose).toMatchObject({ motion: feed, line: m.line, tool: m.tool, isRapid: false });
    expect(pose.at![2]).toBeCloseTo((m.from[2]! + m.to[2]!) / 2, 6);
    for (let k = 1; k < p.ends.length; k++) expect(p.ends[k]!).toBeGreaterThanOrEqual(p.ends[k - 1]!);
  });
});

describe('the surface of metal', () => {
  it('is closed: its quads hold the volume of a plain block, few of them', () => {
    const grid = new MetalGrid({ x0: 0, y0: 0, cell: 1, nx: 40, ny: 30 }, () => [-10, 0], 0);
    const mesh = meshMetal(grid, { i0: 0, j0: 0, i1: 40, j1: 30 }, () => 0);
    // Volume by the divergence theorem, a third of z·n over all quads.
    let volume = 0;
    for (let q = 0; q < mesh.positions.length; q += 12) {
      const p = (k: number): [number, number, number] => [
        mesh.positions[q + 3 * k]!,
        mesh.positions[q + 3 * k + 1]!,
        mesh.positions[q + 3 * k + 2]!,
      ];
      for (const [a, b, c] of [
        [p(0), p(1), p(2)],
        [p(0), p(2), p(3)],
      ] as const)
        volume +=
          (a[0] * (b[1] * c[2] - b[2] * c[1]) -
            a[1] * (b[0] * c[2] - b[2] * c[0]) +
            a[2] * (b[0] * c[1] - b[1] * c[0])) /
          6;
    }
    expect(volume).toBeCloseTo(40 * 30 * 10, 3);
    expect(mesh.positions.length / 12).toBeLessThan(2 + 2 * 70 + 1);
  });
});
