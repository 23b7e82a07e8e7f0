import { first } from '../lists.ts';
import type { Region } from '../geometry/region.ts';
import { length2, type Vec2 } from '../geometry/path.ts';
import type { KeepOutBox, SetupFrame } from '../setup/setup-frame.ts';
import type { Disc, ProfilePart } from '../tools/profile.ts';
import type { Heights } from './heights.ts';
import { boxOnTheWay, KEEP_OUT_ROOM } from './keep-out.ts';
import { OpeningGrid, type SeenOpening } from './openings.ts';

/** An opening counts as over a place that lies within it, or this near its border, mm. */
export const OVER_AXIS = 0.5;
/** Room beside a tool that travels, and what counts as touching, mm. */
export const SIDE_ROOM = 1;
export const TOUCH = 0.02;

type Point = readonly [number, number, number];

/**
 * What a tool may touch of the part: within `radius` of its axis and below `below`, where it is to cut. Within `open` nothing of the part
 * may be met at all, however deep: a through hole is air there, and what stands behind it is not.
 */
export interface Allowed {
  radius: number;
  below: number;
  open?: number;
}

/** What of a tool would be in what, and how far. */
export interface Hit {
  part: ProfilePart;
  /** Diameter there. */
  diameter: number;
  /** Z of the obstacle, and how far the tool stands below it, mm. */
  height: number;
  depth: number;
  /** Of holding: its name. */
  name?: string;
}

/**
 * What is in the way in one setup: the finished part, stock that stands above it, cavities that are still full, jaws and clamps. Every
 * question is asked for a tool's whole outline. Program coordinates, mm.
 */
export class Space {
  private readonly openings: OpeningGrid;

  constructor(
    /** Null: the part's shape is not known; then nothing of it is found in the way. */
    readonly heights: Heights | null,
    readonly setup: Pick<SetupFrame, 'part' | 'body' | 'keepOuts' | 'top'>,
    openings: readonly SeenOpening[],
    /** What the part covers. */
    readonly plan: Region,
  ) {
    this.openings = new OpeningGrid(openings);
  }

  /** Where a tool straight up at (x, y) with its tip at `tip` would be in the finished part. */
  partAt(discs: readonly Disc[], x: number, y: number, tip: number, allowed: Allowed | null): Hit | null {
    const { heights } = this;
    if (!heights) return null;
    // One look for all of them: a through hole is air, as a rule, as wide as it is to be.
    const open =
      allowed?.open !== undefined && heights.column(x, y, allowed.open) > tip + TOUCH ? allowed.open : -1;
    for (const d of discs) {
      const level = tip + d.z + TOUCH;
      if (level >= heights.top) return null;
      const free = allowed?.radius ?? 0;
      const above = Math.max(level, allowed?.below ?? level);
      const height = Math.max(
        heights.along(x, y, x, y, Math.min(d.r, free), above),
        d.r > free ? heights.ring(x, y, free, d.r, level) : -Infinity,
        d.r <= open ? heights.along(x, y, x, y, d.r, level) : -Infinity,
      );
      if (height > level) return hit(d, height, tip);
    }
    return null;
  }

  /**
   * Where a tool that goes straight from a to b would be in the finished part, judged along its lowest point, with `room` round it; less
   * than none where walls are meant to be touched.
   */
  partAlong(discs: readonly Disc[], a: Point, b: Point, room = 0): Hit | null {
    const { heights } = this;
    const tip = Math.min(a[2], b[2]);
    if (!heights) return null;
    for (const d of discs) {
      const level = tip + d.z + TOUCH;
      if (level >= heights.top) return null;
      const height = heights.along(a[0], a[1], b[0], b[1], Math.max(0, d.r + room), level);
      if (height > level) return hit(d, height, tip);
    }
    return null;
  }

  /** Where a tool on its way would be in a jaw, a clamp or a keep-out box, with `room` round it. */
  holdingAlong(discs: readonly Disc[], a: Point, b: Point, room = KEEP_OUT_ROOM): Hit | null {
    const { keepOuts } = this.setup;
    if (keepOuts.length === 0) return null;
    for (const d of discs) {
      const raise = (p: Point): Point => [p[0], p[1], p[2] + d.z];
      const box: KeepOutBox | null = boxOnTheWay(keepOuts, raise(a), raise(b), d.r, room);
      if (box) return { ...hit(d, box.max[2], Math.min(a[2], b[2])), name: box.name };
    }
    return null;
  }

  /** Whether a tool can go straight from a to b at the height at which it stands there. */
  isFree(discs: readonly Disc[], a: Point, b: Point): boolean {
    if (!this.heights) return false;
    return (
      this.partAlong(discs, a, b, SIDE_ROOM) === null &&
      this.holdingAlong(discs, a, b) === null &&
      Math.min(a[2], b[2]) >= this.stockOver(a[0], a[1], SIDE_ROOM)
    );
  }

  /** The finished part cut at a level: closed runs of points round metal and round air; none where its shape is not known. */
  sectionAt(level: number): Vec2[][] {
    return this.heights?.section(level) ?? [];
  }

  /** Top of stock that stands above the part's own faces at a place; -Infinity where there is none. */
  stockOver(x: number, y: number, r: number): number {
    const { body } = this.setup;
    if (!body.standsProud) return -Infinity;
    const { min, max } = body.box;
    const isBeside = x + r < min[0] || x - r > max[0] || y + r < min[1] || y - r > max[1];
    return isBeside ? -Infinity : max[2];
  }

  /** Cavities over a place that reach higher than `above`: until they are made, metal stands in them. */
  openingsOver(x: number, y: number, r: number, above: number): SeenOpening[] {
    return this.openings.near(x, y, r).filter((o) => o.top > above + TOUCH);
  }

  /**
   * Z up to which holes on the same axis lead a tool of radius `r` down to a level: their walls are touched, and that is no fault.
   * `level` itself where there are none.
   */
  ledFrom(x: number, y: number, r: number, level: number): number {
    const over = this.openings.near(x, y, 0.05).filter((o) => o.top > level && o.radius >= r - 0.1);
    return over.reduce((z, o) => (isCentred(o, x, y) ? Math.max(z, o.top) : z), level);
  }

  /**
   * How high the part stands round a place that is shut in on every side: a pocket, whose metal may still be there. `level` itself where
   * there is a way out.
   */
  pocketTop(x: number, y: number, level: number): number {
    const { heights } = this;
    const { part } = this.setup;
    if (!heights || level >= heights.top - 0.05) return level;
    const far = part.max[0] - part.min[0] + (part.max[1] - part.min[1]) + 1;
    let lowest = Infinity;
    for (let i = 0; i < DIRECTIONS; i++) {
      const a = (2 * Math.PI * (i + 0.13)) / DIRECTIONS;
      const height = heights.along(x, y, x + far * Math.cos(a), y + far * Math.sin(a), 0.01, level + 0.05);
      if (height === -Infinity) return level;
      lowest = Math.min(lowest, height);
    }
    return lowest;
  }
}

/** How many ways out of a place are looked at. */
const DIRECTIONS = 24;

const isCentred = (o: SeenOpening, x: number, y: number): boolean =>
  o.runs.length === 1 && length2(first(o.runs)[0] - x, first(o.runs)[1] - y) < 0.05;

const hit = (d: Disc, height: number, tip: number): Hit => ({
  part: d.part,
  diameter: 2 * d.r,
  height,
  depth: height - tip - d.z,
});

/** Words for what of a tool it is. */
export const partName = (part: ProfilePart): string => (part === 'cutting' ? 'flutes' : part);
