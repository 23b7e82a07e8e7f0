import type { BrepShape, ShapeRef } from '../brep/shapes.ts';
import type { BrepCurve } from '../brep/geometry.ts';
import { distance, sub, type Vec3 } from '../geometry/vec.ts';
import { Curves } from './curves.ts';
import { edgeRange, isOnCurve } from './edge-range.ts';
import { UnknownStep, type Entities, type Fields } from './fields.ts';
import { Places } from './placement.ts';
import { Surfaces } from './surfaces.ts';
import type { Units } from './units.ts';

/** Ends of an edge that are nearer than this are one place, mm. */
const SAME_PLACE = 1e-6;

/** Items of a representation that hold faces, by type. */
export const BODIES: readonly string[] = [
  'MANIFOLD_SOLID_BREP',
  'BREP_WITH_VOIDS',
  'FACETED_BREP',
  'SHELL_BASED_SURFACE_MODEL',
  'FACE_BASED_SURFACE_MODEL',
];

/** Reads the faces, loops and edges of a representation's items into shapes; what several use is read once. */
export class Topology {
  private readonly places: Places;
  private readonly curves: Curves;
  private readonly surfaces: Surfaces;
  private readonly read = new Map<number, number>();
  /** Straight edges between points of POLY_LOOPs, by their points. */
  private readonly straight = new Map<string, number>();

  constructor(
    private readonly entities: Entities,
    private readonly shapes: BrepShape[],
    units: Units,
  ) {
    this.places = new Places(entities, units.mm);
    this.curves = new Curves(entities, this.places, units);
    this.surfaces = new Surfaces(entities, this.places, this.curves, units);
  }

  /** The shape of an item; null for one that holds no faces. */
  body(id: number): ShapeRef | null {
    const type = this.entities.types(id).find((t) => BODIES.includes(t));
    if (type === undefined) return null;
    return uses(
      this.once(id, () => {
        const f = this.entities.need(id, type);
        const children = SHELLS_OF[type]?.(f).map((s) => this.shell(s)) ?? [];
        return { type: type.includes('SURFACE_MODEL') ? 'compound' : 'solid', closed: true, children };
      }),
    );
  }

  private shell(id: number): ShapeRef {
    const oriented =
      this.entities.part(id, 'ORIENTED_CLOSED_SHELL') ?? this.entities.part(id, 'ORIENTED_OPEN_SHELL');
    if (oriented) {
      const shell = this.shell(oriented.ref(2));
      return { ...shell, reversed: shell.reversed !== !oriented.flag(3) };
    }
    const type = this.entities.types(id).find((t) => SHELLS.includes(t));
    if (type === undefined) throw this.entities.other(id, 'a shell');
    return uses(
      this.once(id, () => ({
        type: 'shell',
        closed: type === 'CLOSED_SHELL',
        children: this.entities
          .need(id, type)
          .refs(1)
          .map((f) => this.face(f)),
      })),
    );
  }

  private face(id: number): ShapeRef {
    const oriented = this.entities.part(id, 'ORIENTED_FACE');
    if (oriented) {
      const face = this.face(oriented.ref(2));
      return { ...face, reversed: face.reversed !== !oriented.flag(3) };
    }
    const type = this.entities.types(id).find((t) => t === 'ADVANCED_FACE' || t === 'FACE_SURFACE');
    if (type === undefined) throw this.entities.other(id, 'a face');
    const f = this.entities.need(id, type);
    const reversed = !f.flag(3);
    return {
      shape: this.once(id, () => ({
        type: 'face',
        surface: this.surfaces.surface(f.ref(2)),
        location: null,
        children: f.refs(1).map((b) => this.bound(b, reversed)),
        entity: id,
      })),
      reversed,
      location: null,
    };
  }

  /** A bound runs with the face on its left as seen from outside; a shape's wire as seen against its surface's own normal. */
  private bound(id: number, isFaceReversed: boolean): ShapeRef {
    const type = this.entities.types(id).find((t) => t === 'FACE_OUTER_BOUND' || t === 'FACE_BOUND');
    if (type === undefined) throw this.entities.other(id, 'a bound of a face');
    const f = this.entities.need(id, type);
    return { shape: this.loop(f.ref(1)), reversed: isFaceReversed !== !f.flag(2), location: null };
  }

  private loop(id: number): number {
    return this.once(id, () => {
      const loop = this.entities.part(id, 'EDGE_LOOP');
      if (loop) return wire(loop.refs(1).map((e) => this.orientedEdge(e)));
      const poly = this.entities.part(id, 'POLY_LOOP');
      if (poly) return wire(this.polygon(poly));
      // A loop of one vertex is a pole: nothing runs along it.
      const pole = this.entities.part(id, 'VERTEX_LOOP');
      if (pole) return wire([], this.vertex(pole.ref(1)));
      throw this.entities.other(id, 'a loop');
    });
  }

  private polygon(poly: Fields): ShapeRef[] {
    const ids = poly.refs(1);
    if (ids.length < 3) throw poly.error(`a loop of ${ids.length} points`);
    return ids.map((a, i) => {
      const b = ids[(i + 1) % ids.length] ?? a;
      const key = a < b ? `${a}/${b}` : `${b}/${a}`;
      let shape = this.straight.get(key);
      if (shape === undefined) {
        const [from, to] = [this.places.point(Math.min(a, b)), this.places.point(Math.max(a, b))];
        if (distance(from, to) < SAME_PLACE) throw poly.error(`#${a} and #${b} are one place`);
        shape = this.add(straightEdge(from, to));
        this.straight.set(key, shape);
      }
      return { shape, reversed: a > b, location: null };
    });
  }

  private orientedEdge(id: number): ShapeRef {
    const f = this.entities.need(id, 'ORIENTED_EDGE');
    const edge = f.ref(3);
    const curve = this.entities.need(edge, 'EDGE_CURVE');
    // The shape runs along its curve; the file's edge may run against it.
    return {
      shape: this.once(edge, () => this.edge(curve)),
      reversed: f.flag(4) !== curve.flag(4),
      location: null,
    };
  }

  private edge(f: Fields): BrepShape {
    const [v1, v2] = [f.ref(1), f.ref(2)];
    const [start, end] = [this.vertex(v1), this.vertex(v2)];
    const curve = this.curves.curve(f.ref(3));
    const isClosed = v1 === v2 || distance(start, end) < SAME_PLACE;
    const [from, to] = f.flag(4) ? [start, end] : [end, start];
    const range = edgeRange(curve, from, to, isClosed);
    if (!range) {
      if (isClosed) throw f.error('an edge that ends where it begins, on a curve that does not come back');
      throw f.error('its curve does not run from its one vertex to the other');
    }
    if (!isOnCurve(range))
      throw new UnknownStep(`an end of the edge lies ${range.off.toPrecision(2)} mm beside its curve`, f.id);
    return {
      type: 'edge',
      curve,
      location: null,
      first: range.first,
      last: range.last,
      degenerate: false,
      children: [],
      ends: [from, to],
    };
  }

  private vertex(id: number): Vec3 {
    return this.places.point(this.entities.need(id, 'VERTEX_POINT').ref(1));
  }

  private once(id: number, make: () => BrepShape): number {
    const before = this.read.get(id);
    if (before !== undefined) {
      if (before < 0) throw this.entities.error(id, 'it is a part of itself');
      return before;
    }
    this.read.set(id, -1);
    const shape = this.add(make());
    this.read.set(id, shape);
    return shape;
  }

  private add(shape: BrepShape): number {
    return this.shapes.push(shape) - 1;
  }
}

const SHELLS = ['CLOSED_SHELL', 'OPEN_SHELL', 'CONNECTED_FACE_SET'];

/** Shells of a body: the outer one first, then those of its cavities. */
const SHELLS_OF: Readonly<Record<string, (f: Fields) => number[]>> = {
  MANIFOLD_SOLID_BREP: (f) => [f.ref(1)],
  FACETED_BREP: (f) => [f.ref(1)],
  BREP_WITH_VOIDS: (f) => [f.ref(1), ...f.refs(2)],
  SHELL_BASED_SURFACE_MODEL: (f) => f.refs(1),
  FACE_BASED_SURFACE_MODEL: (f) => f.refs(1),
};

const uses = (shape: number): ShapeRef => ({ shape, reversed: false, location: null });
const wire = (children: ShapeRef[], pole?: Vec3): BrepShape => ({
  type: 'wire',
  closed: true,
  children,
  pole,
});

function straightEdge(from: Vec3, to: Vec3): BrepShape {
  const curve: BrepCurve = { kind: 'line', origin: from, direction: sub(to, from) };
  return {
    type: 'edge',
    curve,
    location: null,
    first: 0,
    last: 1,
    degenerate: false,
    children: [],
    ends: [from, to],
  };
}
