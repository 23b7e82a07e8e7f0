import Constrainautor from '@kninnug/constrainautor';
import Delaunator from 'delaunator';
import type { Vec3 } from '../geometry/vec.ts';

/** A point of a face's border or inside with its place in the face's flat picture, mm. */
export interface Flat {
  u: number;
  v: number;
  point: Vec3;
}

/** Twice the area inside a closed loop of a flat picture, counter-clockwise positive. */
export function signedArea(loop: readonly Flat[]): number {
  let sum = 0;
  for (let i = 0; i < loop.length; i++) {
    const [a, b] = [loop[i]!, loop[i + 1 === loop.length ? 0 : i + 1]!];
    sum += a.u * b.v - b.u * a.v;
  }
  return sum;
}

/**
 * Makes coordinates equal that differ by no more than rounding. The samples of a rim square to its axis lie on one line of the picture; where
 * they lie on it but for the last digits, slivers are put between them that are flat in the picture and chords across the rim in space. On an
 * exact line there are none.
 */
export function level(loops: Flat[][], rounding: number): void {
  for (const key of ['u', 'v'] as const) {
    const kept = new Map<number, number>();
    for (const loop of loops)
      for (const f of loop) {
        const cell = Math.round(f[key] / rounding);
        const near = kept.get(cell) ?? kept.get(cell - 1) ?? kept.get(cell + 1);
        if (near === undefined) kept.set(cell, f[key]);
        else f[key] = near;
      }
  }
}

/**
 * Triangles of what lies inside the loops (even-odd) of a flat picture, counter-clockwise in it, with its corners: those of the loops in order,
 * none added or dropped, then the inner points. Null when an outline crosses itself.
 */
export function triangulateOutline(
  loops: Flat[][],
  inner: readonly Flat[],
): { flat: Flat[]; triangles: number[] } | null {
  const strip = loops.length === 1 && inner.length === 0 ? stripOf(loops[0]!) : null;
  if (strip) return { flat: loops[0]!, triangles: strip };
  const flat: Flat[] = [];
  // The corner that each one's side runs to; of inner points, which have no side, -1.
  const next = new Int32Array(loops.reduce((n, l) => n + l.length, inner.length)).fill(-1);
  for (const loop of loops) {
    const start = flat.length;
    for (const f of loop) flat.push(f);
    for (let i = 0; i < loop.length; i++) next[start + i] = start + ((i + 1) % loop.length);
  }
  const border = flat.length;
  for (const f of inner) flat.push(f);
  const triangles = triangulate(flat, next, loops, border);
  return triangles && { flat, triangles };
}

/** Turns each triangle so that it is run the other way round. */
export function turnRound(triangles: number[]): void {
  for (let i = 0; i < triangles.length; i += 3)
    [triangles[i + 1], triangles[i + 2]] = [triangles[i + 2]!, triangles[i + 1]!];
}

/**
 * Triangles of an outline between two level lines, as a bore's wall has them: one run along the lower, one back along the upper, zipped
 * together. Null for any other outline.
 */
function stripOf(loop: Flat[]): number[] | null {
  const n = loop.length;
  let [low, high] = [Infinity, -Infinity];
  for (const f of loop) [low, high] = [Math.min(low, f.v), Math.max(high, f.v)];
  if (!(high > low)) return null;
  let start = -1;
  for (let i = 0; i < n; i++) {
    const f = loop[i]!;
    if (f.v !== low && f.v !== high) return null;
    if (f.v === low && loop[(i + n - 1) % n]!.v === high) {
      // Come to the lower line twice, it is no strip.
      if (start >= 0) return null;
      start = i;
    }
  }
  const lower: number[] = [];
  const upper: number[] = [];
  for (let k = 0; k < n; k++) {
    const i = (start + k) % n;
    (loop[i]!.v === low ? lower : upper).push(i);
  }
  if (start < 0) return null;
  const sense = Math.sign(loop[lower[lower.length - 1]!]!.u - loop[lower[0]!]!.u);
  upper.reverse();
  const isRun = (run: number[]) =>
    run.every((i, k) => k === 0 || (loop[i]!.u - loop[run[k - 1]!]!.u) * sense > 0);
  if (sense === 0 || !isRun(lower) || !isRun(upper)) return null;
  const out: number[] = [];
  const add = (a: number, b: number, c: number) => (sense > 0 ? out.push(a, b, c) : out.push(a, c, b));
  let [i, j] = [0, 0];
  while (i + 1 < lower.length || j + 1 < upper.length) {
    const [a, b] = [lower[i + 1], upper[j + 1]];
    // The nearer corner next, so that triangles stay short.
    const isLower = a !== undefined && (b === undefined || (loop[a]!.u - loop[b]!.u) * sense <= 0);
    if (isLower) {
      add(lower[i]!, a, upper[j]!);
      i++;
    } else {
      add(lower[i]!, b!, upper[j]!);
      j++;
    }
  }
  return out;
}

/**
 * Constrained Delaunay triangles (Delaunator's are clockwise where v points up, and are turned round) inside the loops (even-odd); null when the
 * outline crosses itself.
 */
function triangulate(flat: Flat[], next: Int32Array, loops: Flat[][], border: number): number[] | null {
  if (flat.length === 3) return signedArea(flat) >= 0 ? [0, 1, 2] : [0, 2, 1];
  const coords = new Float64Array(flat.length * 2);
  flat.forEach((f, i) => {
    coords[2 * i] = f.u;
    coords[2 * i + 1] = f.v;
  });
  const d = new Delaunator(coords);
  const quick = byParity(d, coords, next);
  if (quick) return quick;
  // Coinciding points (seams folded at a pole) would break the triangulation: they share one corner.
  const canonical = mergeCoincident(flat);
  try {
    const c = new Constrainautor(d);
    for (let i = 0; i < border; i++) {
      const [p, q] = [canonical[i]!, canonical[next[i]!]!];
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
    if (inside(u, v)) out.push(a, c, b);
  }
  return out;
}

/** Corners nearer than this are one, mm. */
const COINCIDENT = 2e-7;

/**
 * The triangles inside, counted from the hull inward: over each side of an outline it is inside or outside anew. Only where all sides are sides
 * of triangles as they are and no two corners are one, as in nearly every face; null elsewhere.
 */
function byParity(
  { triangles, halfedges }: Delaunator<Float64Array>,
  coords: Float64Array,
  next: Int32Array,
): number[] | null {
  const isUsed = new Uint8Array(next.length);
  const holds = new Uint8Array(next.length);
  for (let e = 0, last = 2; e < triangles.length; e++) {
    const p = triangles[e]!;
    const q = triangles[e === last ? e - 2 : e + 1]!;
    if (e === last) last += 3;
    const u = coords[2 * p]! - coords[2 * q]!;
    const v = coords[2 * p + 1]! - coords[2 * q + 1]!;
    if (u * u + v * v < COINCIDENT * COINCIDENT) return null;
    isUsed[p] = 1;
    if (next[p] === q) holds[p] = 1;
    else if (next[q] === p) holds[q] = 1;
  }
  for (let i = 0; i < next.length; i++) if (isUsed[i] === 0 || (next[i]! >= 0 && holds[i] === 0)) return null;
  const hull = halfedges.indexOf(-1);
  if (hull < 0) return null;
  const UNKNOWN = 2;
  const parity = new Uint8Array(triangles.length / 3).fill(UNKNOWN);
  const isSide = (e: number): number => {
    const [p, q] = [triangles[e]!, triangles[e % 3 === 2 ? e - 2 : e + 1]!];
    return next[p] === q || next[q] === p ? 1 : 0;
  };
  const first = Math.floor(hull / 3);
  parity[first] = isSide(hull);
  const rest = [first];
  for (let t = rest.pop(); t !== undefined; t = rest.pop())
    for (let e = 3 * t; e < 3 * t + 3; e++) {
      const beyond = halfedges[e]!;
      if (beyond < 0) continue;
      const neighbour = Math.floor(beyond / 3);
      if (parity[neighbour] !== UNKNOWN) continue;
      parity[neighbour] = parity[t]! ^ isSide(e);
      rest.push(neighbour);
    }
  const out: number[] = [];
  for (let t = 0; t < parity.length; t++)
    if (parity[t] === 1) out.push(triangles[3 * t]!, triangles[3 * t + 2]!, triangles[3 * t + 1]!);
  return out;
}

/** For each corner the first one that lies where it lies. */
function mergeCoincident(flat: Flat[]): Uint32Array {
  const columns = new Map<number, Map<number, number>>();
  const out = new Uint32Array(flat.length);
  for (let i = 0; i < flat.length; i++) {
    const [u, v] = [Math.round(flat[i]!.u * 1e7), Math.round(flat[i]!.v * 1e7)];
    let column = columns.get(u);
    if (!column) columns.set(u, (column = new Map()));
    const known = column.get(v) ?? column.get(v - 1) ?? column.get(v + 1);
    if (known === undefined) column.set(v, i);
    out[i] = known ?? i;
  }
  return out;
}

/** Last resort for an outline that touches itself: a fan over a single convex-like loop. */
function earFan(flat: Flat[], loops: Flat[][], border: number): number[] | null {
  if (loops.length !== 1 || border !== flat.length) return null;
  const out: number[] = [];
  for (let i = 1; i + 1 < border; i++)
    out.push(...(signedArea([flat[0]!, flat[i]!, flat[i + 1]!]) >= 0 ? [0, i, i + 1] : [0, i + 1, i]));
  return out;
}

/** Even-odd point-in-loops test with the segments sorted into horizontal bands, so that plates with many holes stay quick. */
export function insideTest(loops: Flat[][]): (u: number, v: number) => boolean {
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
      if (
        s[i + 1]! > v !== s[i + 3]! > v &&
        u < s[i]! + ((v - s[i + 1]!) / (s[i + 3]! - s[i + 1]!)) * (s[i + 2]! - s[i]!)
      )
        odd = !odd;
    }
    return odd;
  };
}
