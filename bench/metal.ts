import Module from 'manifold-3d';
import type { Motion } from '@yellow-pin/core/code/read/motion';
import { toolBodies } from '@yellow-pin/core/metal/body';
import { MetalGrid } from '@yellow-pin/core/metal/grid';
import { MetalRun } from '@yellow-pin/core/metal/run';
import { metalOf } from '@yellow-pin/core/job/prove-metal';
import { produceJob } from '@yellow-pin/core/job/produce';
import { SHOP } from '@yellow-pin/demo/shop/index';
import { toolProfile } from '@yellow-pin/core/tools/profile';
import { exponent, type Line } from './growth.ts';
import { partForProfile } from './planning.ts';

const D = 6;
const CELL = D / 40;
/** Sides of the peer's cylinders: with these its volume is as far off as the grid's, about 0.4 %. */
const SIDES = 40;

const timed = <T>(work: () => T): [T, number] => {
  const start = performance.now();
  const value = work();
  return [value, (performance.now() - start) / 1000];
};

/** Straight cuts with an end mill across a block, n of them. */
function cuts(n: number): Motion[] {
  return Array.from({ length: n }, (_, k): Motion => {
    const [x, y] = [10 + ((k * 37) % 180), 10 + ((k * 61) % 130)];
    const angle = (k * 2.399) % Math.PI;
    const z = -1 - (k % 5);
    return {
      line: k + 1,
      kind: 'feed',
      tool: 1,
      from: [x, y, z],
      to: [x + 12 * Math.cos(angle), y + 12 * Math.sin(angle), z],
      feed: 100,
      speed: 1000,
    };
  });
}

function ours(motions: readonly Motion[]): number {
  const mill = SHOP.tools.find((t) => t.kind === 'end-mill' && t.diameter === D)!;
  const bodies = toolBodies(toolProfile(mill, null)).filter((b) => b.part === 'cutting');
  const grid = new MetalGrid(
    { x0: 0, y0: 0, cell: CELL, nx: Math.ceil(210 / CELL), ny: Math.ceil(160 / CELL) },
    () => [-20, 0],
    0,
  );
  const run = new MetalRun(grid, () => bodies);
  let taken = 0;
  motions.forEach((m, k) => {
    run.run(m, k);
    taken += run.took;
  });
  return taken;
}

/** The same cuts with the peer: each the hull of two cylinders, all taken from the block at once, which is its fastest way. */
async function peer(): Promise<(motions: readonly Motion[]) => number> {
  const wasm = await Module();
  wasm.setup();
  const { Manifold } = wasm;
  return (motions) => {
    const block = Manifold.cube([210, 160, 20]).translate([0, 0, -20]);
    const before = block.volume();
    const tools = motions.map(({ from, to }) => {
      const end = Manifold.cylinder(20, D / 2, D / 2, SIDES);
      const [a, b] = [from, to].map((p) => end.translate([p[0]!, p[1]!, p[2]!]));
      return Manifold.hull([a!, b!]);
    });
    return before - block.subtract(Manifold.union(tools)).volume();
  };
}

/** How fast metal comes off: against the peer at equal volume error, how it grows, and a whole plate proved. */
export async function metalLines(): Promise<Line[]> {
  const lines: Line[] = [];
  const cutPeer = await peer();
  const motions = cuts(400);
  ours(cuts(40));
  const [mine, seconds] = timed(() => ours(motions));
  const [theirs, peerSeconds] = timed(() => cutPeer(motions));
  lines.push({
    what: `400 cuts: times as fast as manifold-3d (volumes ${((100 * Math.abs(mine - theirs)) / theirs).toFixed(2)} % apart)`,
    value: peerSeconds / seconds,
    unit: 'times',
    goal: '> 10',
    met: peerSeconds > 10 * seconds,
  });
  lines.push({
    what: '  moves a second',
    value: motions.length / seconds,
    unit: '/s',
    goal: '> 1000',
    met: motions.length > 1000 * seconds,
  });
  const points: [number, number][] = [200, 400, 800].map((n) => {
    let best = Infinity;
    for (let k = 0; k < 3; k++) best = Math.min(best, timed(() => ours(cuts(n)))[1]);
    return [n, best];
  });
  const slope = exponent(points);
  lines.push({ what: '  its growth, exponent', value: slope, unit: '', goal: '< 1.2', met: slope < 1.2 });
  const input = partForProfile(2000);
  const { job, programs } = produceJob(input);
  const [proof, proving] = timed(() => metalOf(input, { job, programs, faces: null }));
  lines.push({
    what: `metal of a plate with 2,000 holes, cell ${proof.cell.toFixed(3)} mm`,
    value: proving,
    unit: 's',
    goal: '< 10',
    met: proving < 10,
  });
  const memory = process.memoryUsage().rss / 1e6;
  lines.push({
    what: '  memory of all rows so far',
    value: memory,
    unit: 'MB',
    goal: '< 1000',
    met: memory < 1000,
  });
  return lines;
}
