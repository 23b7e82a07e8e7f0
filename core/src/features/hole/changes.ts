import { first as firstOf } from '../../lists.ts';
import { along, dot, isAgainst, isAlong, isParallel, scale, sub, type Vec3 } from '../../geometry/vec.ts';
import { threadCandidates } from '../../threads/candidates.ts';
import type { ChamferFeature } from '../chamfer/schema.ts';
import type { FamilyChanges, Feature } from '../family.ts';
import { round, roundVec } from '../round.ts';
import type { HoleFeature, StackStep } from './schema.ts';

/** What a programmer may change about a hole. */
export const holeChanges: FamilyChanges<HoleFeature> = {
  depth: (f) => f.depth,
  moved,
  fromBelow: readFromBelow,
  split: splitHole,
  ownChamfer,
  join: joinHoles,
};

/** The hole with its entry raised and a new depth, mm; null where a step of it would vanish. */
function moved(f: HoleFeature, raise: number, depth: number): HoleFeature | null {
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

/** A through hole read from its other end. */
function readFromBelow(f: HoleFeature, from: Vec3): HoleFeature {
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

/** A hole put in by hand: straight, with a drill's point where it is blind. Lengths in mm. */
export function handMadeHole(
  made: { axis: Vec3; entry: Vec3; diameter: number; depth: number; through: boolean; faces: number[] },
  id: string,
  units: 'mm' | 'inch',
): HoleFeature {
  const stack: StackStep[] = [{ shape: 'cylinder', diameter: made.diameter, length: made.depth }];
  return {
    id,
    solid: 0,
    axis: made.axis,
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
