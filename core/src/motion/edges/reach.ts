import {
  distance2,
  segmentLength,
  segmentPoint,
  turnBetween,
  type Segment,
  type Vec2,
} from '../../geometry/path.ts';

/** A place on an edge, and how far along it lies, mm. */
export interface EdgePlace {
  at: Vec2;
  along: number;
}

/** Places along an edge are no farther apart than this, mm; each piece has so many at least. */
const STEP = 1;
const LEAST = 9;
/** Off the ends of pieces, mm: on a corner two walls are cut at once. */
const OFF_END = 1e-3;

/** Places along a chain at which it is looked how far a cutter reaches over it. */
export function placesAlong(path: readonly Segment[], step = STEP): EdgePlace[] {
  const out: EdgePlace[] = [];
  let gone = 0;
  for (const s of path) {
    const length = segmentLength(s);
    const n = Math.max(LEAST, Math.ceil(length / step));
    const off = Math.min(0.4, OFF_END / Math.max(length, 1e-9));
    for (let i = 0; i <= n; i++) {
      const share = off + (1 - 2 * off) * (i / n);
      out.push({ at: segmentPoint(s, share), along: gone + share * length });
    }
    gone += length;
  }
  return out;
}

/** A straight stretch of a cutter's way, and its radius at the upper edge's level at both ends, mm. */
export interface Stretch {
  from: Vec2;
  to: Vec2;
  radii: readonly [number, number];
  /** Of a level arc: about where, and how far round, counter-clockwise positive. */
  arc?: { centre: Vec2; turn: number };
}

/** How far a cutter on a straight way reaches over a place, mm: less than none where it stays away from it. */
export function reachOver({ from, to, radii, arc }: Stretch, [x, y]: Vec2): number {
  if (arc) {
    const off = besideArc(arc, from, [x, y]);
    return radii[0] - (off ?? Math.min(distance2(from, [x, y]), distance2(to, [x, y])));
  }
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const l2 = dx * dx + dy * dy;
  const t = l2 < 1e-18 ? 1 : Math.min(1, Math.max(0, ((x - from[0]) * dx + (y - from[1]) * dy) / l2));
  const near = Math.hypot(x - from[0] - t * dx, y - from[1] - t * dy);
  return radii[0] + t * (radii[1] - radii[0]) - near;
}

/** How far a place is from an arc that goes past it; null where its nearest place is one of its ends. */
function besideArc({ centre, turn }: NonNullable<Stretch['arc']>, from: Vec2, p: Vec2): number | null {
  const off = Math.abs(distance2(p, centre) - distance2(from, centre));
  if (Math.abs(turn) >= 2 * Math.PI - 1e-9 || distance2(p, from) < 1e-9) return off;
  return Math.abs(turnBetween(centre, from, p, turn > 0)) <= Math.abs(turn) ? off : null;
}

/** The stretches of an edge, mm along it, where less than `least` is reached. `reach`: at each place, in their order. */
export function shortStretches(
  places: readonly EdgePlace[],
  reach: readonly number[],
  least: number,
): [number, number][] {
  const out: [number, number][] = [];
  let open: [number, number] | null = null;
  places.forEach(({ along }, i) => {
    const isShort = (reach[i] ?? -Infinity) < least;
    if (isShort && open) open[1] = along;
    else if (isShort) out.push((open = [along, along]));
    else open = null;
  });
  return out;
}
