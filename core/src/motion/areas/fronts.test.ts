import { describe, expect, it } from 'vitest';
import type { Vec2 } from '../../geometry/path.ts';
import { boxRegion, grown, isIn, regionOf, without, type Region } from '../../geometry/region.ts';
import { circle, waysOf } from '../../testing/ways.ts';
import { clearInFronts } from './fronts.ts';

const DIAMETER = 8;
const STEP = 0.8;
const CUT = {
  diameter: DIAMETER,
  stepover: STEP,
  r: 2,
  top: 0,
  floor: -9,
  perLayer: 9,
  ramp: 3,
  above: 0.5,
  isClimb: true,
};

const rounded = (w: number, h: number): Region => grown(boxRegion([5, 5], [w - 5, h - 5]), 5);

const ROOMS: [string, Region][] = [
  ['a pocket', rounded(60, 36)],
  ['a pocket with an island', without(rounded(70, 50), regionOf([circle([40, 25], 7)]))],
  ['an angle', without(rounded(70, 60), boxRegion([30, 28], [80, 80]))],
];

/** Cells of metal that a cutter still meets. */
class Cells {
  private readonly left = new Set<number>();
  static readonly SIZE = 0.25;

  constructor(area: Region, w: number, h: number) {
    for (let i = 0; i * Cells.SIZE < w; i++)
      for (let k = 0; k * Cells.SIZE < h; k++)
        if (isIn(area, [(i + 0.5) * Cells.SIZE, (k + 0.5) * Cells.SIZE])) this.left.add(i * 4096 + k);
  }

  /** How much a cutter takes that goes there, mm². */
  take(at: Vec2): number {
    const { SIZE } = Cells;
    const r = DIAMETER / 2;
    let n = 0;
    for (let i = Math.floor((at[0] - r) / SIZE); i * SIZE <= at[0] + r; i++)
      for (let k = Math.floor((at[1] - r) / SIZE); k * SIZE <= at[1] + r; k++) {
        if (Math.hypot((i + 0.5) * SIZE - at[0], (k + 0.5) * SIZE - at[1]) > r) continue;
        if (this.left.delete(i * 4096 + k)) n++;
      }
    return n * SIZE * SIZE;
  }

  get rest(): number {
    return this.left.size * Cells.SIZE * Cells.SIZE;
  }
}

describe('clearing in fronts', () => {
  it.each(ROOMS)(
    '%s: all of it, never out of its room, and never two fifths of its width at once',
    (_, area) => {
      const room = grown(area, -DIAMETER / 2);
      const passes = clearInFronts({ ...CUT, room });
      const ways = waysOf(passes!);
      const slack = grown(room, 0.03);
      for (const [a, b] of ways)
        for (const p of [a, b]) expect(isIn(slack, [p[0], p[1]]), `${p.join()} of ${a.join()}`).toBe(true);
      // What a round cutter reaches at all. Where two fronts meet behind an island what is left between them goes at once.
      const cells = new Cells(grown(room, DIAMETER / 2 - 0.05), 80, 80);
      let [taken, length, worst] = [0, 0, 0];
      for (const [a, b] of ways) {
        const l = Math.hypot(b[0] - a[0], b[1] - a[1]);
        const isDown = b[2] > CUT.floor + 1e-6 || a[2] > CUT.floor + 1e-6;
        const n = Math.max(1, Math.ceil(l / 0.2));
        for (let i = 1; i <= n; i++) {
          const took = cells.take([a[0] + (i / n) * (b[0] - a[0]), a[1] + (i / n) * (b[1] - a[1])]);
          if (isDown) continue;
          [taken, length] = [taken + took, length + l / n];
          // Over a stretch of a cutter's half, as cells come by rows.
          if (length < DIAMETER / 2) continue;
          worst = Math.max(worst, taken / length);
          [taken, length] = [0, 0];
        }
      }
      expect(cells.rest).toBeLessThan(0.5);
      expect(worst).toBeLessThan(0.4 * DIAMETER);
    },
  );

  it('is refused where there is no room for the circle down, and conventional where that is asked', () => {
    expect(clearInFronts({ ...CUT, room: boxRegion([0, 0], [40, 5]) })).toBeNull();
    const room = grown(rounded(60, 36), -DIAMETER / 2);
    const turns = (isClimb: boolean): boolean[] =>
      clearInFronts({ ...CUT, room, isClimb })!.flatMap((p) =>
        p.moves.flatMap((m) => (m.kind === 'arc' && m.feed === 'ramp' ? [m.clockwise] : [])),
      );
    expect(new Set(turns(true))).toEqual(new Set([false]));
    expect(new Set(turns(false))).toEqual(new Set([true]));
  });
});
