import {
  along,
  anyPerpendicular,
  cross,
  distance,
  length,
  normalize,
  reject,
  sub,
  type Vec3,
} from '../geometry/vec.ts';
import { ballPicture } from './ball-picture.ts';
import { chartOf, type Chart } from './chart.ts';
import { closeOutline } from './close-outline.ts';
import { MeshWriter } from './mesh-writer.ts';
import { POLE_STEPS, stretchPoles, withoutFlat } from './pole-sides.ts';
import { roundWall } from './round-wall.ts';
import { loopEnd, loopPoints, type Edge, type Face, type SolidModel, type Surface } from './solid-model.ts';
import { insideTest, level, triangulateOutline, turnRound, type Flat } from './triangulate.ts';

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

const MESHES = new WeakMap<SolidModel, PartMesh>();

/** The mesh of a model that nobody changes any more, made once however often it is asked for. */
export function meshOf(model: SolidModel): PartMesh {
  const mesh = MESHES.get(model) ?? meshModel(model);
  MESHES.set(model, mesh);
  return mesh;
}

/**
 * Meshes every face from its exact surface. All corners on a face's border are the shared edge samples and none are
 * added or dropped there, so neighbouring faces fit without cracks. Free-form faces bring their own triangles.
 */
export function meshModel(model: SolidModel, only?: (face: Face, index: number) => boolean): PartMesh {
  const failed: number[] = [];
  const writer = new MeshWriter(model.edges.reduce((n, e) => n + 2 * e.points.length, 0));
  model.faces.forEach((face, index) => {
    if (only && !only(face, index)) return;
    const isDone =
      face.surface.kind === 'freeform'
        ? writer.addFreeform(face.surface.mesh)
        : meshFace(model, face, writer);
    if (isDone) writer.endFace(index);
    else failed.push(index);
  });
  return { ...writer.mesh(), failed };
}

/** A face's flat picture, and its outlines in it; none where it cannot be laid out. */
function layOut(model: SolidModel, face: Face): { chart: Chart; loops: Flat[][] } {
  const chart = chartOf(face.surface, face.surface.kind === 'sphere' ? axisOf(model, face) : undefined);
  const unrolled = face.loops.map((l) => chart.unroll(loopPoints(model, l))).filter((l) => l.length >= 3);
  const loops = chart.turns ? closeOutline(unrolled, chart.turns, face.reversed ? -1 : 1) : unrolled;
  return { chart, loops };
}

/**
 * The points of a ball's or a ring's face that lie farthest along the coordinate axes, where its bulge and none of its edges is what the part
 * ends in. Of other faces none: they end in their edges.
 */
export function bulgesOf(model: SolidModel, face: Face): Vec3[] {
  const candidates = farthestOn(face.surface);
  if (candidates.length === 0) return [];
  if (face.surface.kind === 'sphere') {
    const picture = ballPicture(model, face);
    return candidates.filter((p) => picture === null || picture.has(p));
  }
  const { chart, loops } = layOut(model, face);
  const [turnU, turnV] = [chart.turns?.u ?? 0, chart.turns?.v ?? 0];
  if (loops.length === 0 || turnU === 0) return [];
  const inside = insideTest(loops);
  const around = (turn: number) => (turn > 0 ? [-2, -1, 0, 1, 2].map((k) => k * turn) : [0]);
  return candidates.filter((p) => {
    // A pole has no place of its own in the picture: where a face reaches it, it is a corner of its outline.
    const [at] = chart.unroll([p]);
    if (!at) return loops.some((l) => l.some((f) => distance(f.point, p) < POLE));
    return around(turnU).some((u) => around(turnV).some((v) => inside(at.u + u, at.v + v)));
  });
}

/** A corner of an outline that is nearer to a pole than this is that pole, mm. */
const POLE = 1e-6;

const AXES: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

/** Points of a whole ball or ring at which it is farthest along each axis, forth and back. */
function farthestOn(s: Surface): Vec3[] {
  if (s.kind !== 'sphere' && s.kind !== 'torus') return [];
  return AXES.flatMap((d) =>
    [1, -1].map((sign): Vec3 => {
      if (s.kind === 'sphere') return along(s.origin, d, sign * s.radius);
      const out = reject(d, s.axis);
      // Along its own axis a ring is as far all round: any place will do.
      const radial = length(out) > POLE ? normalize(out) : anyPerpendicular(s.axis);
      return along(along(s.origin, radial, sign * s.majorRadius), d, sign * s.minorRadius);
    }),
  );
}

/** Of a ball's face whose border winds round its poles too freely to be unrolled. */
function ballOutline(model: SolidModel, face: Face): ReturnType<typeof triangulateOutline> {
  const picture = ballPicture(model, face);
  const outline = picture && triangulateOutline(picture.loops, picture.fill());
  // That picture is seen from within.
  if (outline) turnRound(outline.triangles);
  return outline;
}

/** Adds the triangles of a face whose surface is exact; false where there are none. */
function meshFace(model: SolidModel, face: Face, to: MeshWriter): boolean {
  const outline = roundWall(model, face) ?? laidOut(model, face);
  if (!outline || outline.triangles.length === 0) return false;
  // What is counter-clockwise in a picture is so as seen along the surface's own normal.
  if (face.reversed) turnRound(outline.triangles);
  to.addFace(face, outline.flat, outline.triangles);
  return true;
}

/** The triangles of a face in its flat picture. */
function laidOut(model: SolidModel, face: Face): ReturnType<typeof triangulateOutline> {
  const { chart, loops } = layOut(model, face);
  if (loops.length === 0) return null;
  const isStretched = chart.turns !== undefined && stretchPoles(loops, chart.turns.u / POLE_STEPS);
  chart.squeeze?.(loops);
  if (face.surface.kind !== 'plane') level(loops, ROUNDING);
  const outline = triangulateOutline(loops, chart.fill?.(loops) ?? []) ?? ballOutline(model, face);
  return outline && isStretched
    ? { ...outline, triangles: withoutFlat(outline.triangles, outline.flat) }
    : outline;
}

/** The axis about which a sphere's borders are simplest: that of its seam, or of a circle that it ends in. */
function axisOf(model: SolidModel, face: Face): Vec3 | undefined {
  if (face.surface.kind !== 'sphere') return undefined;
  for (const loop of face.loops)
    for (const [i, l] of loop.entries()) {
      // A seam that is run up and straight down again turns round at a pole.
      const next = loop[(i + 1) % loop.length]!;
      if (loop.length > 1 && next.edge === l.edge)
        return normalize(sub(loopEnd(model, l, 'end'), face.surface.origin));
    }
  for (const loop of face.loops) {
    const curve = loop.length === 1 ? model.edges[loop[0]!.edge]!.curve : null;
    if (curve?.kind === 'circle') return curve.axis;
  }
  return undefined;
}

/** Chart coordinates nearer than this are one, mm: far above rounding, far below any distance between samples. */
const ROUNDING = 1e-8;

/** Polylines of all edges that are worth drawing (no seams, no smooth joins), as flat xyz segment pairs. */
export function edgeSegments(model: SolidModel): { positions: Float32Array; edgeOf: Uint32Array } {
  const isDrawn = ({ convexity }: Edge): boolean => convexity !== 'seam' && convexity !== 'smooth';
  const count = model.edges.reduce((n, e) => (isDrawn(e) ? n + e.points.length - 1 : n), 0);
  const positions = new Float32Array(6 * count);
  const edgeOf = new Uint32Array(count);
  let segment = 0;
  model.edges.forEach((e, index) => {
    if (!isDrawn(e)) return;
    for (let i = 1; i < e.points.length; i++) {
      const [a, b] = [e.points[i - 1]!, e.points[i]!];
      for (let k = 0; k < 3; k++) {
        positions[6 * segment + k] = a[k]!;
        positions[6 * segment + 3 + k] = b[k]!;
      }
      edgeOf[segment++] = index;
    }
  });
  return { positions, edgeOf };
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
export function meshVolume({ positions, triangles }: PartMesh): number {
  let six = 0;
  for (let t = 0; t < triangles.length; t += 3) six += sixfold(positions, triangles, t);
  return six / 6;
}

/** The same of each of a model's solids. */
export function solidVolumes(
  { positions, triangles, faceOf }: PartMesh,
  { solids, faces }: SolidModel,
): number[] {
  const out = solids.map(() => 0);
  for (let t = 0; t < faceOf.length; t++)
    out[faces[faceOf[t]!]!.solid]! += sixfold(positions, triangles, 3 * t) / 6;
  return out;
}

/** Six times the volume between a triangle and the origin, mm³. */
function sixfold(p: Float32Array, triangles: Uint32Array, t: number): number {
  const [a, b, c] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!];
  return (
    p[a]! * (p[b + 1]! * p[c + 2]! - p[b + 2]! * p[c + 1]!) +
    p[a + 1]! * (p[b + 2]! * p[c]! - p[b]! * p[c + 2]!) +
    p[a + 2]! * (p[b]! * p[c + 1]! - p[b + 1]! * p[c]!)
  );
}
