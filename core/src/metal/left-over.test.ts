import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Motion } from '../code/read/motion.ts';
import { frameFrom } from '../geometry/frame.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { Bounds } from '../model/solid-model.ts';
import type { SetupFrame } from '../setup/setup-frame.ts';
import { endMill } from '../testing/fixtures.ts';
import { toolProfile } from '../tools/profile.ts';
import { toolBodies } from './body.ts';
import { MetalGrid, type Fill } from './grid.ts';
import { TakenBefore } from './left-over.ts';
import { MetalRun } from './run.ts';
import { gridPlace, stockFill } from './stock.ts';
import { Cavities } from './cavities.ts';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

/** A block as it stands in a setup that looks along `up`. */
function setupOf(box: Bounds, up: Vec3, x: Vec3): SetupFrame {
  const frame = frameFrom([0, 0, 0], up, x);
  const along = (d: Vec3): [number, number] => {
    const ends = d.map((v, k) => [v * box.min[k]!, v * box.max[k]!].sort((a, b) => a - b));
    return [ends.reduce((s, e) => s + e[0]!, 0), ends.reduce((s, e) => s + e[1]!, 0)];
  };
  const spans = [frame.x, frame.y, frame.z].map(along);
  const own: Bounds = {
    min: spans.map((s) => s[0]) as Vec3,
    max: spans.map((s) => s[1]) as Vec3,
  };
  const body = { box: own, shape: 'box' as const, along: 'x' as const, radius: 0, standsProud: true };
  return { frame, part: own, stock: own, body, keepOuts: [], top: own.max[2] };
}

const feed = (from: Vec3, to: Vec3): Motion => ({
  line: 1,
  kind: 'feed',
  tool: 1,
  from,
  to,
  feed: 100,
  speed: 1000,
});

describe('what a setup before has cut away', () => {
  it('is gone to the very sides of the stock, however the part is turned, whatever size it has', () => {
    fc.assert(
      fc.property(number(20, 30), number(20, 30), number(8, 14), number(0.21, 0.47), (w, d, h, cell) => {
        const box: Bounds = { min: [-1.3, -0.7, -h], max: [w, d, 0] };
        const first = setupOf(box, [0, 0, 1], [1, 0, 0]);
        const place = gridPlace(first, cell);
        const fill: Fill = stockFill(first, null, new Cavities([], first.frame, () => false), 0);
        const grid = new MetalGrid(place, fill, 0, true);
        const bodies = toolBodies(toolProfile(endMill(1, 60, 40), null));
        // All of it down to the middle.
        new MetalRun(grid, () => bodies).run(feed([-80, d / 2, -h / 2], [w + 80, d / 2, -h / 2]), 0);
        const taken = new TakenBefore({ grid, frame: first });
        for (const [up, x] of [
          [
            [1, 0, 0],
            [0, 1, 0],
          ],
          [
            [0, -1, 0],
            [1, 0, 0],
          ],
          [
            [0, 0, -1],
            [1, 0, 0],
          ],
        ] as [Vec3, Vec3][]) {
          const now = setupOf(box, up, x);
          const left = taken.leaves(stockFill(now, null, new Cavities([], now.frame, () => false), 0), now);
          const { min, max } = now.body.box;
          for (let i = 0; i <= 12; i++)
            for (let k = 0; k <= 12; k++) {
              const p: Vec3 = [
                min[0] + (0.0005 + (0.999 * i) / 12) * (max[0] - min[0]),
                min[1] + (0.0005 + (0.999 * k) / 12) * (max[1] - min[1]),
                0,
              ];
              // Its level in the first setup: of upright lines all of them.
              const z = up[2] === 0 ? p[0] * now.frame.x[2] + p[1] * now.frame.y[2] : null;
              const column = left(p[0], p[1], 0, 0) ?? [];
              if (z === null) expect(column).toEqual([h / 2, h].map((v) => expect.closeTo(v, 3) as number));
              else expect(column.length).toBe(z > -h / 2 + cell ? 0 : z < -h / 2 - cell ? 2 : column.length);
            }
        }
      }),
      { numRuns: 15 },
    );
  });
});
