import { dot, length, reject, sub, type Vec3 } from '../geometry/vec.ts';
import { segmentsPerTurn } from './circle-edge.ts';
import type { Surface } from './solid-model.ts';
import { angleBasis, coneApex } from './surface.ts';
import { insideTest, type Flat } from './triangulate.ts';

/** A flat picture of a surface in which a face's outline can be triangulated. */
export interface Chart {
  unroll(points: Vec3[]): Flat[];
  /** Brings loops of a closed surface next to each other by whole turns. */
  align?(loops: Flat[][]): void;
  /** Extra inner points where the surface bends in two directions. */
  fill?(loops: Flat[][]): Flat[];
}

/** The flat picture that suits a surface: planes as they lie, surfaces of revolution unrolled about their axis. */
export function chartOf(s: Surface): Chart {
  if (s.kind === 'plane' || s.kind === 'freeform') {
    const normal: Vec3 = s.kind === 'plane' ? s.normal : [0, 0, 1];
    const [x, y] = angleBasis(normal);
    return { unroll: (points) => points.map((point) => ({ u: dot(point, x), v: dot(point, y), point })) };
  }
  return revolutionChart(s);
}

function revolutionChart(s: Exclude<Surface, { kind: 'plane' | 'freeform' }>): Chart {
  const axis: Vec3 = s.kind === 'sphere' ? [0, 0, 1] : s.axis;
  const [ex, ey] = angleBasis(axis);
  const scaleU = s.kind === 'torus' ? s.majorRadius : s.radius || 1;
  const doubly = s.kind === 'torus' || s.kind === 'sphere';
  const tube = s.kind === 'torus' ? s.minorRadius : s.kind === 'sphere' ? s.radius : 0;
  const turn = 2 * Math.PI * scaleU;
  const apex = s.kind === 'cone' ? coneApex(s) : null;
  const height = (p: Vec3): number => {
    const d = sub(p, s.origin);
    const h = dot(d, axis);
    if (s.kind === 'torus') return tube * Math.atan2(h, length(reject(d, axis)) - s.majorRadius);
    if (s.kind === 'sphere') return tube * Math.asin(Math.max(-1, Math.min(1, h / s.radius)));
    return h;
  };
  const isPole = (p: Vec3): boolean =>
    (apex !== null && length(sub(p, apex)) < 1e-6) ||
    (s.kind === 'sphere' && length(reject(sub(p, s.origin), axis)) < 1e-6);
  const angle = (p: Vec3): number => {
    const d = sub(p, s.origin);
    return scaleU * Math.atan2(dot(d, ey), dot(d, ex));
  };
  const near = (value: number, reference: number, period: number): number =>
    value + Math.round((reference - value) / period) * period;
  const unroll = (points: Vec3[]): Flat[] => {
    if (points.every(isPole)) return [];
    // A run begins just after a pole: by the time it comes to the pole again, the way round is known.
    const pole = points.findIndex(isPole);
    const start = pole < 0 ? 0 : (pole + 1) % points.length;
    const ring = [...points.slice(start), ...points.slice(0, start)];
    const out: Flat[] = [];
    let [u, v] = [angle(ring[0]!), height(ring[0]!)];
    for (const [i, point] of ring.entries()) {
      if (isPole(point)) {
        // A pole has every angle: it is entered at the last one and left at the next.
        const after = ring.slice(i + 1).find((p) => !isPole(p)) ?? ring[0]!;
        v = height(point);
        out.push({ u, v, point });
        u = leavePole(u, angle(after), turn, out, point, v);
        continue;
      }
      u = near(angle(point), u, turn);
      v = s.kind === 'torus' ? near(height(point), v, 2 * Math.PI * tube) : height(point);
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
    const vs = loops.flat().map((f) => f.v);
    const spread = Math.max(...vs) - Math.min(...vs);
    if (spread < 1e-12) return;
    const k = turn / segmentsPerTurn(scaleU) / spread;
    for (const loop of loops) for (const f of loop) f.v *= Math.min(1, k);
  };
  return {
    unroll,
    align: (loops) => {
      const middle = (l: Flat[]) => l.reduce((sum, f) => sum + f.u, 0) / l.length;
      const reference = middle(loops[0]!);
      for (const loop of loops.slice(1)) {
        const shift = near(middle(loop), reference, turn) - middle(loop);
        for (const f of loop) f.u += shift;
      }
      closeBands(loops, turn);
      squeeze(loops);
    },
    fill: doubly ? (loops) => gridPoints(loops, s, axis, ex, ey, scaleU, tube) : undefined,
  };
}

/** +1 when the run so far turns toward larger u. */
function windingSign(out: Flat[]): number {
  return Math.sign(out[out.length - 1]!.u - out[0]!.u) || 1;
}

/**
 * Two loops that each go round the axis (a band without a seam edge) become one outline joined by a cut;
 * loops inside stay as they are.
 */
function closeBands(loops: Flat[][], turn: number): void {
  const winding = (l: Flat[]): number => {
    let sum = 0;
    for (let i = 1; i < l.length; i++) sum += l[i]!.u - l[i - 1]!.u;
    return sum;
  };
  const round = loops.filter(
    (l) => Math.abs(winding(l)) > 0.75 * turn && Math.abs(l[0]!.u - l[l.length - 1]!.u) > 0.5 * turn,
  );
  if (round.length !== 2) return;
  const [a, b] = round as [Flat[], Flat[]];
  const close = (l: Flat[]): Flat[] => [...l, { ...l[0]!, u: l[0]!.u + Math.sign(winding(l)) * turn }];
  const first = close(a);
  let second = close(b);
  if (Math.sign(winding(a)) === Math.sign(winding(b))) second = second.reverse();
  const shift = first[first.length - 1]!.u - second[0]!.u;
  const step = Math.abs(first[1]!.u - first[0]!.u);
  if (Math.abs(shift) > 2 * step) for (const f of second) f.u += Math.round(shift / turn) * turn;
  loops.splice(loops.indexOf(b), 1);
  loops[loops.indexOf(a)] = [...first, ...second];
}

/** Surface points on a regular grid strictly inside the loops of a sphere or torus face. */
function gridPoints(
  loops: Flat[][],
  s: Surface,
  axis: Vec3,
  ex: Vec3,
  ey: Vec3,
  scaleU: number,
  tube: number,
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
      const [a, b] = [u / scaleU, v / tube];
      const radius = s.kind === 'torus' ? s.majorRadius + tube * Math.cos(b) : tube * Math.cos(b);
      const rise = tube * Math.sin(b);
      const point = [0, 1, 2].map(
        (i) => s.origin[i]! + radius * (Math.cos(a) * ex[i]! + Math.sin(a) * ey[i]!) + rise * axis[i]!,
      ) as Vec3;
      out.push({ u, v, point });
    }
  }
  return out;
}
