import { dot, length, reject, sub, type Vec3 } from '../geometry/vec.ts';
import type { Pole, Turns } from './close-outline.ts';
import { segmentsPerTurn } from './circle-edge.ts';
import type { Surface } from './solid-model.ts';
import { angleBasis, coneApex } from './surface.ts';
import { insideTest, type Flat } from './triangulate.ts';

/** A flat picture of a surface in which a face's outline can be triangulated. */
export interface Chart {
  unroll(points: Vec3[]): Flat[];
  /** Of a surface that comes back to itself. */
  turns?: Turns;
  /** Changes the proportions of finished outlines for the sake of the triangles. */
  squeeze?(loops: Flat[][]): void;
  /** Extra inner points where the surface bends in two directions. */
  fill?(loops: Flat[][]): Flat[];
}

/**
 * The flat picture that suits a surface: planes as they lie, surfaces of revolution unrolled about their axis. `about`: the axis about which a
 * sphere is unrolled.
 */
export function chartOf(s: Surface, about: Vec3 = [0, 0, 1]): Chart {
  if (s.kind === 'plane' || s.kind === 'freeform') {
    const normal: Vec3 = s.kind === 'plane' ? s.normal : [0, 0, 1];
    const [x, y] = angleBasis(normal);
    return { unroll: (points) => points.map((point) => ({ u: dot(point, x), v: dot(point, y), point })) };
  }
  return revolutionChart(s, about);
}

function revolutionChart(s: Exclude<Surface, { kind: 'plane' | 'freeform' }>, about: Vec3): Chart {
  const axis: Vec3 = s.kind === 'sphere' ? about : s.axis;
  const [ex, ey] = angleBasis(axis);
  const scaleU = s.kind === 'torus' ? s.majorRadius : s.radius || 1;
  const doubly = s.kind === 'torus' || s.kind === 'sphere';
  const tube = s.kind === 'torus' ? s.minorRadius : s.kind === 'sphere' ? s.radius : 0;
  const turn = 2 * Math.PI * scaleU;
  const apex = s.kind === 'cone' ? coneApex(s) : null;
  const [o, [ax, ay, az]] = [s.origin, axis];
  const height = (p: Vec3): number => {
    const h = (p[0] - o[0]) * ax + (p[1] - o[1]) * ay + (p[2] - o[2]) * az;
    if (!doubly) return h;
    const d = sub(p, o);
    if (s.kind === 'torus') return tube * Math.atan2(h, length(reject(d, axis)) - s.majorRadius);
    return tube * Math.asin(Math.max(-1, Math.min(1, h / tube)));
  };
  const isPole = (p: Vec3): boolean =>
    (apex !== null && length(sub(p, apex)) < 1e-6) ||
    (s.kind === 'sphere' && length(reject(sub(p, s.origin), axis)) < 1e-6);
  const angle = (p: Vec3): number => {
    const [x, y, z] = [p[0] - o[0], p[1] - o[1], p[2] - o[2]];
    return scaleU * Math.atan2(x * ey[0] + y * ey[1] + z * ey[2], x * ex[0] + y * ex[1] + z * ex[2]);
  };
  const near = (value: number, reference: number, period: number): number =>
    value + Math.round((reference - value) / period) * period;
  const hasPoles = apex !== null || s.kind === 'sphere';
  const unroll = (points: Vec3[]): Flat[] => {
    if (!hasPoles) return unrollPlainly(points);
    if (points.every(isPole)) return [];
    // A run begins just after a pole: by the time it comes to the pole again, the way round is known.
    const pole = points.findIndex(isPole);
    const start = pole < 0 ? 0 : (pole + 1) % points.length;
    const ring = [...points.slice(start), ...points.slice(0, start)];
    const out: Flat[] = [];
    let u = angle(ring[0]!);
    for (const [i, point] of ring.entries()) {
      if (isPole(point)) {
        // A pole has every angle: it is entered at the last one and left at the next.
        const after = ring.slice(i + 1).find((p) => !isPole(p)) ?? ring[0]!;
        const v = height(point);
        out.push({ u, v, point });
        u = leavePole(u, angle(after), turn, out, point, v);
        continue;
      }
      u = near(angle(point), u, turn);
      out.push({ u, v: height(point), point });
    }
    return out;
  };
  const turnV = s.kind === 'torus' ? 2 * Math.PI * tube : 0;
  const unrollPlainly = (points: Vec3[]): Flat[] => {
    const out: Flat[] = [];
    let [u, v] = [0, 0];
    for (const point of points) {
      const isFirst = out.length === 0;
      u = isFirst ? angle(point) : near(angle(point), u, turn);
      v = isFirst || turnV === 0 ? height(point) : near(height(point), v, turnV);
      out.push({ u, v, point });
    }
    return out;
  };
  const leavePole = (
    from: number,
    to: number,
    period: number,
    out: Flat[],
    point: Vec3,
    v: number,
  ): number => {
    let next = near(to, from, period);
    // Coming back on the seam at the same angle means that the whole turn was gone round.
    if (Math.abs(next - from) < 1e-6) next = from - windingSign(out) * period;
    out.push({ u: next, v, point });
    return next;
  };
  const squeeze = (loops: Flat[][]): void => {
    if (doubly) return;
    // A short picture makes the triangles span few samples round the axis, where the surface bends.
    let [low, high] = [Infinity, -Infinity];
    for (const loop of loops) for (const { v } of loop) [low, high] = [Math.min(low, v), Math.max(high, v)];
    const spread = high - low;
    if (spread < 1e-12) return;
    const k = turn / segmentsPerTurn(scaleU) / spread;
    for (const loop of loops) for (const f of loop) f.v *= Math.min(1, k);
  };
  /** The place of the picture in space. */
  const pointAt = (u: number, v: number): Vec3 => {
    const [a, b] = [u / scaleU, v / tube];
    const radius = (s.kind === 'torus' ? s.majorRadius : 0) + tube * Math.cos(b);
    return [0, 1, 2].map(
      (i) =>
        s.origin[i]! + radius * (Math.cos(a) * ex[i]! + Math.sin(a) * ey[i]!) + tube * Math.sin(b) * axis[i]!,
    ) as Vec3;
  };
  const quarter = (Math.PI / 2) * tube;
  const pole = (v: number): Pole => ({ v, point: pointAt(0, v) });
  return {
    unroll,
    squeeze,
    turns: {
      u: turn,
      v: turnV,
      poles:
        s.kind === 'sphere'
          ? { lower: pole(-quarter), upper: pole(quarter) }
          : apex
            ? { lower: { v: height(apex), point: apex } }
            : {},
      between: doubly ? (a, b) => pointsBetween(a, b, scaleU, tube, pointAt) : undefined,
      whole: doubly
        ? (from) => wholeOutline(from, turn, s.kind === 'torus' ? 2 * quarter : quarter, pointAt, s)
        : undefined,
    },
    fill: doubly ? (loops) => gridPoints(loops, s, scaleU, tube, pointAt) : undefined,
  };
}

/** Points of a sphere or torus on the way that is straight in its picture from one place to another, as dense as samples of edges. */
function pointsBetween(
  a: Flat,
  b: Flat,
  scaleU: number,
  tube: number,
  pointAt: (u: number, v: number) => Vec3,
): Flat[] {
  const steps = (way: number, radius: number) =>
    Math.abs(way) / ((2 * Math.PI * radius) / segmentsPerTurn(radius));
  const n = Math.max(1, Math.ceil(Math.max(steps(b.u - a.u, scaleU), steps(b.v - a.v, tube)) - 1e-9));
  return Array.from({ length: n - 1 }, (_, i) => {
    const t = (i + 1) / n;
    const [u, v] = [a.u + t * (b.u - a.u), a.v + t * (b.v - a.v)];
    return { u, v, point: pointAt(u, v) };
  });
}

/** The outline of a whole sphere (from pole to pole) or torus (all round both ways), cut open at `from`. */
function wholeOutline(
  from: number,
  turn: number,
  half: number,
  pointAt: (u: number, v: number) => Vec3,
  s: Surface,
): Flat[] {
  const isTorus = s.kind === 'torus';
  const across = isTorus ? segmentsPerTurn(s.majorRadius) : 1;
  const up = isTorus
    ? segmentsPerTurn(s.minorRadius)
    : Math.ceil(segmentsPerTurn(s.kind === 'sphere' ? s.radius : 1) / 2);
  const side = (
    n: number,
    at: (t: number) => [number, number],
    shown: (t: number) => [number, number],
  ): Flat[] =>
    Array.from({ length: n }, (_, i) => {
      const [u, v] = at(i / n);
      return { u, v, point: pointAt(...shown(i / n)) };
    });
  // Both edges of a cut have the very same points.
  const along = (t: number): [number, number] => [from + t * turn, -half];
  const rise = (t: number): [number, number] => [from, -half + 2 * t * half];
  return [
    ...side(across, along, along),
    ...side(up, (t) => [from + turn, rise(t)[1]], rise),
    ...side(
      across,
      (t) => [along(1 - t)[0], half],
      (t) => along(1 - t),
    ),
    ...side(
      up,
      (t) => rise(1 - t),
      (t) => rise(1 - t),
    ),
  ].map((f) => (isTorus || Math.abs(f.v) < half - 1e-12 ? f : { ...f, point: pointAt(from, f.v) }));
}

/** +1 when the run so far turns toward larger u. */
function windingSign(out: Flat[]): number {
  return Math.sign(out[out.length - 1]!.u - out[0]!.u) || 1;
}

/** Surface points on a regular grid strictly inside the loops of a sphere or torus face. */
function gridPoints(
  loops: Flat[][],
  s: Surface,
  scaleU: number,
  tube: number,
  pointAt: (u: number, v: number) => Vec3,
): Flat[] {
  if (s.kind !== 'torus' && s.kind !== 'sphere') return [];
  const all = loops.flat();
  const [u0, u1] = [Math.min(...all.map((f) => f.u)), Math.max(...all.map((f) => f.u))];
  const [v0, v1] = [Math.min(...all.map((f) => f.v)), Math.max(...all.map((f) => f.v))];
  const stepU = (2 * Math.PI * scaleU) / segmentsPerTurn(scaleU);
  const stepV = (2 * Math.PI * tube) / segmentsPerTurn(tube);
  const inside = insideTest(loops);
  const out: Flat[] = [];
  const margin = 0.3 * Math.min(stepU, stepV);
  for (let v = v0 + stepV; v < v1 - 0.5 * stepV; v += stepV) {
    for (let u = u0 + stepU; u < u1 - 0.5 * stepU; u += stepU) {
      if (
        !inside(u, v) ||
        !inside(u - margin, v) ||
        !inside(u + margin, v) ||
        !inside(u, v - margin) ||
        !inside(u, v + margin)
      )
        continue;
      out.push({ u, v, point: pointAt(u, v) });
    }
  }
  return out;
}
