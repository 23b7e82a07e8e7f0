import type { Vec3 } from '../geometry/vec.ts';
import { at } from '../lists.ts';

export interface Placement {
  origin: Vec3;
  z: Vec3;
  x: Vec3;
  y: Vec3;
}

export interface Nurbs<P> {
  degree: number;
  poles: P[];
  weights: number[] | null;
  /** Flat knot vector with multiplicities written out. */
  knots: number[];
}

export type BrepCurve =
  | { kind: 'line'; origin: Vec3; direction: Vec3 }
  | { kind: 'circle'; at: Placement; radius: number }
  | { kind: 'ellipse'; at: Placement; major: number; minor: number }
  | { kind: 'parabola'; at: Placement; focal: number }
  | { kind: 'hyperbola'; at: Placement; major: number; minor: number }
  | { kind: 'nurbs'; nurbs: Nurbs<Vec3> }
  | { kind: 'offset'; distance: number; direction: Vec3; basis: BrepCurve }
  | { kind: 'chain'; pieces: CurvePiece[]; closed: boolean };

/** Where a spline begins and ends. */
export const splineRange = (n: Pick<Nurbs<unknown>, 'degree' | 'poles' | 'knots'>): [number, number] => [
  at(n.knots, n.degree),
  at(n.knots, n.poles.length),
];

/** All of a curve that has ends, or comes back to where it began; null where it goes on for ever. */
export function wholeRange(c: BrepCurve): [number, number] | null {
  if (c.kind === 'circle' || c.kind === 'ellipse') return [0, 2 * Math.PI];
  if (c.kind === 'chain') return [0, c.pieces.length];
  return c.kind === 'nurbs' ? splineRange(c.nurbs) : null;
}

/** A stretch of a curve, run toward larger parameters. */
export interface CurvePiece {
  curve: BrepCurve;
  first: number;
  last: number;
}

export interface NurbsSurface {
  degreeU: number;
  degreeV: number;
  /** Rows along U, each a list along V. */
  poles: Vec3[][];
  weights: number[][] | null;
  knotsU: number[];
  knotsV: number[];
}

/**
 * What a surface is swept from: a curve, and the stretch of it where the file trims it. A circle that is turned about a line through its middle
 * makes a ball twice over, once inside out: only the stretch tells which of the two is meant.
 */
export interface Swept {
  basis: BrepCurve;
  range?: [number, number];
}

export type BrepSurface =
  | { kind: 'plane'; at: Placement }
  | { kind: 'cylinder'; at: Placement; radius: number }
  | { kind: 'cone'; at: Placement; radius: number; semiAngle: number }
  | { kind: 'sphere'; at: Placement; radius: number }
  | { kind: 'torus'; at: Placement; major: number; minor: number }
  | ({ kind: 'extrusion'; direction: Vec3 } & Swept)
  | ({ kind: 'revolution'; origin: Vec3; axis: Vec3 } & Swept)
  | { kind: 'nurbs'; nurbs: NurbsSurface }
  | { kind: 'offset'; distance: number; basis: BrepSurface };
