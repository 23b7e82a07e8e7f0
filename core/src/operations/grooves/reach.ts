import { first, last } from '../../lists.ts';
import { chordStep } from '../../geometry/arc.ts';
import { move2 } from '../../geometry/parallel.ts';
import { segmentPoint, tangentAt, type Segment, type Vec2 } from '../../geometry/path.ts';
import type { Hit } from '../../space/space.ts';
import type { Disc } from '../../tools/profile.ts';
import { hitInWords } from '../choose-tool.ts';
import type { GrooveView } from '../groove-view.ts';
import type { KindContext } from '../kind.ts';
import type { Tool } from '../../tools/schema.ts';

/** How far a cutter that leaves by an open end goes on past it, mm. */
const OUTSIDE = 1;
/** A wall that a cutter runs along is touched, and chords of round walls lie inside them, mm. */
const BESIDE_WALL = -0.03;
/** How far a chord may lie inside its arc, mm. */
const SAGITTA = 0.01;
/** Steps in which it is found how far a cutter may go past an end. */
const HALVINGS = 10;

/** The straight stretches of a chain, arcs as chords. */
export function stretches(path: readonly Segment[]): (readonly [Vec2, Vec2])[] {
  return path.flatMap((s) => {
    if (s.kind === 'line') return [[s.from, s.to] as const];
    const n = Math.max(1, Math.ceil(Math.abs(s.turn) / chordStep(s.radius, SAGITTA)));
    return Array.from(
      { length: n },
      (_, i) => [segmentPoint(s, i / n), segmentPoint(s, (i + 1) / n)] as const,
    );
  });
}

/** Where a tool that is led along a chain with its tip at `z` would stand in the finished part. */
function alongInPart(
  c: KindContext,
  discs: readonly Disc[],
  path: readonly Segment[],
  z: number,
): Hit | null {
  for (const [a, b] of stretches(path)) {
    const hit = c.space.partAlong(discs, [...a, z], [...b, z], BESIDE_WALL);
    if (hit) return hit;
  }
  return null;
}

/** How a cutter leaves a groove past one of its ends. */
export interface PastEnd {
  /** How far its centre goes on past the end, mm; null: the end is in the part. */
  by: number | null;
  /** It stands in the open there: it may come down there, and leave there. */
  isFree: boolean;
}

/** How far past an open end a cutter's centre stands when it has left it. */
export const outsideBy = (end: { beyond: number }, radius: number): number => radius + end.beyond + OUTSIDE;

/** How far stock that stands proud of the part goes on past an end, mm: 0 where there is none as low as the tip. */
function stockBeyond(c: KindContext, [x, y]: Vec2, [dx, dy]: Vec2, radius: number, z: number): number {
  const { body } = c.space.setup;
  if (!body.standsProud || body.box.max[2] <= z) return 0;
  const { min, max } = body.box;
  // Out of the box at the nearer of its sides ahead; a slanted way has the cutter's own side to clear as well.
  const ways = [
    Math.abs(dx) > 1e-9 ? ((dx > 0 ? max[0] : min[0]) - x) / dx : Infinity,
    Math.abs(dy) > 1e-9 ? ((dy > 0 ? max[1] : min[1]) - y) / dy : Infinity,
  ];
  const slant = radius * Math.min(Math.abs(dx), Math.abs(dy));
  return Math.max(0, Math.min(...ways)) + slant;
}

/** How far a cutter of a radius may go past a groove's ends with its tip at `z`: until it stands clear, or something is in its way. */
export function pastEnds(
  c: KindContext,
  { shape }: GrooveView,
  path: readonly Segment[],
  tool: Tool,
  z: number,
): readonly [PastEnd, PastEnd] {
  const radius = tool.diameter / 2;
  const discs = c.discs(tool);
  const one = (k: 0 | 1): PastEnd => {
    const end = shape.ends[k];
    if (!end.open || shape.closed) return { by: null, isFree: false };
    const want = outsideBy(end, radius);
    const s = k === 0 ? first(path) : last(path);
    const at = k === 0 ? s.from : s.to;
    const t = tangentAt(s, k === 0 ? 'from' : 'to');
    const away: Vec2 = k === 0 ? [-t[0], -t[1]] : t;
    // What stands proud of the part is metal there as well: it comes down beyond that.
    const stock = stockBeyond(c, at, away, radius, z);
    const isClear = (by: number): boolean => {
      const to = move2(at, t, k === 0 ? -by : by);
      return c.space.partAlong(discs, [...at, z], [...to, z], BESIDE_WALL) === null;
    };
    if (isClear(want + stock)) return { by: want + stock, isFree: true };
    let [low, high] = [0, want];
    for (let i = 0; i < HALVINGS; i++) {
      const mid = (low + high) / 2;
      if (isClear(mid)) low = mid;
      else high = mid;
    }
    return { by: low, isFree: false };
  };
  return [one(0), one(1)];
}

/**
 * The discs above the fillet at the foot of a wall: a cutter of its own radius touches all of that, and the flat facets of a mesh lie nearer to
 * it than the fillet does.
 */
export const aboveFoot = (discs: readonly Disc[], foot: number): Disc[] =>
  discs.filter((d) => foot <= 0 || d.part !== 'cutting' || d.z >= foot - 1e-6);

/** Why a cutter led along chains at a level would stand in the part with any part of its outline; null where it does not. */
export function whyInPart(
  c: KindContext,
  tool: Tool,
  { label, shape }: GrooveView,
  paths: readonly (readonly Segment[])[],
  z: number,
): string | null {
  const discs = aboveFoot(c.discs(tool), shape.floorRadius);
  for (const path of paths) {
    const hit = alongInPart(c, discs, path, z);
    if (hit) return `${label}: ${hitInWords(c, tool, hit)}`;
  }
  return null;
}
