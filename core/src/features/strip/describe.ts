import { at } from '../../lists.ts';
import { pathLength, pathMiddle, segmentPoint, type Segment, type Vec2 } from '../../geometry/path.ts';
import { along, scale, type Vec3 } from '../../geometry/vec.ts';
import type { CurvePiece, GrooveEnd } from '../base.ts';
import type { RecogniseContext } from '../family.ts';
import { round, roundVec } from '../round.ts';
import { fromPlan } from './sides.ts';
import type { Strip } from './strip.ts';

/** All faces of a strip, in file order. */
export function stripFaces({ graph }: RecogniseContext, s: Strip, more: number[] = []): number[] {
  const all = [
    ...(s.floor >= 0 ? [s.floor] : []),
    ...s.left,
    ...s.right,
    ...s.others,
    ...s.ceilings,
    ...more,
  ];
  return [...new Set(all.flatMap((p) => at(graph.patches, p).faces))].sort((a, b) => a - b);
}

/** True where a family before has taken any of the strip's walls. */
export const isTaken = (context: RecogniseContext, s: Strip): boolean =>
  [...s.left, ...s.right].some((p) =>
    at(context.graph.patches, p).faces.every((f) => context.claimed.has(f)),
  );

/** The centre line in space, at the level of the face. */
export const centrelinePieces = (s: Strip): CurvePiece[] =>
  s.centreline.map((piece) => {
    const [from, to] = [
      roundVec(fromPlan(s.frame, piece.from, s.top)),
      roundVec(fromPlan(s.frame, piece.to, s.top)),
    ];
    if (piece.kind === 'line') return { kind: 'line', from, to };
    return {
      kind: 'arc',
      from,
      to,
      centre: roundVec(fromPlan(s.frame, piece.centre, s.top)),
      radius: round(piece.radius),
      turn: round(piece.turn),
    };
  });

/** How its middle line ends, from its start on. */
export const grooveEnds = (s: Strip): [GrooveEnd, GrooveEnd] => [
  { open: s.ends[0] === 'open', beyond: round(s.beyond[0]) },
  { open: s.ends[1] === 'open', beyond: round(s.beyond[1]) },
];

/** The radius at the foot of its walls, where there is one. */
export const footOf = ({ floorRadius }: Strip): { floorRadius?: number } =>
  floorRadius > 0 ? { floorRadius: round(floorRadius) } : {};

export const stripLength = (s: Strip): number => pathLength(s.centreline);
export const openEnds = (s: Strip): number => s.ends.filter((e) => e === 'open').length;
/** Middle of the centre line at the level of the face. */
export const stripMiddle = (s: Strip): Vec3 => fromPlan(s.frame, pathMiddle(s.centreline), s.top);

/** How far a line strip reaches along its direction, round ends counted, as plan points. */
export function overallLine(s: Strip): { from: Vec2; to: Vec2; length: number } | null {
  const [first] = s.centreline;
  if (s.centreline.length !== 1 || first?.kind !== 'line') return null;
  const l = Math.hypot(first.to[0] - first.from[0], first.to[1] - first.from[1]);
  const u: Vec2 = [(first.to[0] - first.from[0]) / l, (first.to[1] - first.from[1]) / l];
  const cap = (i: 0 | 1): number => (s.ends[i] === 'round' ? s.width / 2 : 0);
  const from: Vec2 = [first.from[0] - cap(0) * u[0], first.from[1] - cap(0) * u[1]];
  const to: Vec2 = [first.to[0] + cap(1) * u[0], first.to[1] + cap(1) * u[1]];
  return { from, to, length: l + cap(0) + cap(1) };
}

/** Directions out of the strip in which nothing of the part stands: its axis, and the other way where it goes through. */
export function stripReach({ rays }: RecogniseContext, s: Strip): Vec3[] {
  const out: Vec3[] = [];
  const clear = (d: Vec3, level: number): boolean =>
    samples(s.centreline).every((p) => rays.firstHit(fromPlan(s.frame, p, level), d) === null);
  const up = s.frame.z;
  if (clear(up, s.bottom + 0.02)) out.push(roundVec(up));
  if (s.floor < 0 && clear(scale(up, -1), s.top - 0.02)) out.push(roundVec(scale(up, -1)));
  return out;
}

const samples = (path: Segment[]): Vec2[] =>
  path.flatMap((s) => [0.03, 0.35, 0.65, 0.97].map((share) => segmentPoint(s, share)));

/** The unit vector of the sense that counts as positive: lines have no sense of their own. */
export function positive(d: Vec3): Vec3 {
  const lead = d.find((v) => Math.abs(v) > 1e-6) ?? 0;
  return roundVec(lead < 0 ? scale(d, -1) : d);
}

export const lineBetween = (s: Strip, from: Vec2, to: Vec2): Vec3 => {
  const [a, b] = [fromPlan(s.frame, from, 0), fromPlan(s.frame, to, 0)];
  const d: Vec3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  return scale(d, 1 / (Math.hypot(...d) || 1));
};

export const atTop = (s: Strip, p: Vec2): Vec3 => along(fromPlan(s.frame, p, 0), s.frame.z, s.top);
