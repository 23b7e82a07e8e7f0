import { dot, isParallel, isSquare, length, reject, sub, type Vec3 } from '../geometry/vec.ts';
import { outwardNormal } from './surface.ts';
import type { Convexity, Face, SolidModel, Surface } from './solid-model.ts';

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

/** A place in a loop of a face. */
interface Use {
  face: number;
  loop: number;
  at: number;
}

/** Walks the borders: where the next edge of a loop is inside the patch, goes on behind its other use. */
function outline(model: SolidModel, patches: Patch[], ofFace: Int32Array): void {
  const uses: Use[][] = model.edges.map(() => []);
  // The uses are numbered through: where each loop's begin.
  const begins: number[][] = [];
  let count = 0;
  model.faces.forEach((face, f) =>
    begins.push(
      face.loops.map((loop, l) => {
        const begin = count;
        loop.forEach(({ edge }, at) => uses[edge]!.push({ face: f, loop: l, at }));
        count += loop.length;
        return begin;
      }),
    ),
  );
  const numberOf = (u: Use): number => begins[u.face]![u.loop]! + u.at;
  const inside = model.edges.map((_, i) => {
    const [a, b] = uses[i]!;
    return a !== undefined && b !== undefined && ofFace[a.face] === ofFace[b.face];
  });
  const done = new Uint8Array(count);
  model.faces.forEach((face, f) =>
    face.loops.forEach((loop, l) =>
      loop.forEach(({ edge }, at) => {
        let here: Use = { face: f, loop: l, at };
        if (inside[edge] || done[numberOf(here)] === 1) return;
        const run: Border[] = [];
        for (let guard = 0; guard < 4 * model.edges.length; guard++) {
          const number = numberOf(here);
          if (done[number] === 1) break;
          done[number] = 1;
          const half = model.faces[here.face]!.loops[here.loop]![here.at]!;
          const e = model.edges[half.edge]!;
          const beyond = e.faces.find((n) => ofFace[n] !== ofFace[f]);
          run.push({ ...half, other: beyond === undefined ? -1 : ofFace[beyond]!, convexity: e.convexity });
          here = next(here);
          for (let hops = 0; hops < 1000; hops++) {
            const edgeHere = model.faces[here.face]!.loops[here.loop]![here.at]!.edge;
            if (!inside[edgeHere]) break;
            const twin = uses[edgeHere]!.find(
              (u) => u.face !== here.face || u.loop !== here.loop || u.at !== here.at,
            )!;
            here = next(twin);
          }
        }
        patches[ofFace[f]!]!.loops.push(run);
      }),
    ),
  );
  function next(u: Use): Use {
    return { ...u, at: (u.at + 1) % model.faces[u.face]!.loops[u.loop]!.length };
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
