import { dot, isParallel, isSquare, length, reject, sub, type Vec3 } from '../geometry/vec.ts';
import { outwardNormal } from './surface.ts';
import type { Convexity, Face, LoopEdge, SolidModel, Surface } from './solid-model.ts';

/** One edge of a patch's outline, in the direction in which the patch lies on its left. */
export interface Border {
  edge: number;
  reversed: boolean;
  /** The patch on its other side; -1 where the shell is open. */
  other: number;
  convexity: Convexity;
}

/** Faces that lie on one surface and touch: files split them for reasons of their own. */
export interface Patch {
  solid: number;
  faces: number[];
  surface: Surface;
  reversed: boolean;
  loops: Border[][];
}

export interface PatchGraph {
  patches: Patch[];
  /** Patch of each face. */
  ofFace: Int32Array;
}

const SAME_PLACE = 2e-3;
const SAME_ANGLE = 1e-3;

/** Joins touching faces of one surface and links the patches through their common edges. Linear in faces and edges. */
export function patchGraph(model: SolidModel): PatchGraph {
  const parent = model.faces.map((_, i) => i);
  const root = (i: number): number => {
    let r = i;
    while (parent[r] !== r) r = parent[r]!;
    while (parent[i] !== r) [parent[i], i] = [r, parent[i]!];
    return r;
  };
  for (const e of model.edges) {
    const [a, b] = e.faces;
    if (a === undefined || b === undefined || e.convexity !== 'smooth') continue;
    if (isSameSurface(model.faces[a]!, model.faces[b]!, e.points)) parent[root(a)] = root(b);
  }
  const ofFace = new Int32Array(model.faces.length);
  const numbers = new Map<number, number>();
  const patches: Patch[] = [];
  model.faces.forEach((face, i) => {
    const r = root(i);
    let n = numbers.get(r);
    if (n === undefined) {
      n = patches.length;
      numbers.set(r, n);
      patches.push({
        solid: face.solid,
        faces: [],
        surface: face.surface,
        reversed: face.reversed,
        loops: [],
      });
    }
    patches[n]!.faces.push(i);
    ofFace[i] = n;
  });
  outline(model, patches, ofFace);
  return { patches, ofFace };
}

/** Uses of edges by faces, numbered through all loops: of each its face, half-edge and the next one round its loop. */
interface Uses {
  face: Int32Array;
  next: Int32Array;
  halves: LoopEdge[];
  /** Of each edge its first and its second use; -1: there is none. */
  first: Int32Array;
  second: Int32Array;
}

function usesOf(model: SolidModel): Uses {
  const count = model.faces.reduce((n, f) => f.loops.reduce((m, l) => m + l.length, n), 0);
  const face = new Int32Array(count);
  const next = new Int32Array(count);
  const first = new Int32Array(model.edges.length).fill(-1);
  const second = new Int32Array(model.edges.length).fill(-1);
  const halves: LoopEdge[] = [];
  model.faces.forEach(({ loops }, f) => {
    for (const loop of loops) {
      const begin = halves.length;
      for (const half of loop) {
        const number = halves.push(half) - 1;
        face[number] = f;
        next[number] = number + 1;
        if (first[half.edge] === -1) first[half.edge] = number;
        else if (second[half.edge] === -1) second[half.edge] = number;
      }
      if (loop.length > 0) next[halves.length - 1] = begin;
    }
  });
  return { face, next, halves, first, second };
}

/** Walks the borders: where the next edge of a loop is inside the patch, goes on behind its other use. */
function outline(model: SolidModel, patches: Patch[], ofFace: Int32Array): void {
  const { face, next, halves, first, second } = usesOf(model);
  const isInside = (edge: number): boolean =>
    second[edge]! >= 0 && ofFace[face[first[edge]!]!] === ofFace[face[second[edge]!]!];
  const done = new Uint8Array(halves.length);
  for (let start = 0; start < halves.length; start++) {
    if (done[start] === 1 || isInside(halves[start]!.edge)) continue;
    const patch = ofFace[face[start]!]!;
    const run: Border[] = [];
    for (let here = start; done[here] === 0;) {
      done[here] = 1;
      const { edge, reversed } = halves[here]!;
      const { faces, convexity } = model.edges[edge]!;
      const beyond = faces.find((n) => ofFace[n] !== patch);
      run.push({ edge, reversed, other: beyond === undefined ? -1 : ofFace[beyond]!, convexity });
      here = next[here]!;
      for (let hops = 0; hops < 1000 && isInside(halves[here]!.edge); hops++) {
        const inner = halves[here]!.edge;
        here = next[first[inner] === here ? second[inner]! : first[inner]!]!;
      }
    }
    patches[patch]!.loops.push(run);
  }
}

/** True where both faces lie on one surface, looked at along their common edge. */
function isSameSurface(a: Face, b: Face, common: Vec3[]): boolean {
  const [s, t] = [a.surface, b.surface];
  if (s.kind !== t.kind || s.kind === 'freeform') return false;
  const p = common[0]!;
  if (dot(outwardNormal(a, p), outwardNormal(b, p)) < Math.cos(0.01)) return false;
  if (s.kind === 'plane')
    return Math.abs(Math.abs(dot(s.normal, (t as typeof s).normal)) - 1) < SAME_ANGLE * SAME_ANGLE;
  if (a.reversed !== b.reversed) return false;
  if (s.kind === 'sphere')
    return (
      t.kind === 'sphere' &&
      Math.abs(s.radius - t.radius) < SAME_PLACE &&
      length(sub(s.origin, t.origin)) < 2 * SAME_PLACE
    );
  if (t.kind === 'plane' || t.kind === 'sphere' || t.kind === 'freeform') return false;
  if (
    Math.abs(dot(s.axis, t.axis)) < 1 - SAME_ANGLE * SAME_ANGLE ||
    length(reject(sub(s.origin, t.origin), s.axis)) > 2 * SAME_PLACE
  )
    return false;
  if (s.kind === 'cylinder' && t.kind === 'cylinder') return Math.abs(s.radius - t.radius) < SAME_PLACE;
  if (s.kind === 'cone' && t.kind === 'cone') return Math.abs(s.semiAngle - t.semiAngle) < SAME_ANGLE;
  return (
    s.kind === 'torus' &&
    t.kind === 'torus' &&
    Math.abs(s.minorRadius - t.minorRadius) < SAME_PLACE &&
    length(sub(s.origin, t.origin)) < 2 * SAME_PLACE
  );
}

/** Points of one border in its own direction. */
export function borderPoints(model: SolidModel, b: Border): Vec3[] {
  const { points } = model.edges[b.edge]!;
  return b.reversed ? [...points].reverse() : points;
}

/** Unit normal of a planar patch, away from the material; null for other surfaces. */
export function planeNormal(p: Patch): Vec3 | null {
  if (p.surface.kind !== 'plane') return null;
  const n = p.surface.normal;
  return p.reversed ? [-n[0], -n[1], -n[2]] : n;
}

/** Lowest and highest place of a patch's outline along a direction, mm. */
export function extentAlong(model: SolidModel, p: Patch, d: Vec3): [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (const loop of p.loops) {
    for (const { edge } of loop) {
      for (const q of model.edges[edge]!.points) {
        const h = dot(q, d);
        if (h < low) low = h;
        if (h > high) high = h;
      }
    }
  }
  return [low, high];
}

/** True for planes and cylinders whose rulings run along `d`. */
export function isWall(p: Patch, d: Vec3): boolean {
  const s = p.surface;
  if (s.kind === 'plane') return isSquare(s.normal, d);
  return s.kind === 'cylinder' && isParallel(s.axis, d);
}
