import { add, cross, scale, sub, type Vec3 } from '../geometry/vec.ts';
import { angleBasis } from '../model/surface.ts';
import type { SolidModel } from '../model/solid-model.ts';
import type { CurvePiece } from './base.ts';
import type { Feature } from './family.ts';

/** Lines in space that show a feature which is no single point: edges, centre lines, rings. Empty for features that a pin shows. */
export function featureCurves(f: Feature, model: SolidModel): Vec3[][] {
  if ('edges' in f) return f.edges.flatMap((e) => (model.edges[e] ? [model.edges[e].points] : []));
  if ('centreline' in f) return f.centreline.map((p) => piecePoints(p, f.axis));
  if (f.family === 'bore-groove') {
    const [x, y] = angleBasis(f.axis);
    const at = (a: number): Vec3 =>
      add(
        f.centre,
        add(scale(x, (f.grooveDiameter / 2) * Math.cos(a)), scale(y, (f.grooveDiameter / 2) * Math.sin(a))),
      );
    return [Array.from({ length: 49 }, (_, i) => at((i * Math.PI) / 24))];
  }
  return [];
}

/** Both ends of a straight run about its middle. */
export const straightRun = (middle: Vec3, direction: Vec3, length: number): Vec3[] => [
  add(middle, scale(direction, -length / 2)),
  add(middle, scale(direction, length / 2)),
];

/** Points along an exact piece; arcs every 5°. */
export function piecePoints(p: CurvePiece, axis: Vec3): Vec3[] {
  if (p.kind === 'line') return [p.from, p.to];
  const x = sub(p.from, p.centre);
  const y = cross(axis, x);
  const n = Math.max(2, Math.ceil(Math.abs(p.turn) / (Math.PI / 36)));
  return Array.from({ length: n + 1 }, (_, i) => {
    const a = (p.turn * i) / n;
    return add(p.centre, add(scale(x, Math.cos(a)), scale(y, Math.sin(a))));
  });
}
