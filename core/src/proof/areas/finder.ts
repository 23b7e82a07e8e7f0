import { mainLine, type ReadProgram } from '../../code/read/motion.ts';
import type { Vec3 } from '../../geometry/vec.ts';
import { at } from '../../lists.ts';
import { BoxGrid } from '../../geometry/box-grid.ts';
import { boxOf, grown, isIn, without, type Region } from '../../geometry/region.ts';
import type { DerivedJob, DerivedSetup } from '../../job/derive.ts';
import { labelOf } from '../../job/placed.ts';
import type { Row } from '../../job/row.ts';
import { viewArea, type AreaView } from '../../operations/area-view.ts';
import { metalRound, standing } from '../../operations/areas/room.ts';
import { areaRegion } from '../../space/areas.ts';
import type { Space } from '../../space/space.ts';
import { isMilling } from '../grooves/finder.ts';
import type { Tool } from '../../tools/schema.ts';
import { chordsOf, type KnownMotion } from '../chords.ts';

/** A motion belongs to a floor that it comes this near to, mm: below an exit it goes a little farther. */
export const NEAR_FLOOR = 0.3;
const BELOW_EXIT = 1.5;
/** How far from its wall an outline's cutter may be and still be at it, mm. */
const BESIDE = 0.5;

/** A face, step, pocket or outline as a setup sees it. */
export interface SeenArea {
  view: AreaView;
  row: Row;
}

/** What a mill did at an area's floor. */
export interface MilledArea {
  area: SeenArea;
  tool: Tool;
  /** Lowest place of its tip, and the line in which it went there. */
  low: number;
  line: number;
  /** Fastest feed, mm/min, and highest speed, rpm. */
  feed: number;
  speed: number;
}

/** All areas that are to be made and that a setup reaches. */
export const seenAreas = (job: DerivedJob, setup: DerivedSetup): SeenArea[] =>
  job.rows
    .filter((r) => r.state !== 'optional')
    .flatMap((row) =>
      row.size.features.flatMap((f, i): SeenArea[] => {
        const view = viewArea(f, labelOf(row.size, i), setup.frame.frame);
        return view ? [{ view, row }] : [];
      }),
    );

/** mm. */
const CELL = 20;
/** Where on a straight way it is looked: one may begin and end beside what it cuts. */
const ALONG = [0, 0.25, 0.5, 0.75, 1];

/** Finds the areas at whose floor a mill is fed. */
export class AreaFinder {
  private readonly grid = new BoxGrid<SeenArea>(CELL);
  private readonly reaches = new Map<string, Region>();

  constructor(
    readonly areas: readonly SeenArea[],
    private readonly space: Space,
  ) {
    for (const a of areas) {
      const box = boxOf(this.coverOf(a.view));
      if (box) this.grid.add(a, box);
    }
  }

  /** Areas on whose floor a fed motion of a mill cuts, with its lowest place there. */
  at(m: KnownMotion, tool: Tool): { area: SeenArea; z: number }[] {
    if (this.areas.length === 0 || !isMilling(m, tool)) return [];
    const out = new Map<SeenArea, number>();
    for (const c of chordsOf(m))
      for (const share of ALONG) {
        const [x, y, z] = [0, 1, 2].map((k) => at(c.from, k) + share * (at(c.to, k) - at(c.from, k))) as Vec3;
        for (const a of this.grid.near(x, y, tool.diameter / 2)) {
          const { floor, through, side, top } = a.view.shape;
          // Along an outline's wall it is at work on every level: something may keep it from the lowest.
          const isAtFloor =
            z <= (side === 'outside' ? top : floor + NEAR_FLOOR) &&
            // Below its wall it clears stock beside the edges that are rounded there.
            z >= (side === 'outside' ? -Infinity : floor - (through ? BELOW_EXIT : NEAR_FLOOR));
          if (isAtFloor && z < (out.get(a) ?? Infinity) && isIn(this.reachOf(a.view, tool), [x, y]))
            out.set(a, z);
        }
      }
    return [...out].map(([area, z]) => ({ area, z }));
  }

  /** What an area covers from above. */
  private coverOf({ shape }: AreaView): Region {
    if (shape.side === 'outside') return metalRound({ space: this.space });
    const isHighest = shape.side === 'top' && shape.floor >= this.space.setup.part.max[2] - 0.01;
    return isHighest ? metalRound({ space: this.space }) : areaRegion(shape);
  }

  /** Where a tool's axis is when it cuts at an area. */
  private reachOf(view: AreaView, tool: Tool): Region {
    const key = `${view.label}/${tool.diameter}`;
    const known = this.reaches.get(key);
    if (known) return known;
    const r = tool.diameter / 2;
    const { shape } = view;
    const region =
      shape.side === 'outside'
        ? without(grown(standing(shape), r + BESIDE), grown(standing(shape), r - BESIDE))
        : shape.side === 'closed'
          ? grown(this.coverOf(view), BESIDE - r)
          : grown(this.coverOf(view), 0.9 * r);
    this.reaches.set(key, region);
    return region;
  }
}

/** Areas whose floors were milled, one entry for each tool, from what was read. */
export function milledAreas(
  read: ReadProgram,
  finder: AreaFinder,
  toolOf: (number: number) => Tool | null,
): MilledArea[] {
  const out = new Map<string, MilledArea>();
  if (finder.areas.length === 0) return [];
  for (const m of read.motions) {
    const tool = m.kind === 'feed' || m.kind === 'arc' ? toolOf(m.tool) : null;
    if (!tool || [...m.from, ...m.to].some((v) => v === null)) continue;
    const own = m as KnownMotion;
    for (const { area, z } of finder.at(own, tool)) {
      const key = `${area.view.label}/${tool.id}`;
      let g = out.get(key);
      if (!g) out.set(key, (g = { area, tool, low: Infinity, line: mainLine(m), feed: 0, speed: 0 }));
      if (z < g.low) [g.low, g.line] = [z, mainLine(m)];
      g.feed = Math.max(g.feed, m.feed);
      g.speed = Math.max(g.speed, m.speed);
    }
  }
  return [...out.values()];
}
