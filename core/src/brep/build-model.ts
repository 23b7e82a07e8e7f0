import { along, cross, distance, dot, length, normalize, reject, sub, type Vec3 } from '../geometry/vec.ts';
import { connect } from '../model/connect.ts';
import { bulgesOf } from '../model/mesh.ts';
import {
  type Bounds,
  type Curve,
  type Face,
  type FreeformMesh,
  GrowingBox,
  loopEnd,
  loopPoints,
  type Loop,
  type SolidModel,
  type Surface,
} from '../model/solid-model.ts';
import { multiply34, type Matrix34 } from './matrix34.ts';
import { type BrepCurve, type BrepSurface } from './geometry.ts';
import { type BrepDocument, type BrepShape, type ShapeRef } from './shapes.ts';
import { sampleCurve, transformDirection, transformPoint } from './evaluate.ts';
import { exactStretch } from './exact-curve.ts';
import { exactSurface } from './exact-surface.ts';
import { seamToPole } from './poles.ts';
import { outwardNormal } from '../model/surface.ts';

type EdgeShape = Extract<BrepShape, { type: 'edge' }>;
type Circle = Extract<Curve, { kind: 'circle' }>;
type FaceShape = Extract<BrepShape, { type: 'face' }>;

interface Context {
  location: Matrix34 | null;
  reversed: boolean;
  solid: number;
}

/** A free-form face to be meshed: the `index`-th in the shape's own order. */
export interface FreeformFace {
  index: number;
  surface: BrepSurface;
  location: Matrix34 | null;
  /** Its outward normal is against its surface's own. */
  reversed: boolean;
  /** Its loops as their edges' points, with the face on their left as seen from outside. */
  loops: Vec3[][];
}
/** Makes the triangles of a free-form face; null where it cannot. */
export type MeshFace = (face: FreeformFace) => FreeformMesh | null;

/** What a file says of its part as a whole. */
export type PartFacts = Pick<SolidModel, 'name' | 'sourceUnits'>;

/** Builds the neutral model from the parsed shape. Edges of one solid at one place are shared by identity. */
export function buildModel(doc: BrepDocument, facts: PartFacts, meshFace: MeshFace): SolidModel {
  const builder = new Builder(doc, facts, meshFace);
  return builder.run();
}

class Builder {
  private readonly model: SolidModel;
  private readonly edgeIds = new Map<number, number>();
  private readonly locationIds = new Map<string, number>();
  private faceCount = 0;
  private recovered = 0;
  private readonly unreadable: number[] = [];
  private tiny = 0;

  constructor(
    private readonly doc: BrepDocument,
    facts: PartFacts,
    private readonly meshFace: MeshFace,
  ) {
    this.model = {
      format: 'yellow-pin/solid-model@1',
      name: facts.name,
      sourceUnits: facts.sourceUnits,
      solids: [],
      faces: [],
      edges: [],
      bounds: { min: [0, 0, 0], max: [0, 0, 0] },
      notes: [],
    };
  }

  run(): SolidModel {
    const { model } = this;
    this.visit(this.doc.root, { location: null, reversed: false, solid: -1 });
    connect(model);
    for (const edge of model.edges) {
      if (edge.convexity !== 'open') continue;
      const face = model.faces[edge.faces[0] ?? -1];
      if (face) model.solids[face.solid]!.closed = false;
    }
    const box = this.box();
    if (box) {
      const { min, max } = box;
      // Sums of sines leave 1e-14 where 0 is meant.
      const clean = (v: Vec3): Vec3 => v.map((x) => Math.round(x * 1e9) / 1e9 + 0) as Vec3;
      model.bounds = { min: clean(min), max: clean(max) };
    }
    this.addNotes();
    return model;
  }

  /**
   * The box round all samples of edges and what bulges beyond them: the poles of arcs, balls and rings, and the vertices of free-form faces.
   * Null for a part without any.
   */
  private box(): Bounds | null {
    const { edges, faces } = this.model;
    const box = new GrowingBox();
    for (const { points } of edges) box.add(points);
    const sampled = box.bounds();
    for (const { curve, points } of edges)
      if (sampled && curve.kind === 'circle' && !holdsCircle(sampled, curve))
        box.add(arcExtremes(curve, points));
    for (const face of faces) box.add(bulgesOf(this.model, face)).add(verticesOf(face.surface));
    return box.bounds();
  }

  private visit(ref: ShapeRef, parent: Context): void {
    const shape = this.doc.shapes[ref.shape];
    if (!shape) throw new Error('the shape refers to a part of itself that is missing');
    const context: Context = {
      location: multiply34(parent.location, ref.location),
      reversed: parent.reversed !== ref.reversed,
      solid: parent.solid,
    };
    if (shape.type === 'face') {
      if (context.solid < 0) context.solid = this.addSolid(false);
      this.addFace(shape, context);
      return;
    }
    if (shape.type === 'edge' || shape.type === 'vertex' || shape.type === 'wire') return;
    if (shape.type === 'solid') context.solid = this.addSolid(true);
    if (shape.type === 'shell' && context.solid < 0) context.solid = this.addSolid(false);
    for (const child of shape.children) this.visit(child, context);
  }

  private addSolid(closed: boolean): number {
    this.model.solids.push({ name: `solid ${this.model.solids.length + 1}`, closed });
    return this.model.solids.length - 1;
  }

  private addFace(shape: FaceShape, context: Context): void {
    const index = this.faceCount++;
    const location = multiply34(context.location, shape.location);
    const exact = exactSurface(shape.surface, location);
    const loops = shape.children
      .map((wire) => this.readWire(wire, context))
      .filter((loop) => loop.length > 0);
    const face: Face = {
      solid: context.solid,
      surface: { kind: 'plane', origin: [0, 0, 0], normal: [0, 0, 1] },
      reversed: context.reversed,
      loops,
    };
    if (exact) {
      face.surface = exact.surface;
      face.reversed = context.reversed !== exact.flipped;
      if (exact.recovered) {
        face.recovered = true;
        this.recovered++;
      }
    } else {
      face.surface = { kind: 'freeform', mesh: { positions: [], normals: [], triangles: [] } };
      face.reversed = false;
      this.unreadable.push(index);
    }
    face.loops = face.loops.map((loop) => this.chain(loop, face));
    const poles = shape.children.flatMap((wire) => this.poleOf(wire, context));
    seamToPole(this.model, face, poles);
    if (!exact) {
      const mesh = this.meshFace({
        index,
        surface: shape.surface,
        location,
        reversed: context.reversed,
        loops: face.loops.map((loop) => loopPoints(this.model, loop)),
      });
      if (mesh) face.surface = { kind: 'freeform', mesh };
    }
    this.model.faces.push(face);
  }

  private poleOf(ref: ShapeRef, face: Context): Vec3[] {
    const wire = this.doc.shapes[ref.shape]!;
    if (wire.type !== 'wire' || !wire.pole) return [];
    return [transformPoint(multiply34(face.location, ref.location), wire.pole)];
  }

  /** A wire as a loop that runs with the face on its left, seen from outside. */
  private readWire(ref: ShapeRef, face: Context): Loop {
    const wire = this.doc.shapes[ref.shape]!;
    const location = multiply34(face.location, ref.location);
    const isAgainst = face.reversed !== ref.reversed;
    const loop: Loop = [];
    for (const child of wire.children) {
      const shape = this.doc.shapes[child.shape]!;
      if (shape.type !== 'edge' || shape.degenerate || !shape.curve) continue;
      const edge = this.edgeId(shape, child.shape, multiply34(location, child.location));
      loop.push({ edge, reversed: isAgainst !== child.reversed });
    }
    // Run against its edges it comes to them in the opposite order.
    const [first, ...rest] = loop;
    return first && isAgainst ? [first, ...rest.reverse()] : loop;
  }

  /**
   * Puts a loop's edges head to tail: a wire may list them in any order. Where several go on from one vertex (a cavity that meets
   * a seam) the next is the first one met when sweeping clockwise from the way come, over the face on the left.
   */
  private chain(loop: Loop, face: Face): Loop {
    // Without a normal there is nothing to sweep over.
    if (this.isChained(loop, face.surface.kind === 'freeform')) return loop;
    const rest = [...loop];
    const out: Loop = [];
    let current = rest.shift();
    while (current) {
      out.push(current);
      const points = this.directed(current);
      const tail = points[points.length - 1]!;
      const gaps = rest.map((l) => distance(tail, this.directed(l)[0]!));
      const least = Math.min(...gaps);
      const candidates = rest.map((_, i) => i).filter((i) => gaps[i]! <= Math.max(1e-6, least));
      let best = candidates[0] ?? 0;
      if (candidates.length > 1) {
        const back = sub(points[points.length - 2]!, tail);
        const normal = outwardNormal(face, tail);
        const sweep = (i: number): number =>
          clockwiseAngle(back, sub(this.directed(rest[i]!)[1]!, tail), normal);
        best = candidates.reduce((m, i) => (sweep(i) < sweep(m) - 1e-9 ? i : m));
      }
      current = rest.splice(best, 1)[0];
    }
    return out;
  }

  /** Files list them so, nearly always: each begins where the one before ends, and no place is come to twice, unless that may be. */
  private isChained(loop: Loop, mayComeTwice: boolean): boolean {
    const starts = loop.map((l) => loopEnd(this.model, l, 'start'));
    return loop.every((l, i) => {
      const tail = loopEnd(this.model, l, 'end');
      const next = (i + 1) % loop.length;
      return (
        distance(tail, starts[next]!) <= 1e-6 &&
        (mayComeTwice || loop.length < 3 || starts.every((s, k) => k === next || distance(tail, s) > 1e-6))
      );
    });
  }

  private directed(l: Loop[number]): Vec3[] {
    const { points } = this.model.edges[l.edge]!;
    return l.reversed ? [...points].reverse() : points;
  }

  private edgeId(shape: EdgeShape, index: number, location: Matrix34 | null): number {
    const place = location ? location.map((v) => v.toFixed(9)).join() : '';
    let locationId = this.locationIds.get(place);
    if (locationId === undefined) this.locationIds.set(place, (locationId = this.locationIds.size));
    const key = locationId * this.doc.shapes.length + index;
    const known = this.edgeIds.get(key);
    if (known !== undefined) return known;
    const total = multiply34(location, shape.location);
    const { curve, first, last } = exactStretch({
      curve: shape.curve!,
      first: shape.first,
      last: shape.last,
    });
    const samples = sampleCurve(curve, first, last);
    if (shape.ends) [samples[0], samples[samples.length - 1]] = shape.ends;
    const points = total ? samples.map((p) => transformPoint(total, p)) : samples;
    if (isShorter(points, 1e-4)) this.tiny++;
    const id = this.model.edges.length;
    this.model.edges.push({
      curve: neutralCurve(curve, total),
      points,
      faces: [],
      convexity: 'open',
      angle: 0,
    });
    this.edgeIds.set(key, id);
    return id;
  }

  private addNotes(): void {
    const { model } = this;
    const note = (code: string, message: string) => model.notes.push({ code, message });
    if (this.recovered)
      note(
        'surface-recovered',
        `${this.recovered} faces stored as splines or swept surfaces are exact planes, cylinders, cones, spheres or tori within 0.001 mm and were read as such.`,
      );
    if (this.unreadable.length)
      note(
        'freeform-face',
        `Free-form faces, shown but not recognised: ${this.unreadable.slice(0, 20).join(', ')}${this.unreadable.length > 20 ? ' …' : ''}.`,
      );
    if (this.tiny) note('tiny-edge', `${this.tiny} edges are shorter than 0.0001 mm.`);
    model.solids.forEach((s, i) => {
      if (!s.closed)
        note(
          'open-shell',
          `Solid ${i + 1} is not closed: its surfaces have free edges. What can be read is used; check sizes against the print.`,
        );
    });
  }
}

/** Whether a way along points is shorter than so much, mm. */
function isShorter(points: readonly Vec3[], than: number): boolean {
  let way = 0;
  for (let i = 1; i < points.length && way < than; i++) way += distance(points[i]!, points[i - 1]!);
  return way < than;
}

/** Angle from `from` to `to` turning clockwise as seen against the normal, 0 < angle ≤ 2π: going straight back comes last. */
function clockwiseAngle(from: Vec3, to: Vec3, normal: Vec3): number {
  const angle = Math.atan2(dot(cross(to, from), normal), dot(reject(from, normal), reject(to, normal)));
  return angle > 1e-6 ? angle : angle + 2 * Math.PI;
}

/** Corners of a free-form face's triangles; of others none. */
function verticesOf(surface: Surface): Vec3[] {
  if (surface.kind !== 'freeform') return [];
  const { positions: p } = surface.mesh;
  return Array.from({ length: p.length / 3 }, (_, i): Vec3 => [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!]);
}

/** Along a coordinate axis a circle reaches as far from its centre as its axis leans away from that axis, times its radius. */
const holdsCircle = ({ min, max }: Bounds, { centre, axis, radius }: Circle): boolean =>
  centre.every((c, i) => {
    const reach = radius * Math.sqrt(Math.max(0, 1 - axis[i]! * axis[i]!));
    return c - reach >= min[i]! && c + reach <= max[i]!;
  });

/** Points of an arc farthest along the coordinate axes, where they fall on the arc itself. */
function arcExtremes(circle: Circle, points: Vec3[]): Vec3[] {
  const step = distance(points[0]!, points[1]!);
  const units: Vec3[] = [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ];
  return units.flatMap((d) => {
    const radial = reject(d, circle.axis);
    if (length(radial) < 1e-9) return [];
    return [1, -1].flatMap((sign) => {
      const p = along(circle.centre, normalize(radial), sign * circle.radius);
      return points.some((q) => distance(p, q) <= 0.51 * step) ? [p] : [];
    });
  });
}

function neutralCurve(c: BrepCurve, m: Matrix34 | null): Curve {
  if (c.kind === 'line' || (c.kind === 'nurbs' && c.nurbs.degree === 1 && c.nurbs.poles.length === 2))
    return { kind: 'line' };
  if (c.kind === 'circle') {
    return {
      kind: 'circle',
      centre: transformPoint(m, c.at.origin),
      axis: normalize(transformDirection(m, c.at.z)),
      radius: c.radius,
    };
  }
  return { kind: c.kind === 'ellipse' ? 'ellipse' : 'spline' };
}
