import { add, along, cross, length, normalize, scale, sub, type Vec3 } from '../geometry/vec.ts';
import { segmentsPerTurn } from '../model/circle-edge.ts';
import { pieceAt, piecesOf } from './chain.ts';
import {
  splineRange,
  wholeRange,
  type BrepCurve,
  type BrepSurface,
  type Nurbs,
  type NurbsSurface,
  type Placement,
} from './geometry.ts';
import type { Matrix34 } from './matrix34.ts';

export function transformPoint(m: Matrix34 | null, p: Vec3): Vec3 {
  if (!m) return p;
  return [0, 4, 8].map((r) => m[r]! * p[0] + m[r + 1]! * p[1] + m[r + 2]! * p[2] + m[r + 3]!) as Vec3;
}

export function transformDirection(m: Matrix34 | null, d: Vec3): Vec3 {
  if (!m) return d;
  return [0, 4, 8].map((r) => m[r]! * d[0] + m[r + 1]! * d[1] + m[r + 2]! * d[2]) as Vec3;
}

const planar = ({ origin: o, x: a, y: b }: Placement, x: number, y: number): Vec3 => [
  o[0] + x * a[0] + y * b[0],
  o[1] + x * a[1] + y * b[1],
  o[2] + x * a[2] + y * b[2],
];

/** Point of a curve at its own parameter. */
export function curvePoint(c: BrepCurve, u: number): Vec3 {
  switch (c.kind) {
    case 'line':
      return along(c.origin, c.direction, u);
    case 'circle':
      return planar(c.at, c.radius * Math.cos(u), c.radius * Math.sin(u));
    case 'ellipse':
      return planar(c.at, c.major * Math.cos(u), c.minor * Math.sin(u));
    case 'parabola':
      return planar(c.at, (u * u) / (4 * c.focal), u);
    case 'hyperbola':
      return planar(c.at, c.major * Math.cosh(u), c.minor * Math.sinh(u));
    case 'nurbs':
      return nurbsPoint(c.nurbs, u);
    case 'offset': {
      const h = 1e-5;
      const tangent = sub(curvePoint(c.basis, u + h), curvePoint(c.basis, u - h));
      return along(curvePoint(c.basis, u), normalize(cross(tangent, c.direction)), c.distance);
    }
    case 'chain': {
      const piece = pieceAt(c, u);
      return curvePoint(piece.curve, piece.u);
    }
  }
}

/** Points from parameter `first` to `last`, dense enough for a chord error of about 0.02 mm. */
export function sampleCurve(c: BrepCurve, first: number, last: number): Vec3[] {
  if (c.kind === 'chain')
    return piecesOf(c, first, last).flatMap((p, i) => {
      const points = sampleCurve(p.curve, p.first, p.last);
      return i === 0 ? points : points.slice(1);
    });
  const n = curveSegments(c, first, last);
  return Array.from({ length: n + 1 }, (_, i) => curvePoint(c, first + ((last - first) * i) / n));
}

function curveSegments(c: BrepCurve, first: number, last: number): number {
  if (c.kind === 'line') return 1;
  if (c.kind === 'circle' || c.kind === 'ellipse') {
    const r = c.kind === 'circle' ? c.radius : c.major;
    return Math.max(2, Math.ceil((Math.abs(last - first) / (2 * Math.PI)) * segmentsPerTurn(r) - 1e-9));
  }
  if (c.kind === 'nurbs') {
    if (c.nurbs.degree === 1 && c.nurbs.poles.length === 2) return 1;
    const spans = new Set(c.nurbs.knots.filter((k) => k > first && k < last)).size + 1;
    return Math.min(
      400,
      Math.max(8, Math.min(spans, 60) * Math.max(4, Math.ceil(turning(c, first, last) / (spans * 0.2)))),
    );
  }
  return 24;
}

/** Total turning angle of the tangent along a stretch of curve, radians. */
function turning(c: BrepCurve, first: number, last: number): number {
  const n = 24;
  const p = Array.from({ length: n + 1 }, (_, i) => curvePoint(c, first + ((last - first) * i) / n));
  let total = 0;
  for (let i = 1; i < n; i++) {
    const a = normalize(sub(p[i]!, p[i - 1]!));
    const b = normalize(sub(p[i + 1]!, p[i]!));
    total += Math.acos(Math.max(-1, Math.min(1, a[0] * b[0] + a[1] * b[1] + a[2] * b[2])));
  }
  return total;
}

function span(knots: number[], degree: number, count: number, u: number): number {
  let lo = degree;
  let hi = count;
  if (u >= knots[count]!) {
    let k = count - 1;
    while (k > degree && knots[k]! >= knots[count]!) k--;
    return k;
  }
  while (hi - lo > 1) {
    const mid = (lo + hi) >> 1;
    if (knots[mid]! <= u) lo = mid;
    else hi = mid;
  }
  return lo;
}

/** Non-zero basis functions at `u` (de Boor–Cox). */
function basis(knots: number[], degree: number, k: number, u: number): number[] {
  const n = [1];
  const left: number[] = [0];
  const right: number[] = [0];
  for (let j = 1; j <= degree; j++) {
    left[j] = u - knots[k + 1 - j]!;
    right[j] = knots[k + j]! - u;
    let saved = 0;
    for (let r = 0; r < j; r++) {
      const d = right[r + 1]! + left[j - r]!;
      const t = d === 0 ? 0 : n[r]! / d;
      n[r] = saved + right[r + 1]! * t;
      saved = left[j - r]! * t;
    }
    n[j] = saved;
  }
  return n;
}

function nurbsPoint(c: Nurbs<Vec3>, beyond: number): Vec3 {
  // A closed one goes on where it began: an edge may run over its seam.
  const [from, to] = splineRange(c);
  const u = beyond > to + 1e-9 * (to - from) ? beyond - (to - from) : beyond;
  const k = span(c.knots, c.degree, c.poles.length, u);
  const n = basis(c.knots, c.degree, k, u);
  let p: Vec3 = [0, 0, 0];
  let w = 0;
  for (let i = 0; i <= c.degree; i++) {
    const index = k - c.degree + i;
    const f = n[i]! * (c.weights ? c.weights[index]! : 1);
    p = along(p, c.poles[index]!, f);
    w += f;
  }
  return scale(p, 1 / w);
}

function nurbsSurfacePoint(s: NurbsSurface, u: number, v: number): Vec3 {
  const ku = span(s.knotsU, s.degreeU, s.poles.length, u);
  const kv = span(s.knotsV, s.degreeV, s.poles[0]!.length, v);
  const nu = basis(s.knotsU, s.degreeU, ku, u);
  const nv = basis(s.knotsV, s.degreeV, kv, v);
  let p: Vec3 = [0, 0, 0];
  let w = 0;
  for (let i = 0; i <= s.degreeU; i++) {
    for (let j = 0; j <= s.degreeV; j++) {
      const [a, b] = [ku - s.degreeU + i, kv - s.degreeV + j];
      const f = nu[i]! * nv[j]! * (s.weights ? s.weights[a]![b]! : 1);
      p = along(p, s.poles[a]![b]!, f);
      w += f;
    }
  }
  return scale(p, 1 / w);
}

export interface SurfaceDomain {
  u: [number, number];
  v: [number, number];
  /** It goes on beyond `v`. */
  openV?: true;
  point(u: number, v: number): Vec3;
}

/** A surface without a name of its own as point(u, v) over a finite domain; null where it is unbounded in a way that cannot be sampled. */
export function surfaceDomain(s: BrepSurface): SurfaceDomain | null {
  if (s.kind === 'nurbs') {
    const { nurbs } = s;
    return {
      u: [nurbs.knotsU[nurbs.degreeU]!, nurbs.knotsU[nurbs.poles.length]!],
      v: [nurbs.knotsV[nurbs.degreeV]!, nurbs.knotsV[nurbs.poles[0]!.length]!],
      point: (u, v) => nurbsSurfacePoint(nurbs, u, v),
    };
  }
  if (s.kind === 'extrusion') {
    const range = s.range ?? curveRange(s.basis);
    return (
      range && {
        u: range,
        v: [0, 10],
        openV: true,
        point: (u, v) => along(curvePoint(s.basis, u), s.direction, v),
      }
    );
  }
  if (s.kind === 'revolution') {
    const range = s.range ?? curveRange(s.basis);
    return (
      range && {
        u: [0, 2 * Math.PI],
        v: range,
        point: (u, v) => rotate(curvePoint(s.basis, v), s.origin, s.axis, u),
      }
    );
  }
  if (s.kind === 'offset') {
    const base = surfaceDomain(s.basis);
    return (
      base && { ...base, point: (u, v) => along(base.point(u, v), domainNormal(base, u, v), s.distance) }
    );
  }
  return null;
}

/** Of a line so much as shows which surface comes of it. */
const curveRange = (c: BrepCurve): [number, number] | null => (c.kind === 'line' ? [0, 10] : wholeRange(c));

/** Along a side that is one point (the apex of a cone, the pole of a sphere) a step goes nowhere: shorter than this share of the other. */
const POLE = 1e-7;

/** Unit dU×dV by central differences, kept inside the domain; nought at a pole, where the surface has no normal of its own. */
export function domainNormal(d: SurfaceDomain, u: number, v: number): Vec3 {
  const step = ([from, to]: [number, number], t: number, isOpen: boolean): [number, number] => {
    const h = (to - from) * 1e-4;
    return isOpen ? [t - h, t + h] : [Math.max(from, t - h), Math.min(to, t + h)];
  };
  const [u0, u1] = step(d.u, u, false);
  const [v0, v1] = step(d.v, v, d.openV === true);
  const du = sub(d.point(u1, v), d.point(u0, v));
  const dv = sub(d.point(u, v1), d.point(u, v0));
  // What is left of such a step is noise of the arithmetic, and its direction means nothing.
  if (length(du) < POLE * length(dv) || length(dv) < POLE * length(du)) return [0, 0, 0];
  return normalize(cross(du, dv));
}

/** `p` turned about the line by `angle` radians (Rodrigues). */
function rotate(p: Vec3, origin: Vec3, axis: Vec3, angle: number): Vec3 {
  const d = sub(p, origin);
  const k = axis[0] * d[0] + axis[1] * d[1] + axis[2] * d[2];
  const turned = add(
    add(scale(d, Math.cos(angle)), scale(cross(axis, d), Math.sin(angle))),
    scale(axis, k * (1 - Math.cos(angle))),
  );
  return add(origin, turned);
}
