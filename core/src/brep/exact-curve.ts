import {
  along,
  cross,
  distance,
  dot,
  length,
  normalize,
  reject,
  scale,
  sub,
  type Vec3,
} from '../geometry/vec.ts';
import { curvePoint } from './evaluate.ts';
import { piecesOf } from './chain.ts';
import type { CurvePiece } from './geometry.ts';

/** Farther from a line or a circle than this a stretch is none, mm. */
const TOLERANCE = 1e-4;
/** Larger circles are lines to anybody, mm. */
const LARGEST = 1e5;
const SAMPLES = 24;

/**
 * The straight line or circle that a stretch of a spline or of a chain of curves is, within {@link TOLERANCE}: some programs store all
 * edges as splines. Any other stretch comes back as it is.
 */
export function exactStretch(stretch: CurvePiece): CurvePiece {
  const { curve, first, last } = stretch;
  if (curve.kind !== 'nurbs' && curve.kind !== 'chain') return stretch;
  const pieces = curve.kind === 'chain' ? piecesOf(curve, first, last) : [stretch];
  const [only, ...others] = pieces;
  if (only && only !== stretch && others.length === 0) return exactStretch(only);
  const points = pieces.flatMap((p, k) =>
    Array.from({ length: SAMPLES + 1 }, (_, i) =>
      curvePoint(p.curve, p.first + ((p.last - p.first) * i) / SAMPLES),
    ).slice(k === 0 ? 0 : 1),
  );
  return asLine(points) ?? asCircle(points) ?? stretch;
}

function asLine(points: readonly Vec3[]): CurvePiece | null {
  const [from, to] = [points[0]!, points[points.length - 1]!];
  const direction = sub(to, from);
  if (length(direction) < TOLERANCE) return null;
  const unit = normalize(direction);
  let before = -Infinity;
  for (const p of points) {
    const d = sub(p, from);
    const t = dot(d, unit);
    if (length(reject(d, unit)) > TOLERANCE || t < before - TOLERANCE) return null;
    before = t;
  }
  return { curve: { kind: 'line', origin: from, direction }, first: 0, last: 1 };
}

function asCircle(points: readonly Vec3[]): CurvePiece | null {
  const start = points[0]!;
  const third = Math.floor(points.length / 3);
  const round = throughThree(start, points[third]!, points[2 * third]!);
  if (!round || round.radius > LARGEST) return null;
  const { centre, radius, axis } = round;
  const x = normalize(sub(start, centre));
  const y = cross(axis, x);
  let angle = 0;
  for (const p of points) {
    const d = sub(p, centre);
    const h = dot(d, axis);
    if (Math.abs(h) > TOLERANCE || Math.abs(length(reject(d, axis)) - radius) > TOLERANCE) return null;
    const turn = Math.atan2(dot(d, y), dot(d, x)) - angle;
    const step = turn - 2 * Math.PI * Math.round(turn / (2 * Math.PI));
    // It goes on one way, and never half round between two samples.
    if (step < -TOLERANCE / radius || step > 1.5) return null;
    angle += step;
  }
  // A whole turn is one to the last digit.
  const isWhole = Math.abs(angle - 2 * Math.PI) * radius < TOLERANCE;
  return {
    curve: { kind: 'circle', at: { origin: centre, z: axis, x, y }, radius },
    first: 0,
    last: isWhole ? 2 * Math.PI : angle,
  };
}

/** The circle through three points, its axis so that it runs from the first by the second to the third; null where they lie on a line. */
function throughThree(a: Vec3, b: Vec3, c: Vec3): { centre: Vec3; radius: number; axis: Vec3 } | null {
  const [u, v] = [sub(b, a), sub(c, a)];
  const n = cross(u, v);
  const area = dot(n, n);
  if (area < 1e-18) return null;
  const [uu, vv] = [dot(u, u), dot(v, v)];
  const toCentre = scale(along(scale(cross(n, u), vv), cross(v, n), uu), 1 / (2 * area));
  const centre = along(a, toCentre, 1);
  return { centre, radius: distance(a, centre), axis: normalize(n) };
}
