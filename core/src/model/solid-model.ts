import type { Vec3 } from '../geometry/vec.ts';

/**
 * The neutral boundary model that recognition, meshing and drawing work on. Lengths in mm, angles in radians,
 * coordinates in the part file's frame. Nothing here depends on the geometry kernel.
 */
export type Surface =
  | { kind: 'plane'; origin: Vec3; normal: Vec3 }
  | { kind: 'cylinder'; origin: Vec3; axis: Vec3; radius: number }
  /** `radius` at `origin`; the radius grows by tan(semiAngle) per unit along `axis` (semiAngle > 0). */
  | { kind: 'cone'; origin: Vec3; axis: Vec3; radius: number; semiAngle: number }
  | { kind: 'sphere'; origin: Vec3; radius: number }
  | { kind: 'torus'; origin: Vec3; axis: Vec3; majorRadius: number; minorRadius: number }
  | { kind: 'freeform'; mesh: FreeformMesh };

/** Triangles of a free-form face: flat xyz arrays and corner indices. */
export interface FreeformMesh {
  positions: number[];
  normals: number[];
  triangles: number[];
}

export type Curve =
  | { kind: 'line' }
  | { kind: 'circle'; centre: Vec3; axis: Vec3; radius: number }
  | { kind: 'ellipse' }
  | { kind: 'spline' };

export interface LoopEdge {
  edge: number;
  /** True when the loop runs against the edge's own direction. */
  reversed: boolean;
}

/** A closed run of edges; the face lies on its left, seen from outside the material. */
export type Loop = LoopEdge[];

export interface Face {
  solid: number;
  surface: Surface;
  /**
   * False: the outward normal (away from material) is the surface's own, which for cylinder, cone, sphere and torus
   * points away from the axis or centre (material inside: convex). True: it is reversed (material outside: a hole's wall).
   */
  reversed: boolean;
  loops: Loop[];
  /** Set where an exact surface was recovered from a free-form one. */
  recovered?: boolean;
}

export type Convexity = 'convex' | 'concave' | 'smooth' | 'seam' | 'open';

export interface Edge {
  curve: Curve;
  /** From start to end, on the curve; shared by the meshes of both faces. */
  points: Vec3[];
  faces: number[];
  convexity: Convexity;
  /** Angle between the faces' outward normals, radians. */
  angle: number;
}

/** No part reaches farther from its origin, mm (10 km): numbers beyond come from damaged files. */
export const FARTHEST = 1e7;

export interface Solid {
  name: string;
  /** False where the shell has free edges. */
  closed: boolean;
}

export interface ModelNote {
  code: string;
  message: string;
}

export interface Bounds {
  min: Vec3;
  max: Vec3;
}

/** What the file itself says of some faces, as a print would write it, its lengths in `unit`. */
export interface SaidOfFaces {
  faces: number[];
  text: string;
  unit: 'mm' | 'inch';
}

export interface SolidModel {
  format: 'yellow-pin/solid-model@1';
  name: string;
  sourceUnits: 'mm' | 'inch';
  solids: Solid[];
  faces: Face[];
  edges: Edge[];
  bounds: Bounds;
  notes: ModelNote[];
  /** Where the file says anything. */
  said?: SaidOfFaces[];
}

/** A box that grows by the points that it is given. */
export class GrowingBox {
  private readonly min: Vec3 = [Infinity, Infinity, Infinity];
  private readonly max: Vec3 = [-Infinity, -Infinity, -Infinity];

  add(points: Iterable<Vec3>): this {
    const { min, max } = this;
    for (const [x, y, z] of points) {
      if (x < min[0]) min[0] = x;
      if (x > max[0]) max[0] = x;
      if (y < min[1]) min[1] = y;
      if (y > max[1]) max[1] = y;
      if (z < min[2]) min[2] = z;
      if (z > max[2]) max[2] = z;
    }
    return this;
  }

  /** Null where there was no point. */
  bounds(): Bounds | null {
    const { min, max } = this;
    return min[0] > max[0] ? null : { min: [...min], max: [...max] };
  }
}

/** The box round a set of points; throws on an empty set. */
export function boundsOf(points: Iterable<Vec3>): Bounds {
  const bounds = new GrowingBox().add(points).bounds();
  if (!bounds) throw new RangeError('bounds of no points');
  return bounds;
}

/** Points of a loop in its own direction, without repeating the first point at the end. */
export function loopPoints(model: SolidModel, loop: Loop): Vec3[] {
  const out: Vec3[] = [];
  for (const { edge, reversed } of loop) {
    const pts = model.edges[edge]!.points;
    if (reversed) for (let i = pts.length - 1; i > 0; i--) out.push(pts[i]!);
    else for (let i = 0; i < pts.length - 1; i++) out.push(pts[i]!);
  }
  return out;
}

/** Where an edge of a loop begins or ends, as the loop runs it. */
export function loopEnd(
  model: Pick<SolidModel, 'edges'>,
  { edge, reversed }: LoopEdge,
  which: 'start' | 'end',
): Vec3 {
  const { points } = model.edges[edge]!;
  return (which === 'start') === reversed ? points[points.length - 1]! : points[0]!;
}

/** Only the solid with that index, with its own face numbers kept as `faces` positions of the whole model. */
export function facesOfSolid(model: SolidModel, solid: number): number[] {
  return model.faces.flatMap((f, i) => (f.solid === solid ? [i] : []));
}
