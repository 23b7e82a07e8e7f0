import { holeChanges } from './changes.ts';
import { at, first as firstOf, known } from '../../lists.ts';
import { along, dot, scale, sub, type Vec3, isParallel, isAlong } from '../../geometry/vec.ts';
import type { Bounds } from '../../model/solid-model.ts';
import { angleBasis } from '../../model/surface.ts';
import { TAPER_ANGLE, threadCandidates } from '../../threads/candidates.ts';
import { once, type FeatureFamily, type Found, type Recognised, type RecogniseContext } from '../family.ts';
import { depthPart, directionPart, sizePart } from '../sizes.ts';
import { bottomRim, components, hasIsland, topRim, type Component, type Rim } from './components.ts';
import { axisGroups, AXIS_TOLERANCE, type AxisLine } from './pieces.ts';
import type { HoleBottom, HoleFeature, StackStep } from './schema.ts';
import { round, roundVec } from '../round.ts';
import { readStack, stepsFrom, takeUndercuts, type Undercut } from './stack.ts';

/** A rim cone wider than this share of the diameter, per side, is a countersink; narrower it is an entry chamfer. */
export const COUNTERSINK_SHARE = 0.15;

const ROLE_NAMES: Record<HoleFeature['role'], string> = {
  plain: 'Plain holes',
  counterbored: 'Counterbored holes',
  countersunk: 'Countersunk holes',
  stepped: 'Stepped holes',
  tapered: 'Tapered holes',
};

export const holeFamily: FeatureFamily<'hole'> = {
  family: 'hole',
  prefix: 'H',
  placeBelow: (f) => (f.kind === 'through' ? along(f.entry, f.axis, -f.depth) : null),
  madeFrom: widensTo,
  isOpenBelow: (f) => f.kind === 'through',
  changes: holeChanges,
  recognise: recogniseHoles,
  place: (f) => f.entry,
  group: (f) => `${ROLE_NAMES[f.role]}, ${f.kind}`,
  groupRank: (f) => Object.keys(ROLE_NAMES).indexOf(f.role) * 2 + (f.kind === 'through' ? 0 : 1),
  sizeKey,
  describe: (f, say) => `⌀${say(narrowest(f))}${f.kind === 'through' ? ' THRU' : ` ↧${say(f.depth)}`}`,
  sortBy: narrowest,
  opening: (f) => ({ runs: [[f.entry]], width: widest(f), depth: f.depth }),
};

/** Smallest straight diameter of a hole, mm; its smallest cone end where nothing is straight. */
export function narrowest(f: HoleFeature): number {
  const straight = f.stack.flatMap((s) => (s.shape === 'cylinder' ? [s.diameter] : []));
  if (straight.length > 0) return Math.min(...straight);
  return Math.min(...f.stack.flatMap((s) => (s.shape === 'cone' ? [s.startDiameter, s.endDiameter] : [])));
}

/** The directions in which its ends look that are wider than its narrowest step, as far as tools reach it from there. */
function widensTo(f: HoleFeature): Vec3[] {
  const wide = f.stack.flatMap((s) =>
    s.shape === 'cylinder'
      ? [s.diameter]
      : s.shape === 'cone'
        ? [Math.max(s.startDiameter, s.endDiameter)]
        : [],
  );
  const least = narrowest(f) + 1e-6;
  const first = wide.findIndex((d) => d <= least);
  const last = wide.findLastIndex((d) => d <= least);
  return [
    ...(first > 0 ? [f.axis] : []),
    ...(last >= 0 && last < wide.length - 1 ? [scale(f.axis, -1)] : []),
  ].filter((d) => f.reachableFrom.some((r) => isAlong(r, d)));
}

/** One of the two directions of a line, the same for both; holes that lean to either side (a V) are of two. */
function alongLine(d: Vec3): Vec3 {
  const lead = d.find((v) => Math.abs(v) > 1e-6) ?? 1;
  return lead < 0 ? scale(d, -1) : d;
}

/** Largest diameter of any step, mm. */
export function widest(f: HoleFeature): number {
  return Math.max(
    ...f.stack.map((s) => (s.shape === 'cylinder' ? s.diameter : Math.max(s.startDiameter, s.endDiameter))),
  );
}

function sizeKey(f: HoleFeature, anyDepth: boolean): string {
  const step = (s: StackStep, last: boolean): string => {
    if (s.shape === 'flat') return 'f';
    // A through hole's last length is the plate's thickness, not a size of the hole.
    if (s.shape === 'cylinder')
      return `c${sizePart(s.diameter)}:${last && f.kind === 'through' ? '*' : depthPart(s.length, anyDepth)}`;
    return `k${sizePart(s.startDiameter)}-${sizePart(s.endDiameter)}:${s.angle.toFixed(1)}`;
  };
  const bottom = f.bottom.shape === 'cone' ? `cone${f.bottom.angle.toFixed(0)}` : f.bottom.shape;
  const side = directionPart(f.kind === 'through' && f.reachableFrom.length > 1 ? alongLine(f.axis) : f.axis);
  return [
    f.family,
    f.role,
    f.kind,
    side,
    ...f.stack.map((s, i) => step(s, i === f.stack.length - 1)),
    bottom,
  ].join('|');
}

/** Finds all holes of a solid: runs of coaxial concave surfaces of revolution that close round their axis and open outward. */
function recogniseHoles(context: RecogniseContext): Recognised<HoleFeature> {
  const { model, faces, middle, rays } = context;
  const features: Found<HoleFeature>[] = [];
  const voids: number[] = [];
  const isAir = (from: Vec3, to: Vec3): boolean => {
    const d = sub(to, from);
    const l = Math.hypot(...d);
    return l < 1e-6 || rays.firstHit(from, scale(d, 1 / l), l) === null;
  };
  for (const group of axisGroups(model, faces, middle)) {
    for (const c of components(model, group, isAir)) {
      const read = readHole(context, c);
      if (read === 'island') continue;
      if (read === 'void') voids.push(...c.pieces.map((p) => p.face));
      else features.push(read);
    }
  }
  const notes: Recognised['notes'] = [];
  const note = (code: string, list: number[], text: string) => {
    if (list.length > 0)
      notes.push({
        code,
        message: `${text}: faces ${list.slice(0, 24).join(', ')}${list.length > 24 ? ` and ${list.length - 24} more` : ''}.`,
      });
  };
  note('inner-void', voids, 'Round cavities without an opening were seen and left');
  return { features, notes };
}

/** A ring undercut with the hole's axis and entry. */
export interface PlacedUndercut extends Undercut {
  axis: Vec3;
  entry: Vec3;
}

/** The undercuts seen while holes were read. */
export const ringUndercuts = (context: RecogniseContext): PlacedUndercut[] =>
  once(context, 'ring undercuts', () => []);

interface End {
  rim: Rim | null;
  open: boolean;
  /** Position of the farthest point along the axis line. */
  t: number;
  radius: number;
}

function readHole(context: RecogniseContext, c: Component): Found<HoleFeature> | 'island' | 'void' {
  const { model, solid, up } = context;
  const round2 = c.rims.filter((r) => r.round);
  const ends = { high: endOf(c, 1), low: endOf(c, -1) };
  for (const rim of round2)
    if (rim.concaveShare > 0.5 && hasIsland(model, context.graph, rim, c.line)) return 'island';
  const isFree = {
    high: isClear(context, c, ends.high, c.line.direction),
    low: isClear(context, c, ends.low, scale(c.line.direction, -1)),
  };
  const sign = chooseEntry(c, ends, isFree, up);
  if (sign === null) return 'void';
  const [near, far] = sign > 0 ? [ends.high, ends.low] : [ends.low, ends.high];
  const direction = scale(c.line.direction, sign);
  const nearRim = known(near.rim, 'its rim');
  const entryT = sign > 0 ? nearRim.high : nearRim.low;
  const steps = stepsFrom(c, sign, entryT);
  const farDepth = far.rim ? sign * (entryT - (sign > 0 ? far.rim.low : far.rim.high)) : 0;
  const { steps: plain, undercuts } = takeUndercuts(steps, far.rim !== null && !far.open);
  const { stack, bottom, depth } = readStack(
    plain,
    far.rim,
    farDepth,
    closedBy(context, far, c.line, direction),
  );
  if (stack.length === 0) return 'void';
  const entry = along(c.line.origin, c.line.direction, entryT);
  for (const u of undercuts) ringUndercuts(context).push({ ...u, axis: direction, entry });
  const reachableFrom: Vec3[] = [];
  const [nearFree, farFree] = sign > 0 ? [isFree.high, isFree.low] : [isFree.low, isFree.high];
  if (nearFree) reachableFrom.push(direction);
  if (bottom.shape === 'open' && farFree) reachableFrom.push(scale(direction, -1));
  const crossed = c.rims.some((r) => r !== near.rim && r !== far.rim) && hasCrossing(c, near.rim, far.rim);
  return {
    family: 'hole',
    solid,
    faces: [...new Set([...c.pieces.map((p) => p.face), ...c.flats, ...floorFaces(context, far)])].sort(
      (a, b) => a - b,
    ),
    reachableFrom: reachableFrom.map(roundVec),
    kind: bottom.shape === 'open' ? 'through' : 'blind',
    axis: roundVec(direction),
    entry: roundVec(entry),
    // A slot across the mouth is no slanted face: the drill starts on the highest level all round.
    entryDrop: isBroken(context, near) ? 0 : round(nearRim.high - nearRim.low),
    depth,
    stack,
    bottom,
    role: roleOf(stack),
    threadCandidates: threadCandidates(stack, model.sourceUnits),
    interrupted:
      c.interrupted ||
      crossed ||
      isBroken(context, near) ||
      (far.open && isBroken(context, far)) ||
      // A point with a rim of its own is cut by another cavity.
      (bottom.shape === 'cone' && far.rim !== null),
  };
}

/** A rim that is neither of the two ends: another cavity opens into the wall. */
function hasCrossing(c: Component, near: Rim | null, far: Rim | null): boolean {
  return c.rims.some((r) => r !== near && r !== far);
}

/** An open end whose rim is not one face's outline: a slot or pocket cuts into it. */
function isBroken(context: RecogniseContext, end: End): boolean {
  const { rim } = end;
  if (!rim || rim.level || rim.neighbours.length < 2) return false;
  const planes = rim.neighbours.map((f) => at(context.model.faces, f).surface);
  return planes.some((s) => s.kind === 'plane');
}

function endOf(c: Component, sign: 1 | -1): End {
  const extreme = c.pieces.reduce((m, p) => (sign > 0 ? (p.high > m.high ? p : m) : p.low < m.low ? p : m));
  const t = sign > 0 ? extreme.high : extreme.low;
  const radius = sign > 0 ? extreme.radiusHigh : extreme.radiusLow;
  const candidate = sign > 0 ? topRim(c) : bottomRim(c);
  // With one round rim only, the other end is closed by a cone's point or a ball.
  const closedByOwn =
    radius < 1e-3 || extreme.kind === 'sphere' || !candidate || !reaches(candidate, extreme, sign);
  const rim = closedByOwn ? null : candidate;
  return { rim, open: rim !== null && rim.concaveShare <= 0.5, t, radius };
}

/** The rim belongs to that end: it comes nearer to the extreme than the piece's other end does. */
function reaches(rim: Rim, piece: { low: number; high: number }, sign: 1 | -1): boolean {
  const middle = (piece.low + piece.high) / 2;
  return sign > 0 ? rim.high > middle : rim.low < middle;
}

/**
 * +1: the entry is at the high end. The open end; of two the one that a tool gets to (the other may open into a crossing bore), then the
 * wanted direction, then the wider end, then the positive axis.
 */
function chooseEntry(
  c: Component,
  ends: { high: End; low: End },
  isFree: { high: boolean; low: boolean },
  up: Vec3 | null,
): 1 | -1 | null {
  if (!ends.high.open && !ends.low.open) return null;
  if (ends.high.open !== ends.low.open) return ends.high.open ? 1 : -1;
  if (isFree.high !== isFree.low) return isFree.high ? 1 : -1;
  if (up) {
    const d = dot(c.line.direction, up);
    if (Math.abs(d) > 0.999) return d > 0 ? 1 : -1;
  }
  if (Math.abs(ends.high.radius - ends.low.radius) > 5e-3) return ends.high.radius > ends.low.radius ? 1 : -1;
  return 1;
}

/** What closes an end: planes square to the axis, a drill point on that axis (whole or in part), or something not understood. */
function closedBy({ model }: RecogniseContext, { rim }: End, line: AxisLine, direction: Vec3): HoleBottom {
  if (!rim) return { shape: 'unknown' };
  for (const f of rim.neighbours) {
    const { surface: s, reversed } = at(model.faces, f);
    if (s.kind !== 'cone' || !reversed || !isAlong(s.axis, direction)) continue;
    const off = sub(s.origin, line.origin);
    const aside = sub(off, scale(direction, dot(off, direction)));
    if (Math.hypot(...aside) < AXIS_TOLERANCE)
      return { shape: 'cone', angle: round((360 / Math.PI) * s.semiAngle) };
  }
  const isFlat = rim.neighbours.every((f) => {
    const s = at(model.faces, f).surface;
    return s.kind === 'plane' && isParallel(s.normal, direction);
  });
  return { shape: isFlat ? 'flat' : 'unknown' };
}

/** The flat at the far end, when it is only a floor. */
function floorFaces(context: RecogniseContext, far: End): number[] {
  if (!far.rim || far.open) return [];
  return far.rim.neighbours.filter((f) => at(context.model.faces, f).loops.length === 1);
}

/** True where nothing of the part stands in the way of a straight tool as wide as the opening. */
function isClear(context: RecogniseContext, c: Component, end: End, direction: Vec3): boolean {
  if (!end.open || !end.rim) return false;
  const [x, y] = angleBasis(direction);
  // From inside the hole, just below the lowest point of the rim: the walls themselves are farther out than the rays.
  const sign = dot(direction, c.line.direction) > 0 ? 1 : -1;
  const start = (sign > 0 ? end.rim.low : end.rim.high) - sign * 1e-3;
  const centre = along(c.line.origin, c.line.direction, start);
  if (dot(centre, direction) + 2e-3 >= farthestAlong(context.model.bounds, direction)) return true;
  for (const [share, count] of [
    [0, 1],
    [0.55, 6],
    [0.95, 16],
  ] as const) {
    for (let i = 0; i < count; i++) {
      const a = (2 * Math.PI * (i + 0.37)) / count;
      const offset = share * end.radius;
      const origin = along(along(centre, x, offset * Math.cos(a)), y, offset * Math.sin(a));
      if (context.rays.firstHit(origin, direction) !== null) return false;
    }
  }
  return true;
}

/** How far the part's box reaches along a direction: what opens there has nothing above it. */
const farthestAlong = ({ min, max }: Bounds, d: Vec3): number =>
  d.reduce((sum, v, i) => sum + v * (v > 0 ? at(max, i) : at(min, i)), 0);

function roleOf(stack: StackStep[]): HoleFeature['role'] {
  if (stack.some((s) => s.shape === 'cone' && Math.abs(s.angle - TAPER_ANGLE) < 0.05)) return 'tapered';
  const cylinders = stack.flatMap((s) => (s.shape === 'cylinder' ? [s.diameter] : []));
  const distinct = new Set(cylinders.map((d) => d.toFixed(2))).size;
  const first = firstOf(stack);
  const second = stack[1];
  if (distinct <= 1) {
    if (
      first.shape === 'cone' &&
      second?.shape === 'cylinder' &&
      isCountersink(first.startDiameter, second.diameter)
    )
      return 'countersunk';
    const last = at(stack, stack.length - 1);
    const before = stack[stack.length - 2];
    if (
      last.shape === 'cone' &&
      before?.shape === 'cylinder' &&
      isCountersink(last.endDiameter, before.diameter)
    )
      return 'countersunk';
    return cylinders.length === 0 ? 'stepped' : 'plain';
  }
  const flats = stack.filter((s) => s.shape === 'flat').length;
  return distinct === 2 && flats >= 1 ? 'counterbored' : 'stepped';
}

const isCountersink = (rim: number, hole: number): boolean => (rim - hole) / 2 > COUNTERSINK_SHARE * hole;
