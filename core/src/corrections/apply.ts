import { at as entryAt, first as firstOf } from '../lists.ts';
import type { ChamferFeature } from '../features/chamfer/schema.ts';
import type { Feature } from '../features/family.ts';
import type { HoleFeature, StackStep } from '../features/hole/schema.ts';
import { placeOf } from '../features/registry.ts';
import { round, roundVec } from '../features/round.ts';
import { PlaceIndex } from '../geometry/place-index.ts';
import { along, distance, dot, scale, sub, isParallel, isAlong, isAgainst } from '../geometry/vec.ts';
import { threadCandidates } from '../threads/candidates.ts';
import type { Correction, Target } from './schema.ts';

/** How far a feature may be from where a correction saw it, mm. */
const SAME_PLACE = 0.02;
const CELL = 0.05;

export interface Corrected {
  features: Feature[];
  /** Feature id → ids of the corrections that changed it. */
  by: Map<string, string[]>;
  /** Corrections of which something was not found, or that cannot be made as they are, with the reason. */
  lost: { id: string; reason: string }[];
}

/** The key under which a correction remembers a feature. */
export const targetOf = (f: Feature): Target => ({
  family: f.family,
  at: roundVec(placeOf(f)),
  axis: roundVec(f.axis),
});

export const isTarget = (t: Target, f: Feature): boolean =>
  f.family === t.family && isAlong(f.axis, t.axis) && distance(placeOf(f), t.at) < SAME_PLACE;

/** The recognised features as the programmer has corrected them, in order. What is recognised is not changed. */
export function applyCorrections(
  recognised: Feature[],
  corrections: Correction[],
  units: 'mm' | 'inch' = 'mm',
): Corrected {
  const by = new Map<string, string[]>();
  const lost: Corrected['lost'] = [];
  const live = new LiveFeatures(recognised);
  const replace = (old: Feature, fresh: Feature[], id: string): void => {
    live.replace(old, fresh);
    for (const f of fresh) by.set(f.id, [...new Set([...(by.get(old.id) ?? []), id])]);
  };
  for (const c of corrections) {
    if (c.kind === 'made') {
      const made = handMade(c.feature, c.id, units);
      live.add(made);
      by.set(made.id, [c.id]);
      continue;
    }
    const found = c.targets.map((t) => live.find(t));
    const missing = found.filter((f) => f.length === 0).length;
    if (missing > 0)
      lost.push({
        id: c.id,
        reason:
          missing === found.length
            ? 'its feature is no longer there'
            : `${missing} of its ${found.length} features are no longer there`,
      });
    const all = [...new Set(found.flat())];
    if (c.kind === 'join') {
      const joined = joinHoles(all.filter((f): f is HoleFeature => f.family === 'hole'));
      if (!joined) {
        lost.push({ id: c.id, reason: 'only plain holes of one diameter on one axis can be joined' });
        continue;
      }
      replace(firstOf(all), [joined], c.id);
      for (const f of all.slice(1)) replace(f, [], c.id);
      continue;
    }
    for (const f of all) {
      const fresh = changed(f, c, units);
      if (fresh) replace(f, fresh, c.id);
      else lost.push({ id: c.id, reason: REFUSED[c.kind] });
    }
  }
  return { features: live.list(), by, lost };
}

/** The features while they are corrected: each as recognised leads on to what became of it. */
class LiveFeatures {
  /** What became of each feature as recognised or made by hand, in order. */
  private readonly became: Feature[][] = [];
  private readonly origins = new Map<Feature, number[]>();
  private readonly now = new PlaceIndex<Feature>(CELL);
  private readonly before = new PlaceIndex<{ feature: Feature; origin: number }>(CELL);

  constructor(recognised: readonly Feature[]) {
    for (const f of recognised) this.add(f);
  }

  add(f: Feature): void {
    const origin = this.became.push([f]) - 1;
    this.origins.set(f, [origin]);
    this.now.add(f, placeOf(f));
    this.before.add({ feature: f, origin }, placeOf(f));
  }

  /** The features at a target's place now; else what became of those that were recognised there. */
  find(t: Target): Feature[] {
    const here = this.now.near(t.at, SAME_PLACE).filter((f) => isTarget(t, f));
    if (here.length > 0) return here;
    return this.before
      .near(t.at, SAME_PLACE)
      .filter(({ feature }) => isTarget(t, feature))
      .flatMap(({ origin }) => entryAt(this.became, origin));
  }

  replace(old: Feature, fresh: Feature[]): void {
    const origins = this.origins.get(old) ?? [];
    for (const o of origins)
      this.became[o] = entryAt(this.became, o).flatMap((f) => (f === old ? fresh : [f]));
    this.origins.delete(old);
    this.now.remove(old, placeOf(old));
    for (const f of fresh) {
      this.origins.set(f, origins);
      this.now.add(f, placeOf(f));
    }
  }

  list(): Feature[] {
    return this.became.flat();
  }
}

/** Why a correction of each kind may not fit its feature; each says what would. */
const REFUSED: Record<Exclude<Correction['kind'], 'made' | 'join'>, string> = {
  dismiss: 'it cannot be dismissed',
  approach:
    'no tool can come in from there: a cavity is entered along its axis, from below only where it goes through',
  levels: 'a step of it would be left with no length: type a greater depth',
  split: 'only a plain hole can be split, between two depths inside it',
  'own-chamfer': 'it has no entry chamfer',
};

/** What becomes of one feature; null where the correction does not fit it. */
function changed(
  f: Feature,
  c: Exclude<Correction, { kind: 'made' | 'join' }>,
  units: 'mm' | 'inch',
): Feature[] | null {
  if (c.kind === 'dismiss') return [];
  if (c.kind === 'approach') return turned(f, c.from);
  if (c.kind === 'levels') {
    const depth = depthOf(f);
    if (depth === null) return null;
    const grown = c.depth ?? depth + c.raiseTop + c.lowerBottom;
    const moved = grown > 0 ? withLevels(f, c.raiseTop, grown) : null;
    return moved && [moved];
  }
  if (f.family !== 'hole') return null;
  if (c.kind === 'split') return splitHole(f, c.from, c.to);
  return ownChamfer(f, units);
}

function depthOf(f: Feature): number | null {
  if ('depth' in f) return f.depth;
  return f.family === 't-slot' ? f.mouthDepth + f.headHeight : null;
}

/** The feature with its top raised and a new depth; null where a step of it would vanish. */
function withLevels(f: Feature, raise: number, depth: number): Feature | null {
  if (f.family === 'hole') {
    const last = f.stack.findLastIndex((s) => s.shape === 'cylinder');
    const first = f.stack.findIndex((s) => s.shape === 'cylinder');
    if (first < 0) return null;
    const more = depth - f.depth;
    // The first straight step grows upward, the last one takes the rest.
    const stack = f.stack.map((s, i): StackStep => {
      if (s.shape !== 'cylinder') return s;
      return { ...s, length: round(s.length + (i === first ? raise : 0) + (i === last ? more - raise : 0)) };
    });
    if (stack.some((s) => s.shape === 'cylinder' && s.length <= 0)) return null;
    return { ...f, entry: roundVec(along(f.entry, f.axis, raise)), depth: round(depth), stack };
  }
  if (f.family === 't-slot' && !(f.mouthDepth + raise > 0 && depth > f.mouthDepth + raise)) return null;
  if (f.family === 't-slot')
    return {
      ...f,
      at: roundVec(along(f.at, f.axis, raise)),
      mouthDepth: round(f.mouthDepth + raise),
      headHeight: round(depth - f.mouthDepth - raise),
    };
  if (f.family === 'slot')
    return { ...f, centre: roundVec(along(f.centre, f.axis, raise)), depth: round(depth) };
  if ('at' in f && 'depth' in f)
    return { ...f, at: roundVec(along(f.at, f.axis, raise)), depth: round(depth) };
  return f;
}

/**
 * The feature made from another side. An edge may be broken from any; a cavity only along its axis, from below only where it goes
 * through: a blind hole entered at its bottom would be a tool driven into the part.
 */
function turned(f: Feature, from: Feature['axis']): Feature[] | null {
  const share = dot(f.axis, from);
  const isOpenBelow =
    f.family === 'hole'
      ? f.kind === 'through'
      : f.family === 'wall-groove' || f.family === 'bore-groove' || ('bottom' in f && f.bottom === 'open');
  const isEdge = f.family === 'chamfer' || f.family === 'rounded-edge' || f.family === 'sharp-edge';
  if (!isEdge && share < 0.999 && !(isOpenBelow && share < -0.999)) return null;
  return [f.family === 'hole' && share < 0 ? readFromBelow(f, from) : { ...f, reachableFrom: [from] }];
}

/** A through hole read from its other end. */
function readFromBelow(f: HoleFeature, from: HoleFeature['axis']): HoleFeature {
  const stack = [...f.stack]
    .reverse()
    .map((s): StackStep =>
      s.shape === 'cylinder' ? s : { ...s, startDiameter: s.endDiameter, endDiameter: s.startDiameter },
    );
  return {
    ...f,
    axis: from,
    entry: roundVec(along(f.entry, f.axis, -f.depth)),
    entryDrop: 0,
    stack,
    reachableFrom: [from],
  };
}

/** One hole from the highest entry to the deepest end, or null where they are not coaxial and equal. */
function joinHoles(holes: HoleFeature[]): HoleFeature | null {
  const [first] = holes;
  // Steps would be lost without a word.
  if (!first || holes.length < 2 || holes.some((h) => h.stack.length !== 1)) return null;
  const widths = holes.map((h) =>
    Math.min(...h.stack.flatMap((s) => (s.shape === 'cylinder' ? [s.diameter] : []))),
  );
  const coaxial = holes.every((h) => {
    const off = sub(h.entry, first.entry);
    const side = sub(off, scale(first.axis, dot(off, first.axis)));
    return isParallel(h.axis, first.axis) && Math.hypot(...side) < 0.02;
  });
  if (!coaxial || widths.some((w) => Math.abs(w - firstOf(widths)) > 0.01)) return null;
  const level = (h: HoleFeature, end: boolean): number => {
    const entry = dot(sub(h.entry, first.entry), first.axis);
    const exit = entry - Math.sign(dot(h.axis, first.axis)) * h.depth;
    return end ? Math.min(entry, exit) : Math.max(entry, exit);
  };
  const top = Math.max(...holes.map((h) => level(h, false)));
  const low = Math.min(...holes.map((h) => level(h, true)));
  const lowest = holes.find((h) => Math.abs(level(h, true) - low) < 1e-6) ?? first;
  const depth = round(top - low);
  const faces = [...new Set(holes.flatMap((h) => h.faces))].sort((a, b) => a - b);
  const reach = first.reachableFrom.filter((d) => isAlong(d, first.axis));
  const both = lowest.reachableFrom.filter((d) => isAgainst(d, first.axis));
  return {
    ...first,
    faces,
    entry: roundVec(along(first.entry, first.axis, top)),
    depth,
    kind: lowest.kind,
    bottom: lowest.bottom,
    stack: [{ shape: 'cylinder', diameter: firstOf(widths), length: depth }],
    role: 'plain',
    reachableFrom: [...reach, ...both],
    interrupted: true,
  };
}

function splitHole(f: HoleFeature, from: number, to: number): HoleFeature[] | null {
  const straight = f.stack.filter((s) => s.shape === 'cylinder');
  if (straight.length !== 1 || f.stack.length !== 1 || !(from > 0 && to > from && to < f.depth)) return null;
  const { diameter } = firstOf(straight);
  const upper: HoleFeature = {
    ...f,
    id: `${f.id}a`,
    kind: 'through',
    depth: round(from),
    bottom: { shape: 'open' },
    stack: [{ shape: 'cylinder', diameter, length: round(from) }],
    reachableFrom: f.reachableFrom.filter((d) => dot(d, f.axis) > 0),
  };
  const lower: HoleFeature = {
    ...f,
    id: `${f.id}b`,
    entry: roundVec(along(f.entry, f.axis, -to)),
    depth: round(f.depth - to),
    stack: [{ shape: 'cylinder', diameter, length: round(f.depth - to) }],
  };
  return [upper, lower];
}

/** The hole without its entry chamfer, and the chamfer. */
function ownChamfer(f: HoleFeature, units: 'mm' | 'inch'): Feature[] | null {
  const [cone, straight, ...rest] = f.stack;
  if (cone?.shape !== 'cone' || straight?.shape !== 'cylinder' || cone.startDiameter <= cone.endDiameter)
    return null;
  const stack: StackStep[] = [{ ...straight, length: round(straight.length + cone.length) }, ...rest];
  const width = (cone.startDiameter - cone.endDiameter) / 2;
  const chamfer: ChamferFeature = {
    id: `${f.id}k`,
    family: 'chamfer',
    solid: f.solid,
    faces: [],
    reachableFrom: f.reachableFrom.filter((d) => isAlong(d, f.axis)),
    axis: f.axis,
    kind: 'circular',
    width: round(width),
    angle: round(90 - cone.angle / 2),
    loop: 'closed',
    length: round(Math.PI * cone.startDiameter),
    side: 'inside',
    at: f.entry,
    edges: [],
    roomBeside: round(cone.endDiameter),
    roomBelow: null,
  };
  return [
    {
      ...f,
      stack,
      role: f.role === 'countersunk' ? 'plain' : f.role,
      threadCandidates: threadCandidates(stack, units),
    },
    chamfer,
  ];
}

function handMade(
  made: Extract<Correction, { kind: 'made' }>['feature'],
  id: string,
  units: 'mm' | 'inch',
): Feature {
  const base = { id, solid: 0, faces: [] as number[], axis: made.axis };
  if (made.family === 'sharp-edge')
    return { ...base, ...made, reachableFrom: [made.axis], roomBeside: null, roomBelow: null };
  const stack: StackStep[] = [{ shape: 'cylinder', diameter: made.diameter, length: made.depth }];
  return {
    ...base,
    family: 'hole',
    faces: made.faces,
    kind: made.through ? 'through' : 'blind',
    entry: made.entry,
    entryDrop: 0,
    depth: made.depth,
    stack,
    bottom: made.through ? { shape: 'open' } : { shape: 'cone', angle: 118 },
    role: 'plain',
    threadCandidates: threadCandidates(stack, units),
    interrupted: false,
    reachableFrom: made.through ? [made.axis, roundVec(scale(made.axis, -1))] : [made.axis],
  };
}
