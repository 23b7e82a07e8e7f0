import { at as entryAt, first, got } from '../../lists.ts';
import { along, cross, dot, length, reject, scale, sub, type Vec3 } from '../../geometry/vec.ts';
import { isArcAbout, isClosedEdge } from '../../model/circle-edge.ts';
import { angleBasis } from '../../model/surface.ts';
import { loopPoints, type Face, type SolidModel } from '../../model/solid-model.ts';

/** An axis line shared by several surfaces of revolution. `origin` is its point nearest the part's middle. */
export interface AxisLine {
  origin: Vec3;
  direction: Vec3;
}

/** One face of revolution as seen along its axis line: `t` is the position along the direction, mm. */
export interface Piece {
  face: number;
  kind: 'cylinder' | 'cone' | 'torus' | 'sphere';
  low: number;
  high: number;
  /** Radius at `low` and at `high`. */
  radiusLow: number;
  radiusHigh: number;
}

export interface AxisGroup {
  line: AxisLine;
  pieces: Piece[];
}

/** Largest offset between axes that count as one, mm, and largest angle, radians. */
export const AXIS_TOLERANCE = 4e-3;
const AXIS_ANGLE = 1e-3;
export const RADIUS_TOLERANCE = 2e-3;
const BINS = 1440;
/** 359° of a full turn. */
const FULL_TURN_BINS = Math.floor((359 / 360) * BINS);

/**
 * Cylinders, cones, tori and spheres of one solid that close round an axis, grouped by their axis line; spheres join the axis they sit on.
 * Concave ones, as holes have, or convex ones, as bosses have.
 */
export function axisGroups(
  model: SolidModel,
  faces: number[],
  middle: Vec3,
  bend: 'concave' | 'convex' = 'concave',
): AxisGroup[] {
  const finder = new LineFinder();
  const members = new Map<AxisLine, number[]>();
  for (const index of faces) {
    const { surface, reversed } = entryAt(model.faces, index);
    if (
      reversed !== (bend === 'concave') ||
      (surface.kind !== 'cylinder' && surface.kind !== 'cone' && surface.kind !== 'torus')
    )
      continue;
    const direction = canonical(surface.axis);
    const origin = along(surface.origin, direction, dot(sub(middle, surface.origin), direction));
    const line = finder.find({ origin, direction });
    const list = members.get(line);
    if (list) list.push(index);
    else members.set(line, [index]);
  }
  const byFace = new Map<number, AxisLine>();
  for (const [line, list] of members) for (const f of list) byFace.set(f, line);
  if (bend === 'concave') for (const index of faces) attachSphere(model, index, byFace, members);
  return [...members].map(([line, list]) => split(model, line, list));
}

function attachSphere(
  model: SolidModel,
  index: number,
  byFace: Map<number, AxisLine>,
  members: Map<AxisLine, number[]>,
): void {
  const { surface, reversed, loops } = entryAt(model.faces, index);
  if (!reversed || surface.kind !== 'sphere') return;
  for (const { edge } of loops.flat()) {
    for (const neighbour of entryAt(model.edges, edge).faces) {
      const line = byFace.get(neighbour);
      if (line && length(reject(sub(surface.origin, line.origin), line.direction)) < AXIS_TOLERANCE) {
        got(members, line).push(index);
        return;
      }
    }
  }
}

/** Separates the surfaces that close round the axis from those that do not. */
function split(model: SolidModel, line: AxisLine, faces: number[]): AxisGroup {
  const pieces = faces.map((f) => pieceOf(model, f, line));
  const sameSurface: Piece[][] = [];
  for (const p of pieces) {
    const mates = sameSurface.find((g) =>
      lieOnOneSurface(entryAt(model.faces, first(g).face), entryAt(model.faces, p.face), first(g), p),
    );
    if (mates) mates.push(p);
    else sameSurface.push([p]);
  }
  const group: AxisGroup = { line, pieces: [] };
  for (const mates of sameSurface) {
    if (mates.some((p) => hasWholeCircle(model, p.face, line)) || isRound(model, mates, line))
      group.pieces.push(...mates);
  }
  return group;
}

/** Most walls end in a circle that says at once that they go all round. */
const hasWholeCircle = (model: SolidModel, face: number, { origin, direction }: AxisLine): boolean =>
  entryAt(model.faces, face).loops.some((loop) =>
    loop.some(({ edge }) => {
      const e = entryAt(model.edges, edge);
      return isArcAbout(e, origin, direction) && isClosedEdge(e);
    }),
  );

function isRound(model: SolidModel, pieces: readonly Piece[], line: AxisLine): boolean {
  const bins = newBins();
  for (const p of pieces) markTurn(model, entryAt(model.faces, p.face), line, bins);
  return isFullTurn(bins);
}

function lieOnOneSurface(a: Face, b: Face, pa: Piece, pb: Piece): boolean {
  if (pa.kind !== pb.kind) return false;
  const [s, t] = [a.surface, b.surface];
  if (s.kind === 'cylinder' && t.kind === 'cylinder') return Math.abs(s.radius - t.radius) < RADIUS_TOLERANCE;
  if (s.kind === 'cone' && t.kind === 'cone') {
    const slope = (pa.radiusHigh - pa.radiusLow) / (pa.high - pa.low || 1);
    const expected = pa.radiusLow + slope * (pb.low - pa.low);
    return (
      Math.abs(s.semiAngle - t.semiAngle) < 1e-3 &&
      dot(s.axis, t.axis) > 0 &&
      Math.abs(expected - pb.radiusLow) < 5e-3
    );
  }
  // Tori and spheres of one axis: near enough in place is one surface.
  return Math.abs((pa.low + pa.high - pb.low - pb.high) / 2) < 5e-3;
}

function pieceOf(model: SolidModel, face: number, line: AxisLine): Piece {
  const { surface, loops } = entryAt(model.faces, face);
  let [low, high] = [Infinity, -Infinity];
  for (const loop of loops)
    for (const { edge } of loop) {
      const e = entryAt(model.edges, edge);
      // Of a circle about the line every point is as high.
      const n = isArcAbout(e, line.origin, line.direction) ? 1 : e.points.length;
      for (let i = 0; i < n; i++) {
        const h = dot(sub(entryAt(e.points, i), line.origin), line.direction);
        [low, high] = [Math.min(low, h), Math.max(high, h)];
      }
    }
  const radiusAt = (h: number): number => {
    if (surface.kind === 'cylinder') return surface.radius;
    if (surface.kind === 'cone') {
      const sense = dot(surface.axis, line.direction) > 0 ? 1 : -1;
      const base = dot(sub(surface.origin, line.origin), line.direction);
      return Math.max(0, surface.radius + sense * (h - base) * Math.tan(surface.semiAngle));
    }
    const open = loops.flat().flatMap(({ edge }) => entryAt(model.edges, edge).points);
    const at = open.filter((p) => Math.abs(dot(sub(p, line.origin), line.direction) - h) < 1e-3);
    return Math.max(0, ...at.map((p) => length(reject(sub(p, line.origin), line.direction))));
  };
  if (surface.kind === 'sphere') {
    // The far end of a ball bottom has no edge of its own: it is the pole.
    const centre = dot(sub(surface.origin, line.origin), line.direction);
    if (high <= centre + 1e-6) low = Math.min(low, centre - surface.radius);
    else if (low >= centre - 1e-6) high = Math.max(high, centre + surface.radius);
  }
  return {
    face,
    kind: surface.kind as Piece['kind'],
    low,
    high,
    radiusLow: radiusAt(low),
    radiusHigh: radiusAt(high),
  };
}

/** Marks the angles about the line that a face's outline spans. */
function markTurn(model: SolidModel, face: Face, line: AxisLine, bins: Uint8Array): void {
  const [x, y] = angleBasis(line.direction);
  for (const loop of face.loops) markRun(loopPoints(model, loop), true, line, x, y, bins);
}

/**
 * Marks the shorter arcs between the points of a run, closed or not, as seen along the line. Points on the axis mark nothing.
 */
export function markRun(
  points: readonly Vec3[],
  isClosed: boolean,
  line: AxisLine,
  x: Vec3,
  y: Vec3,
  bins: Uint8Array,
): void {
  const k = BINS / (2 * Math.PI);
  let before =
    isClosed && points.length > 0 ? angleAbout(entryAt(points, points.length - 1), line, x, y) : NaN;
  for (const p of points) {
    const angle = angleAbout(p, line, x, y);
    let turn = angle - before;
    turn -= 2 * Math.PI * Math.round(turn / (2 * Math.PI));
    // Where one of the two has no angle there is none between them.
    const [lo, hi] = turn > 0 ? [before * k, (before + turn) * k] : [(before + turn) * k, before * k];
    for (let i = Math.round(lo); i < Math.round(hi); i++) bins[((i % BINS) + BINS) % BINS] = 1;
    before = angle;
  }
}

/** A point nearer to a line is on it, mm. */
const ON_LINE = 1e-6;

/** Angle of a point about a line, radians; NaN for one on it. */
function angleAbout(p: Vec3, { origin }: AxisLine, x: Vec3, y: Vec3): number {
  // Not by vectors of their own: this is asked for every point of every wall that is not plainly round.
  const [ax, ay, az] = [p[0] - origin[0], p[1] - origin[1], p[2] - origin[2]];
  const u = ax * x[0] + ay * x[1] + az * x[2];
  const v = ax * y[0] + ay * y[1] + az * y[2];
  return u * u + v * v < ON_LINE * ON_LINE ? NaN : Math.atan2(v, u);
}

export const newBins = (): Uint8Array => new Uint8Array(BINS);
function covered(bins: Uint8Array): number {
  let n = 0;
  for (let i = 0; i < bins.length; i++) n += bins[i] ?? 0;
  return n;
}
export const isFullTurn = (bins: Uint8Array): boolean => covered(bins) >= FULL_TURN_BINS;

/** The direction or its opposite, so that equal lines compare equal. */
function canonical(d: Vec3): Vec3 {
  const k = first([0, 1, 2].sort((a, b) => Math.abs(entryAt(d, b)) - Math.abs(entryAt(d, a)) || a - b));
  // Near-ties between components are decided by the first that is clearly not zero.
  const lead = d.findIndex((v) => Math.abs(v) > Math.abs(entryAt(d, k)) - 1e-3);
  return entryAt(d, lead) < 0 ? scale(d, -1) : d;
}

/** Width of a cell of the hash, mm: far above the tolerance. */
const CELL = 0.05;
/** Cells that share a number only cost a comparison. */
const hashOf = (x: number, y: number, z: number): number =>
  (Math.imul(x, 73856093) ^ Math.imul(y, 19349663) ^ Math.imul(z, 83492791)) >>> 0;

/** Finds equal lines within tolerance through a spatial hash. */
class LineFinder {
  private readonly cells = new Map<number, AxisLine[]>();

  find(line: AxisLine): AxisLine {
    const [x, y, z] = line.origin.map((v) => Math.floor(v / CELL)) as Vec3;
    for (let i = -1; i <= 1; i++)
      for (let j = -1; j <= 1; j++)
        for (let k = -1; k <= 1; k++)
          for (const l of this.cells.get(hashOf(x + i, y + j, z + k)) ?? []) if (this.same(l, line)) return l;
    const key = hashOf(x, y, z);
    const list = this.cells.get(key);
    if (list) list.push(line);
    else this.cells.set(key, [line]);
    return line;
  }

  private same(a: AxisLine, b: AxisLine): boolean {
    return (
      length(cross(a.direction, b.direction)) < AXIS_ANGLE &&
      length(reject(sub(a.origin, b.origin), a.direction)) < AXIS_TOLERANCE
    );
  }
}
