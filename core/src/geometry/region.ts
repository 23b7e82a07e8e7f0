import {
  Clipper64,
  ClipType,
  EndType,
  FillRule,
  inflatePaths,
  JoinType,
  PointInPolygonResult,
  pointInPolygon,
  PolyTree64,
  simplifyPaths,
  type Path64,
  type Paths64,
  type PolyPath64,
} from 'clipper2-ts';
import { at, first, last } from '../lists.ts';
import { chordStep } from './arc.ts';
import { fitPoints } from './fit-points.ts';
import { length2, type Segment, segmentPoint, type Vec2 } from './path.ts';

/** Whole numbers to the mm. */
const SCALE = 1e4;
/** How far chords may lie off the arcs that they stand for, mm. */
const CHORD = 0.0008;
/** Points this near to a straight line are none of its corners, mm. */
const STRAIGHT = 0.0003;
/** A mesh's points lie on its surface but for their single precision, and its chords inside round walls, mm. */
const ON_SURFACE = 0.002;
const SAGITTA = 0.03;
/** How far lines and arcs may lie off a border's points, mm. */
const FIT = 0.004;
/** Chords, and the lines and arcs through them, of what no wall is made by: far fewer points do, mm. */
export const ROUGH = { chord: 0.008, fit: 0.02 };

/** A part of the plane, perhaps in pieces, perhaps with holes: outer borders counter-clockwise, holes clockwise. */
export interface Region {
  readonly paths: Paths64;
}

export const NOWHERE: Region = { paths: [] };
export const isEmpty = (r: Region): boolean => r.paths.length === 0;

const toInteger = ([x, y]: Vec2): { x: number; y: number } => ({
  x: Math.round(x * SCALE),
  y: Math.round(y * SCALE),
});
const toPlane = (p: Path64): Vec2[] => p.map(({ x, y }) => [x / SCALE, y / SCALE]);

/** Points along a chain of lines and arcs, its end left out. */
export function chainPoints(chain: readonly Segment[], sagitta = CHORD): Vec2[] {
  return chain.flatMap((s) => {
    if (s.kind === 'line') return [s.from];
    const n = Math.max(1, Math.ceil(Math.abs(s.turn) / chordStep(s.radius, sagitta)));
    return Array.from({ length: n }, (_, i) => segmentPoint(s, i / n));
  });
}

/** What lies within closed chains; where one lies in another, what is between them. */
export const regionOf = (rings: readonly (readonly Segment[])[]): Region =>
  regionOfPoints(rings.map((r) => chainPoints(r)));

/** The same of closed runs of points. */
export const regionOfPoints = (rings: readonly (readonly Vec2[])[]): Region =>
  clipped(
    ClipType.Union,
    rings.map((r) => r.map(toInteger)),
    [],
    FillRule.EvenOdd,
  );

/**
 * What lies within the closed runs of a mesh's section: it has points where it crosses from one triangle to the next, and corners where its
 * facets meet, which lie on the surface. Where those follow a circle they are one.
 */
export const regionOfSection = (rings: readonly (readonly Vec2[])[]): Region =>
  regionOf(
    simplifyPaths(
      rings.map((r) => r.map(toInteger)),
      STRAIGHT * SCALE,
      true,
    ).flatMap((path) => {
      const points = toPlane(path);
      return points.length > 2 ? [fitPoints([...points, first(points)], ON_SURFACE, SAGITTA)] : [];
    }),
  );

export const boxRegion = (min: readonly number[], max: readonly number[]): Region => {
  const [x0, y0, x1, y1] = [at(min, 0), at(min, 1), at(max, 0), at(max, 1)];
  return regionOfPoints([
    [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ],
  ]);
};

function clipped(type: ClipType, subject: Paths64, clip: Paths64, rule = FillRule.NonZero): Region {
  const c = new Clipper64();
  c.addSubject(subject);
  if (clip.length > 0) c.addClip(clip);
  const paths: Paths64 = [];
  c.execute(type, rule, paths);
  return { paths };
}

export const both = (a: Region, b: Region): Region => clipped(ClipType.Union, a.paths, b.paths);
export const without = (a: Region, b: Region): Region => clipped(ClipType.Difference, a.paths, b.paths);
export const within = (a: Region, b: Region): Region => clipped(ClipType.Intersection, a.paths, b.paths);

/** A region grown by `by` on every side, round about its corners; shrunk where it is less than none. `chord`: how far off chords may lie. mm. */
export function grown(r: Region, by: number, chord = CHORD): Region {
  if (Math.abs(by) * SCALE < 0.5 || isEmpty(r)) return r;
  const paths = inflatePaths(r.paths, by * SCALE, JoinType.Round, EndType.Polygon, 2, chord * SCALE);
  return { paths: simplifyPaths(paths, Math.max(STRAIGHT, chord / 3) * SCALE, true) };
}

/** All that lies straight beside a run of points, as far as `by` on both sides, mm: beyond the ends of one that is not closed nothing. */
export const besideRun = (points: readonly Vec2[], by: number, closed: boolean): Region => {
  const end = closed ? EndType.Joined : EndType.Butt;
  return {
    paths: inflatePaths([points.map(toInteger)], by * SCALE, JoinType.Round, end, 2, SAGITTA * SCALE),
  };
};

/** The pieces of a region that hang together, each with its holes. */
export function piecesOf(r: Region): Region[] {
  const c = new Clipper64();
  c.addSubject(r.paths);
  const tree = new PolyTree64();
  c.execute(ClipType.Union, FillRule.NonZero, tree);
  const out: Region[] = [];
  const take = (node: PolyPath64): void => {
    for (let i = 0; i < node.count; i++) {
      const outer = node.child(i);
      const holes = Array.from({ length: outer.count }, (_, k) => outer.child(k));
      out.push({ paths: [outer, ...holes].flatMap((p) => (p.poly ? [p.poly] : [])) });
      for (const h of holes) take(h);
    }
  };
  take(tree);
  return out;
}

/** How near the place deepest in a region is found, mm. */
const DEEPEST = 0.02;

/** The place in a region that is farthest from its border, and how far that is, mm; null of an empty one. */
export function deepestIn(r: Region): { at: Vec2; away: number } | null {
  const box = boxOf(r);
  if (!box) return null;
  let [low, high] = [0, Math.min(box[2] - box[0], box[3] - box[1]) / 2 + DEEPEST];
  let core: Region = { paths: simplifyPaths(r.paths, (DEEPEST / 4) * SCALE, true) };
  // By a little each time: far inwards all pieces of a border cross each other.
  const most = high / 8;
  while (high - low > DEEPEST) {
    const middle = low + Math.min(most, (high - low) / 2);
    const inner = grown(core, low - middle, DEEPEST / 4);
    if (isEmpty(inner)) high = middle;
    else [low, core] = [middle, inner];
  }
  // In the middle of what is left: of a long region all of its middle line is as deep.
  const [piece] = piecesOf(core);
  const left = piece && boxOf(piece);
  if (!left) return null;
  const at: Vec2 = [(left[0] + left[2]) / 2, (left[1] + left[3]) / 2];
  const inside = isIn(core, at) ? at : first(first(ringsOf(core)));
  return { at: inside, away: low };
}

/** A region without its holes. */
export const filled = (r: Region): Region => ({ paths: piecesOf(r).map((p) => first(p.paths)) });

/** A region's borders as closed chains of lines and arcs within `fit` of them (mm), with the region on their left. */
export const bordersOf = (r: Region, fit = FIT): Segment[][] =>
  r.paths.map((p) => {
    const points = toPlane(p);
    return fitPoints([...points, first(points)], fit);
  });

/** The box round a region, X and Y, low then high; null where it is empty. */
export function boxOf({ paths }: Region): [number, number, number, number] | null {
  const points = paths.flat();
  if (points.length === 0) return null;
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { x, y } of points) {
    [x0, y0] = [Math.min(x0, x), Math.min(y0, y)];
    [x1, y1] = [Math.max(x1, x), Math.max(y1, y)];
  }
  return [x0 / SCALE, y0 / SCALE, x1 / SCALE, y1 / SCALE];
}

/** A region's borders as closed runs of points. */
export const ringsOf = (r: Region): Vec2[][] => r.paths.map(toPlane);

/** Area, mm². */
export function areaOf({ paths }: Region): number {
  let sum = 0;
  for (const p of paths)
    p.forEach((a, i) => {
      const b = at(p, (i + 1) % p.length);
      sum += (a.x * b.y - a.y * b.x) / 2;
    });
  return sum / SCALE ** 2;
}

/** Whether a place lies in a region or on its border. */
export function isIn({ paths }: Region, place: Vec2): boolean {
  const p = toInteger(place);
  let inside = false;
  for (const path of paths) {
    const where = pointInPolygon(p, path);
    if (where === PointInPolygonResult.IsOn) return true;
    if (where === PointInPolygonResult.IsInside) inside = !inside;
  }
  return inside;
}

/** The stretches of a region's borders that lie in another, as chains of lines and arcs within `fit` of them (mm), the first region on their left. */
export function bordersWithin(r: Region, room: Region, fit = FIT): { path: Segment[]; closed: boolean }[] {
  const c = new Clipper64();
  c.addOpenSubject(r.paths.map((p) => [...p, at(p, 0)]));
  c.addClip(room.paths);
  const open: Paths64 = [];
  c.execute(ClipType.Intersection, FillRule.NonZero, [], open);
  return joinedEnds(open.map((p) => toPlane(p))).flatMap((points) => {
    if (points.length < 2) return [];
    const [a, b] = [first(points), last(points)];
    const closed = length2(a[0] - b[0], a[1] - b[1]) < 2 / SCALE;
    return [{ path: fitPoints(points, fit), closed }];
  });
}

/** Runs of points that end where another begins are one: a border was opened where its points begin. */
function joinedEnds(runs: Vec2[][]): Vec2[][] {
  const out = [...runs];
  const meets = (a: Vec2, b: Vec2): boolean => length2(a[0] - b[0], a[1] - b[1]) < 2 / SCALE;
  for (let i = 0; i < out.length; i++)
    for (let k = 0; k < out.length; k++) {
      const [a, b] = [at(out, i), at(out, k)];
      if (i === k || !meets(last(a), first(b))) continue;
      out[i] = [...a, ...b.slice(1)];
      out.splice(k, 1);
      if (k < i) i--;
      k = -1;
    }
  return out;
}
