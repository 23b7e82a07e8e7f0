import Constrainautor from '@kninnug/constrainautor';
import Delaunator from 'delaunator';
import { cross, dot, length, reject, sub, type Vec3 } from '../geometry/vec.ts';
import { angleBasis, coneApex, outwardNormal } from './surface.ts';
import { segmentsPerTurn } from './circle-edge.ts';
import { loopPoints, type Face, type Loop, type SolidModel, type Surface } from './solid-model.ts';

/** Triangles of a whole model. Corners are not shared between faces, so that edges stay crisp. */
export interface PartMesh {
  /** xyz per corner, mm. */
  positions: Float32Array;
  /** Outward unit normal per corner. */
  normals: Float32Array;
  /** Three corner numbers per triangle, counter-clockwise seen from outside. */
  triangles: Uint32Array;
  /** Face number per triangle. */
  faceOf: Uint32Array;
  /** Faces that could not be meshed. */
  failed: number[];
}

interface Flat {
  u: number;
  v: number;
  point: Vec3;
}

/**
 * Meshes every face from its exact surface. All corners on a face's border are the shared edge samples and none are
 * added or dropped there, so neighbouring faces fit without cracks. Free-form faces bring their own triangles.
 */
export function meshModel(model: SolidModel, only?: (face: Face, index: number) => boolean): PartMesh {
  const positions: number[] = [];
  const normals: number[] = [];
  const triangles: number[] = [];
  const faceOf: number[] = [];
  const failed: number[] = [];
  model.faces.forEach((face, index) => {
    if (only && !only(face, index)) return;
    const base = positions.length / 3;
    const part = face.surface.kind === 'freeform' ? freeform(face) : meshFace(model, face);
    if (!part || part.triangles.length === 0) {
      failed.push(index);
      return;
    }
    for (let i = 0; i < part.points.length; i++) {
      const p = part.points[i]!;
      const n = part.normals[i]!;
      positions.push(p[0], p[1], p[2]);
      normals.push(n[0], n[1], n[2]);
    }
    for (const t of part.triangles) triangles.push(base + t);
    for (let i = 0; i < part.triangles.length; i += 3) faceOf.push(index);
  });
  return {
    positions: Float32Array.from(positions),
    normals: Float32Array.from(normals),
    triangles: Uint32Array.from(triangles),
    faceOf: Uint32Array.from(faceOf),
    failed,
  };
}

interface FaceMesh {
  points: Vec3[];
  normals: Vec3[];
  triangles: number[];
}

function freeform(face: Face): FaceMesh | null {
  if (face.surface.kind !== 'freeform') return null;
  const { positions, normals, triangles } = face.surface.mesh;
  const at = (a: number[], i: number): Vec3 => [a[3 * i]!, a[3 * i + 1]!, a[3 * i + 2]!];
  const n = positions.length / 3;
  return {
    points: Array.from({ length: n }, (_, i) => at(positions, i)),
    normals: Array.from({ length: n }, (_, i) => at(normals, i)),
    triangles,
  };
}

function meshFace(model: SolidModel, face: Face): FaceMesh | null {
  const chart = chartOf(face.surface);
  const loops = face.loops.map((l) => chart.unroll(closedPoints(model, l))).filter((l) => l.length >= 3);
  if (loops.length === 0) return null;
  chart.align?.(loops);
  const flat: Flat[] = [];
  const constraints: [number, number][] = [];
  for (const loop of loops) {
    const start = flat.length;
    flat.push(...loop);
    for (let i = 0; i < loop.length; i++) constraints.push([start + i, start + ((i + 1) % loop.length)]);
  }
  const border = flat.length;
  flat.push(...(chart.fill?.(loops) ?? []));
  const triangles = triangulate(flat, constraints, loops, border);
  if (!triangles) return null;
  const normals = flat.map((f) => outwardNormal(face, f.point));
  orient(flat, triangles, normals);
  return { points: flat.map((f) => f.point), normals, triangles };
}

/** Loop points; a loop that is one full circle of two-point chords still has at least three. */
const closedPoints = (model: SolidModel, loop: Loop): Vec3[] => loopPoints(model, loop);

/** Constrained Delaunay triangles inside the loops (even-odd); null when the outline crosses itself. */
function triangulate(flat: Flat[], constraints: [number, number][], loops: Flat[][], border: number): number[] | null {
  if (flat.length === 3) return [0, 1, 2];
  // Coinciding points (seams folded at a pole) would break the triangulation: they share one corner.
  const canonical = mergeCoincident(flat);
  const coords = new Float64Array(flat.length * 2);
  flat.forEach((f, i) => {
    coords[2 * i] = f.u;
    coords[2 * i + 1] = f.v;
  });
  const d = new Delaunator(coords);
  try {
    const c = new Constrainautor(d);
    for (const [a, b] of constraints) {
      const [p, q] = [canonical[a]!, canonical[b]!];
      if (p !== q) c.constrainOne(p, q);
    }
  } catch {
    return earFan(flat, loops, border);
  }
  const inside = insideTest(loops);
  const out: number[] = [];
  const t = d.triangles;
  for (let i = 0; i < t.length; i += 3) {
    const a = t[i]!;
    const b = t[i + 1]!;
    const c = t[i + 2]!;
    const u = (coords[2 * a]! + coords[2 * b]! + coords[2 * c]!) / 3;
    const v = (coords[2 * a + 1]! + coords[2 * b + 1]! + coords[2 * c + 1]!) / 3;
    if (inside(u, v)) out.push(a, b, c);
  }
  return out;
}

function mergeCoincident(flat: Flat[]): Uint32Array {
  const columns = new Map<number, number[]>();
  const out = new Uint32Array(flat.length);
  for (let i = 0; i < flat.length; i++) {
    const u = Math.round(flat[i]!.u * 1e7);
    const v = flat[i]!.v;
    let column = columns.get(u);
    if (!column) columns.set(u, (column = []));
    let known = i;
    for (const k of column) if (Math.abs(flat[k]!.v - v) < 1e-7) known = k;
    if (known === i) column.push(i);
    out[i] = known;
  }
  return out;
}

/** Last resort for an outline that touches itself: a fan over a single convex-like loop. */
function earFan(flat: Flat[], loops: Flat[][], border: number): number[] | null {
  if (loops.length !== 1 || border !== flat.length) return null;
  const out: number[] = [];
  for (let i = 1; i + 1 < border; i++) out.push(0, i, i + 1);
  return out;
}

/** Even-odd point-in-loops test with the segments sorted into horizontal bands, so that plates with many holes stay quick. */
function insideTest(loops: Flat[][]): (u: number, v: number) => boolean {
  let [lo, hi, count] = [Infinity, -Infinity, 0];
  for (const loop of loops) {
    for (const f of loop) {
      lo = Math.min(lo, f.v);
      hi = Math.max(hi, f.v);
      count++;
    }
  }
  const bandCount = Math.max(1, Math.min(8192, Math.ceil(Math.sqrt(count) * 8)));
  const height = (hi - lo || 1) / bandCount;
  // Per band: u and v of both ends of each segment that reaches into it.
  const bands: number[][] = Array.from({ length: bandCount }, () => []);
  const last = bandCount - 1;
  for (const loop of loops) {
    for (let i = 0; i < loop.length; i++) {
      const a = loop[i]!;
      const b = loop[i + 1 === loop.length ? 0 : i + 1]!;
      const from = Math.max(0, Math.min(last, Math.floor((Math.min(a.v, b.v) - lo) / height)));
      const to = Math.max(0, Math.min(last, Math.floor((Math.max(a.v, b.v) - lo) / height)));
      for (let k = from; k <= to; k++) bands[k]!.push(a.u, a.v, b.u, b.v);
    }
  }
  return (u, v) => {
    const s = bands[Math.max(0, Math.min(last, Math.floor((v - lo) / height)))]!;
    let odd = false;
    for (let i = 0; i < s.length; i += 4) {
      if (s[i + 1]! > v !== s[i + 3]! > v && u < s[i]! + ((v - s[i + 1]!) / (s[i + 3]! - s[i + 1]!)) * (s[i + 2]! - s[i]!)) odd = !odd;
    }
    return odd;
  };
}

/** Turns each triangle so that it faces outward. */
function orient(flat: Flat[], triangles: number[], normals: Vec3[]): void {
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!];
    const n = cross(sub(flat[b]!.point, flat[a]!.point), sub(flat[c]!.point, flat[a]!.point));
    if (dot(n, normals[a]!) + dot(n, normals[b]!) + dot(n, normals[c]!) < 0) [triangles[i + 1], triangles[i + 2]] = [c, b];
  }
}

/** A flat picture of a surface in which a face's outline can be triangulated. */
interface Chart {
  unroll(points: Vec3[]): Flat[];
  /** Brings loops of a closed surface next to each other by whole turns. */
  align?(loops: Flat[][]): void;
  /** Extra inner points where the surface bends in two directions. */
  fill?(loops: Flat[][]): Flat[];
}

function chartOf(s: Surface): Chart {
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
  const isPole = (p: Vec3): boolean => (apex !== null && length(sub(p, apex)) < 1e-6) || (s.kind === 'sphere' && length(reject(sub(p, s.origin), axis)) < 1e-6);
  const angle = (p: Vec3): number => {
    const d = sub(p, s.origin);
    return scaleU * Math.atan2(dot(d, ey), dot(d, ex));
  };
  const near = (value: number, reference: number, period: number): number => value + Math.round((reference - value) / period) * period;
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
  const leavePole = (from: number, to: number, period: number, out: Flat[], point: Vec3, v: number): number => {
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
  const round = loops.filter((l) => Math.abs(winding(l)) > 0.75 * turn && Math.abs(l[0]!.u - l[l.length - 1]!.u) > 0.5 * turn);
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
function gridPoints(loops: Flat[][], s: Surface, axis: Vec3, ex: Vec3, ey: Vec3, scaleU: number, tube: number): Flat[] {
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
      if (!inside(u, v) || !inside(u - margin, v) || !inside(u + margin, v) || !inside(u, v - margin) || !inside(u, v + margin)) continue;
      const [a, b] = [u / scaleU, v / tube];
      const radius = s.kind === 'torus' ? s.majorRadius + tube * Math.cos(b) : tube * Math.cos(b);
      const rise = tube * Math.sin(b);
      const point = [0, 1, 2].map((i) => s.origin[i]! + radius * (Math.cos(a) * ex[i]! + Math.sin(a) * ey[i]!) + rise * axis[i]!) as Vec3;
      out.push({ u, v, point });
    }
  }
  return out;
}

/** Polylines of all edges that are worth drawing (no seams, no smooth joins), as flat xyz segment pairs. */
export function edgeSegments(model: SolidModel): { positions: Float32Array; edgeOf: Uint32Array } {
  const positions: number[] = [];
  const edgeOf: number[] = [];
  model.edges.forEach((e, index) => {
    if (e.convexity === 'seam' || e.convexity === 'smooth') return;
    for (let i = 1; i < e.points.length; i++) {
      positions.push(...e.points[i - 1]!, ...e.points[i]!);
      edgeOf.push(index);
    }
  });
  return { positions: Float32Array.from(positions), edgeOf: Uint32Array.from(edgeOf) };
}

/** Area of a mesh, mm². */
export function meshArea(mesh: PartMesh): number {
  let area = 0;
  const p = (i: number): Vec3 => [mesh.positions[3 * i]!, mesh.positions[3 * i + 1]!, mesh.positions[3 * i + 2]!];
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const [a, b, c] = [p(mesh.triangles[t]!), p(mesh.triangles[t + 1]!), p(mesh.triangles[t + 2]!)];
    area += length(cross(sub(b, a), sub(c, a))) / 2;
  }
  return area;
}

/** Volume enclosed by a closed mesh, mm³ (divergence theorem). */
export function meshVolume(mesh: PartMesh): number {
  let six = 0;
  const p = (i: number): Vec3 => [mesh.positions[3 * i]!, mesh.positions[3 * i + 1]!, mesh.positions[3 * i + 2]!];
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    six += dot(p(mesh.triangles[t]!), cross(p(mesh.triangles[t + 1]!), p(mesh.triangles[t + 2]!)));
  }
  return six / 6;
}
