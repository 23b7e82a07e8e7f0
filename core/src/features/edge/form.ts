import { at as entryAt, first } from '../../lists.ts';
import { dot, type Vec3, isParallel, isSquare } from '../../geometry/vec.ts';
import { borderPoints, extentAlong, type Border } from '../../model/patches.ts';
import { outwardNormal } from '../../model/surface.ts';
import type { RecogniseContext } from '../family.ts';

/** What an edge is: broken by a flat strip, by a round one, or not at all. `drop`: how far the strip reaches down, mm. */
export type EdgeForm =
  | { kind: 'chamfer'; shape: 'plane' | 'cone'; width: number; angle: number; drop: number }
  | { kind: 'rounded'; shape: 'cylinder' | 'torus'; radius: number; width: number; drop: number }
  | { kind: 'sharp'; holeId: string | null };

/** Widest strip that counts as an edge, as a share of the part's diagonal. */
const WIDEST = 0.1;
/** Folds flatter than this are no edges, radians. */
const FLAT_FOLD = 0.43;

export function isSameForm(a: EdgeForm, b: EdgeForm): boolean {
  if (a.kind === 'chamfer' && b.kind === 'chamfer')
    return Math.abs(a.width - b.width) < 5e-3 && Math.abs(a.angle - b.angle) < 0.1;
  if (a.kind === 'rounded' && b.kind === 'rounded') return Math.abs(a.radius - b.radius) < 5e-3;
  return a.kind === 'sharp' && b.kind === 'sharp' && a.holeId === b.holeId;
}

/** The form of one upper edge of the face `top`, which looks along `d`; null where it is none that is cut from there. */
export function stripAt(
  context: RecogniseContext,
  b: Border,
  top: number,
  d: Vec3,
  holes: Map<number, string>,
): EdgeForm | null {
  const { model, graph, claimed } = context;
  const other = entryAt(graph.patches, b.other);
  const hole = holes.get(first(other.faces));
  const s = other.surface;
  if (hole === undefined && !other.faces.some((f) => claimed.has(f))) {
    const strip =
      b.convexity === 'convex'
        ? chamferAt(context, b, d)
        : b.convexity === 'smooth'
          ? roundAt(context, b, top, d)
          : null;
    if (strip) return strip;
  }
  if (b.convexity !== 'convex') return null;
  // A countersink or an entry chamfer breaks the hole's rim already.
  if (hole !== undefined && s.kind === 'cone') return null;
  const points = borderPoints(model, b);
  const at = entryAt(points, Math.floor(points.length / 2));
  const fold = Math.acos(
    Math.max(-1, Math.min(1, dot(outwardNormal(entryAt(model.faces, first(other.faces)), at), d))),
  );
  if (fold < FLAT_FOLD) return null;
  return { kind: 'sharp', holeId: hole ?? null };
}

function chamferAt(context: RecogniseContext, b: Border, d: Vec3): EdgeForm | null {
  const { model, graph } = context;
  const strip = entryAt(graph.patches, b.other);
  const { surface } = strip;
  if (surface.kind !== 'plane' && !(surface.kind === 'cone' && isParallel(surface.axis, d))) return null;
  const points = borderPoints(model, b);
  const tilt = dot(
    outwardNormal(entryAt(model.faces, first(strip.faces)), entryAt(points, Math.floor(points.length / 2))),
    d,
  );
  const angle = Math.acos(Math.max(-1, Math.min(1, tilt)));
  if (angle < 0.17 || angle > 1.4) return null;
  const [low] = extentAlong(model, strip, d);
  const drop = dot(first(points), d) - low;
  if (drop / Math.sin(angle) > WIDEST * diagonal(context)) return null;
  // The strip lies between two convex edges: below it a steeper wall falls away.
  const hasWall = strip.loops.flat().some((c) => {
    if (c.other < 0 || c.convexity !== 'convex' || c.edge === b.edge) return false;
    const p = borderPoints(model, c);
    const wall = entryAt(graph.patches, c.other);
    const down = dot(
      outwardNormal(entryAt(model.faces, first(wall.faces)), entryAt(p, Math.floor(p.length / 2))),
      d,
    );
    return down < tilt - 0.1 && Math.max(...p.map((q) => dot(q, d))) < low + 0.5 * drop;
  });
  if (!hasWall) return null;
  return {
    kind: 'chamfer',
    shape: surface.kind,
    width: drop / Math.tan(angle),
    angle: (angle * 180) / Math.PI,
    drop,
  };
}

function roundAt(context: RecogniseContext, b: Border, top: number, d: Vec3): EdgeForm | null {
  const { model, graph } = context;
  const strip = entryAt(graph.patches, b.other);
  const { surface } = strip;
  if (strip.reversed) return null;
  const radius =
    surface.kind === 'cylinder' && isSquare(surface.axis, d)
      ? surface.radius
      : surface.kind === 'torus' && isParallel(surface.axis, d)
        ? surface.minorRadius
        : null;
  if (radius === null || radius > WIDEST * diagonal(context)) return null;
  const hasWall = strip.loops.flat().some((c) => {
    if (c.other < 0 || c.other === top || c.convexity !== 'smooth') return false;
    const wall = entryAt(graph.patches, c.other);
    const p = borderPoints(model, c);
    const up = dot(
      outwardNormal(entryAt(model.faces, first(wall.faces)), entryAt(p, Math.floor(p.length / 2))),
      d,
    );
    return wall.surface.kind !== 'torus' && wall.surface.kind !== 'sphere' && Math.abs(up) < 0.02;
  });
  return hasWall
    ? { kind: 'rounded', shape: surface.kind as 'cylinder' | 'torus', radius, width: radius, drop: radius }
    : null;
}

const diagonal = ({ model: { bounds } }: RecogniseContext): number =>
  Math.hypot(bounds.max[0] - bounds.min[0], bounds.max[1] - bounds.min[1], bounds.max[2] - bounds.min[2]);
