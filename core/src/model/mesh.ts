import Constrainautor from '@kninnug/constrainautor';
import Delaunator from 'delaunator';
import { cross, dot, length, sub, type Vec3 } from '../geometry/vec.ts';
import { chartOf, insideTest, type Flat } from './chart.ts';
import { loopPoints, type Face, type SolidModel } from './solid-model.ts';
import { outwardNormal } from './surface.ts';

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
  const loops = face.loops.map((l) => chart.unroll(loopPoints(model, l))).filter((l) => l.length >= 3);
  if (loops.length === 0) return null;
  chart.align?.(loops);
  level(loops, 'u');
  level(loops, 'v');
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

/** Chart coordinates nearer than this are one, mm: far above rounding, far below any distance between samples. */
const LEVEL = 1e-8;

/**
 * Makes coordinates equal that differ by rounding alone. The samples of a rim square to its axis lie on one line of
 * the chart; where they lie on it but for the last digit, slivers are put between them that are flat in the chart
 * and chords across the rim in space. On an exact line there are none.
 */
function level(loops: Flat[][], key: 'u' | 'v'): void {
  const sorted = loops.flat().sort((a, b) => a[key] - b[key]);
  let kept = -Infinity;
  for (const f of sorted) {
    if (f[key] - kept < LEVEL) f[key] = kept;
    else kept = f[key];
  }
}

/** Constrained Delaunay triangles inside the loops (even-odd); null when the outline crosses itself. */
function triangulate(
  flat: Flat[],
  constraints: [number, number][],
  loops: Flat[][],
  border: number,
): number[] | null {
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

/** Turns each triangle so that it faces outward. */
function orient(flat: Flat[], triangles: number[], normals: Vec3[]): void {
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!];
    const n = cross(sub(flat[b]!.point, flat[a]!.point), sub(flat[c]!.point, flat[a]!.point));
    if (dot(n, normals[a]!) + dot(n, normals[b]!) + dot(n, normals[c]!) < 0)
      [triangles[i + 1], triangles[i + 2]] = [c, b];
  }
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
  const p = (i: number): Vec3 => [
    mesh.positions[3 * i]!,
    mesh.positions[3 * i + 1]!,
    mesh.positions[3 * i + 2]!,
  ];
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const [a, b, c] = [p(mesh.triangles[t]!), p(mesh.triangles[t + 1]!), p(mesh.triangles[t + 2]!)];
    area += length(cross(sub(b, a), sub(c, a))) / 2;
  }
  return area;
}

/** Volume enclosed by a closed mesh, mm³ (divergence theorem). */
export function meshVolume(mesh: PartMesh): number {
  let six = 0;
  const p = (i: number): Vec3 => [
    mesh.positions[3 * i]!,
    mesh.positions[3 * i + 1]!,
    mesh.positions[3 * i + 2]!,
  ];
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    six += dot(p(mesh.triangles[t]!), cross(p(mesh.triangles[t + 1]!), p(mesh.triangles[t + 2]!)));
  }
  return six / 6;
}
