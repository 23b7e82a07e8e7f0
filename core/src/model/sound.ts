import type { Vec3 } from '../geometry/vec.ts';
import {
  boundsOf,
  FARTHEST,
  type Edge,
  type Face,
  type ModelNote,
  type SolidModel,
  type Surface,
} from './solid-model.ts';

const isNumber = (v: unknown): v is number => typeof v === 'number' && Math.abs(v) <= FARTHEST;
const isPoint = (p: unknown): p is Vec3 =>
  Array.isArray(p) && p.length === 3 && isNumber(p[0]) && isNumber(p[1]) && isNumber(p[2]);
const isDirection = (d: unknown): boolean => isPoint(d) && Math.abs(Math.hypot(...d) - 1) < 1e-3;
const isSize = (v: unknown): boolean => isNumber(v) && v > 1e-9;

function isSoundSurface(s: Surface): boolean {
  if (s.kind === 'freeform') return s.mesh.positions.every(isNumber) && s.mesh.normals.every(isNumber);
  if (!isPoint(s.origin)) return false;
  if (s.kind === 'plane') return isDirection(s.normal);
  if (s.kind === 'sphere') return isSize(s.radius);
  if (!isDirection(s.axis)) return false;
  if (s.kind === 'torus') return isNumber(s.majorRadius) && isSize(s.minorRadius);
  // A cone's radius is 0 where its origin is its apex.
  if (s.kind === 'cone') return isNumber(s.radius) && s.semiAngle > 0 && s.semiAngle < Math.PI / 2;
  return isSize(s.radius);
}

function isSoundEdge({ points, curve }: Edge): boolean {
  if (points.length < 2 || !points.every(isPoint)) return false;
  return (
    curve.kind !== 'circle' || (isPoint(curve.centre) && isDirection(curve.axis) && isSize(curve.radius))
  );
}

/**
 * The model without what a damaged file has made of it: edges without points, surfaces without size, numbers that are
 * none. What is taken out is named in the notes, and nothing after this meets it. A sound model comes back as it is.
 * Throws a RangeError where nothing sound is left.
 */
export function soundModel(model: SolidModel): SolidModel {
  const badEdges = new Set(model.edges.flatMap((e, i) => (isSoundEdge(e) ? [] : [i])));
  const badFaces = new Set(model.faces.flatMap((f, i) => (isSoundSurface(f.surface) ? [] : [i])));
  const { min, max } = model.bounds;
  if (badEdges.size === 0 && badFaces.size === 0 && isPoint(min) && isPoint(max)) return model;
  const notes: ModelNote[] = [...model.notes];
  const some = (set: Set<number>): string => [...set].slice(0, 10).join(', ') + (set.size > 10 ? ' …' : '');
  if (badFaces.size > 0)
    notes.push({
      code: 'damaged-face',
      message: `${badFaces.size} faces have surfaces without size or place and were left out: ${some(badFaces)}. Repair the part where it was drawn.`,
    });
  if (badEdges.size > 0)
    notes.push({
      code: 'damaged-edge',
      message: `${badEdges.size} edges have no points or points beyond all measure and were left out: ${some(badEdges)}. Repair the part where it was drawn.`,
    });
  const rest = model.edges.flatMap((e, i) => (badEdges.has(i) ? [] : e.points));
  const freeform = model.faces.flatMap((f, i) => (badFaces.has(i) ? [] : corners(f.surface)));
  if (rest.length + freeform.length === 0) throw new RangeError('nothing of the part is sound');
  const bounds = boundsOf(rest.concat(freeform));
  const nothing: Surface = { kind: 'freeform', mesh: { positions: [], normals: [], triangles: [] } };
  const faces = model.faces.map((f, i): Face => ({
    ...f,
    surface: badFaces.has(i) ? nothing : f.surface,
    loops: badFaces.has(i)
      ? []
      : f.loops.map((l) => l.filter((e) => !badEdges.has(e.edge))).filter((l) => l.length > 0),
  }));
  // Edges keep their numbers; one that is out is a point nobody runs along.
  const at = bounds.min;
  const edges = model.edges.map((e, i): Edge => ({
    ...e,
    ...(badEdges.has(i) ? { curve: { kind: 'line' as const }, points: [at, at] } : {}),
    faces: badEdges.has(i) ? [] : e.faces.filter((f) => !badFaces.has(f)),
    convexity: badEdges.has(i) || e.faces.some((f) => badFaces.has(f)) ? 'open' : e.convexity,
  }));
  const hurt = new Set(
    [...badFaces]
      .concat(model.faces.flatMap((f, i) => (f.loops.flat().some((l) => badEdges.has(l.edge)) ? [i] : [])))
      .map((i) => model.faces[i]!.solid),
  );
  return {
    ...model,
    faces,
    edges,
    solids: model.solids.map((s, i) => (hurt.has(i) ? { ...s, closed: false } : s)),
    bounds,
    notes,
  };
}

function corners(s: Surface): Vec3[] {
  if (s.kind !== 'freeform') return [];
  const { positions: p } = s.mesh;
  return Array.from({ length: Math.floor(p.length / 3) }, (_, i): Vec3 => [
    p[3 * i]!,
    p[3 * i + 1]!,
    p[3 * i + 2]!,
  ]);
}
