import { BoxGrid } from '../../geometry/box-grid.ts';
import {
  distance2,
  segmentLength,
  segmentPoint,
  tangentAt,
  turnBetween,
  type Segment,
  type Vec2,
} from '../../geometry/path.ts';

/** A place on an edge, and how far along it lies, mm. */
export interface EdgePlace {
  at: Vec2;
  along: number;
  /** The way into the air there, a unit vector: to the right of the edge. */
  out: Vec2;
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
      const at = segmentPoint(s, share);
      const [tx, ty] = tangentAt(s.kind === 'line' ? s : { ...s, to: at }, 'to');
      out.push({ at, along: gone + share * length, out: [ty, -tx] });
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

/** A cutter that is not beside a place but ahead of it is at another edge: cosine of the angle off the way into the air. */
const BESIDE = 0.7;

/** How far a cutter beside a place reaches over it, mm: less than none where it stays away; -Infinity where it is not beside it. */
export function reachOver({ from, to, radii, arc }: Stretch, place: Pick<EdgePlace, 'at' | 'out'>): number {
  const [x, y] = place.at;
  const reach = (nx: number, ny: number, radius: number): number => {
    const near = Math.hypot(nx - x, ny - y);
    const isBeside = near < 1e-9 || ((nx - x) * place.out[0] + (ny - y) * place.out[1]) / near > BESIDE;
    return isBeside ? radius - near : -Infinity;
  };
  if (arc) {
    const on = onArc(arc, from, [x, y]);
    if (on) return reach(...on, radii[0]);
    return Math.max(reach(...from, radii[0]), reach(...to, radii[1]));
  }
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const l2 = dx * dx + dy * dy;
  const t = l2 < 1e-18 ? 1 : Math.min(1, Math.max(0, ((x - from[0]) * dx + (y - from[1]) * dy) / l2));
  return reach(from[0] + t * dx, from[1] + t * dy, radii[0] + t * (radii[1] - radii[0]));
}

/** The nearest place of an arc that goes past another; null where that is one of its ends. */
function onArc({ centre, turn }: NonNullable<Stretch['arc']>, from: Vec2, p: Vec2): Vec2 | null {
  const [r, off] = [distance2(from, centre), distance2(p, centre)];
  if (off < 1e-9) return null;
  const on: Vec2 = [centre[0] + (r * (p[0] - centre[0])) / off, centre[1] + (r * (p[1] - centre[1])) / off];
  if (Math.abs(turn) >= 2 * Math.PI - 1e-9 || distance2(on, from) < 1e-9) return on;
  return Math.abs(turnBetween(centre, from, p, turn > 0)) <= Math.abs(turn) ? on : null;
}

/** How far cutters on straight stretches reach over each of some places, mm; -Infinity where none comes beside it. */
export function reachAlong(places: readonly EdgePlace[], stretches: readonly Stretch[]): number[] {
  const most = stretches.reduce((r, s) => Math.max(r, ...s.radii), 0);
  const grid = new BoxGrid<Stretch>(Math.max(1, most));
  for (const s of stretches)
    grid.add(s, [
      Math.min(s.from[0], s.to[0]),
      Math.min(s.from[1], s.to[1]),
      Math.max(s.from[0], s.to[0]),
      Math.max(s.from[1], s.to[1]),
    ]);
  return places.map((p) =>
    grid.near(...p.at, most).reduce((reach, s) => Math.max(reach, reachOver(s, p)), -Infinity),
  );
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
