import { invert34, multiply34, type Matrix34 } from '../brep/matrix34.ts';
import type { BrepDocument, BrepShape, ShapeRef } from '../brep/shapes.ts';
import { Ref } from '../part21/value.ts';
import { UnknownStep, type Entities } from './fields.ts';
import { Places } from './placement.ts';
import { BODIES, Topology } from './topology.ts';
import { unitsOf, type Units } from './units.ts';

/** Assemblies lie no deeper in each other; deeper ones contain themselves. */
const DEEPEST = 60;
/** More bodies than this, each at its place, are no part that somebody machines: the file wants to exhaust the reader. */
const MOST_BODIES = 20_000;

/** A representation within another: what it is, and where it lies in the outer one. */
interface Placed {
  child: number;
  place: Matrix34 | null;
}

/** What the file holds, put together: every body at each place where it is used. */
export interface Assembled {
  document: BrepDocument;
  /** The context of the first body's representation, which says its units; null where there is no body. */
  context: number | null;
}

/**
 * Puts the bodies of a file into their places (ISO 10303-42, -43, -44): shape representations with bodies and mapped items, those that a
 * relationship says are the same, and those that it places within each other.
 */
export function assemble(entities: Entities): Assembled {
  return new Assembler(entities).run();
}

class Assembler {
  private readonly shapes: BrepShape[] = [];
  /** Representations that lie in a representation, and those that say the same as it. */
  private readonly children = new Map<number, Placed[]>();
  private readonly same = new Map<number, number[]>();
  private readonly topologies = new Map<string, Topology>();
  private readonly unitsAt = new Map<number, Units>();
  /** Relationships with a transformation, before it is known which of the two lies in the other. */
  private readonly placed: { id: number; one: number; two: number; place: Matrix34 | null }[] = [];
  private context: number | null = null;
  private bodies = 0;
  private visits = 0;
  private readonly used = new Set<number>();

  constructor(private readonly entities: Entities) {}

  run(): Assembled {
    const { file } = this.entities;
    const inner = new Set<number>();
    const relations = ['REPRESENTATION_RELATIONSHIP', 'SHAPE_REPRESENTATION_RELATIONSHIP'];
    for (const id of new Set(relations.flatMap((type) => file.ofType(type)))) this.relation(id);
    this.placeRelated(inner);
    for (const id of file.ofType('MAPPED_ITEM')) {
      const map = this.entities.need(id, 'MAPPED_ITEM').ref(1);
      inner.add(this.entities.need(map, 'REPRESENTATION_MAP').ref(1));
    }
    const defined = file
      .ofType('SHAPE_DEFINITION_REPRESENTATION')
      .map((id) => this.entities.need(id, 'SHAPE_DEFINITION_REPRESENTATION').ref(1));
    const roots = [...new Set(defined)].filter((r) => !this.groupOf(r).some((g) => inner.has(g)));
    const refs: ShapeRef[] = [];
    const seen = new Set<number>();
    for (const root of roots) {
      const group = this.groupOf(root);
      // Two products that say that they are one shape: once.
      if (group.some((g) => seen.has(g))) continue;
      for (const g of group) seen.add(g);
      this.place(root, null, refs, 0);
    }
    this.orphans(refs);
    const root = this.shapes.push({ type: 'compound', closed: false, children: refs }) - 1;
    return {
      document: { shapes: this.shapes, root: { shape: root, reversed: false, location: null } },
      context: this.context,
    };
  }

  /** A relationship of two representations: one lies in the other where it has a transformation, else they are the same. */
  private relation(id: number): void {
    const { entities } = this;
    const f =
      entities.part(id, 'REPRESENTATION_RELATIONSHIP') ??
      entities.need(id, 'SHAPE_REPRESENTATION_RELATIONSHIP');
    // As a part of a complex entity the subtype has no parameters of its own.
    if (f.count < 4) return;
    const [one, two] = [f.ref(2), f.ref(3)];
    const placed = entities.part(id, 'REPRESENTATION_RELATIONSHIP_WITH_TRANSFORMATION');
    if (!placed) {
      link(this.same, one, two);
      link(this.same, two, one);
      return;
    }
    const transformation = placed.ref(0);
    const t = entities.part(transformation, 'ITEM_DEFINED_TRANSFORMATION');
    if (!t)
      throw new UnknownStep(
        `${entities.types(transformation).join(' ')} is no transformation that is known`,
        id,
      );
    const [from, to] = [this.matrix(t.ref(2), one), this.matrix(t.ref(3), two)];
    // ISO 10303-43: what lies at the first item in the first representation lies at the second in the second.
    this.placed.push({ id, one, two, place: multiply34(to, invert34(from)) });
  }

  /** The first lies in the second, unless the product that the relationship is about is the second's. */
  private placeRelated(inner: Set<number>): void {
    const components = this.components();
    for (const { id, one, two, place } of this.placed) {
      const component = components.get(id);
      const isTurned =
        component !== undefined &&
        this.groupOf(two).includes(component) &&
        !this.groupOf(one).includes(component);
      if (isTurned) link(this.children, one, { child: two, place: place && invert34(place) });
      else link(this.children, two, { child: one, place });
      inner.add(isTurned ? two : one);
    }
  }

  /** The representation of the component that a relationship puts into an assembly, by the relationship. */
  private components(): Map<number, number> {
    const { entities } = this;
    const { file } = entities;
    const shapeOf = new Map<number, number>();
    for (const id of file.ofType('SHAPE_DEFINITION_REPRESENTATION')) {
      const f = entities.need(id, 'SHAPE_DEFINITION_REPRESENTATION');
      const shape = entities.part(f.ref(0), 'PRODUCT_DEFINITION_SHAPE');
      if (shape) shapeOf.set(shape.ref(2), f.ref(1));
    }
    const out = new Map<number, number>();
    for (const id of file.ofType('CONTEXT_DEPENDENT_SHAPE_REPRESENTATION')) {
      const f = entities.need(id, 'CONTEXT_DEPENDENT_SHAPE_REPRESENTATION');
      const shape = entities.part(f.ref(1), 'PRODUCT_DEFINITION_SHAPE');
      const use = shape && entities.part(shape.ref(2), 'NEXT_ASSEMBLY_USAGE_OCCURRENCE');
      const component = use && shapeOf.get(use.ref(4));
      if (component) out.set(f.ref(0), component);
    }
    return out;
  }

  private matrix(placement: number, representation: number): Matrix34 {
    return new Places(this.entities, this.units(representation).mm).matrix(placement);
  }

  /** A representation with all that say the same. */
  private groupOf(representation: number): number[] {
    const out = [representation];
    for (const r of out) for (const s of this.same.get(r) ?? []) if (!out.includes(s)) out.push(s);
    return out;
  }

  /** Adds the bodies of a representation and of all that lie in it. */
  private place(representation: number, at: Matrix34 | null, refs: ShapeRef[], depth: number): void {
    if (depth > DEEPEST) throw this.entities.error(representation, 'an assembly that contains itself');
    if (++this.visits > 10 * MOST_BODIES)
      throw this.entities.error(representation, 'an assembly without end');
    for (const r of this.groupOf(representation)) {
      for (const item of this.itemsOf(r)) this.item(item, r, at, refs, depth);
      for (const { child, place } of this.children.get(r) ?? [])
        this.place(child, multiply34(at, place), refs, depth + 1);
    }
  }

  private item(
    id: number,
    representation: number,
    at: Matrix34 | null,
    refs: ShapeRef[],
    depth: number,
  ): void {
    const mapped = this.entities.part(id, 'MAPPED_ITEM');
    if (mapped) {
      const map = this.entities.need(mapped.ref(1), 'REPRESENTATION_MAP');
      const child = map.ref(1);
      const target = this.matrix(mapped.ref(2), representation);
      const origin = this.matrix(map.ref(0), child);
      this.place(child, multiply34(at, multiply34(target, invert34(origin))), refs, depth + 1);
      return;
    }
    const body = this.topology(representation).body(id);
    if (!body) return;
    if (++this.bodies > MOST_BODIES) throw this.entities.error(id, `more than ${MOST_BODIES} bodies`);
    this.context ??= this.contextOf(representation);
    this.used.add(id);
    refs.push({ ...body, location: at });
  }

  /** Bodies that no product's shape leads to stand where they are. */
  private orphans(refs: ShapeRef[]): void {
    const { entities } = this;
    const isLeft = (id: number) => !this.used.has(id) && entities.types(id).some((t) => BODIES.includes(t));
    const left = new Set(BODIES.flatMap((type) => entities.file.ofType(type)).filter(isLeft));
    if (left.size === 0) return;
    for (const id of this.representations())
      for (const item of this.itemsOf(id)) if (left.delete(item)) this.item(item, id, null, refs, 0);
  }

  private representations(): number[] {
    const { file } = this.entities;
    return REPRESENTATIONS.flatMap((type) => file.ofType(type)).sort((a, b) => a - b);
  }

  private itemsOf(representation: number): number[] {
    const f = this.representation(representation);
    return f.list(1).flatMap((v) => (v instanceof Ref ? [v.id] : []));
  }

  private contextOf(representation: number): number {
    return this.representation(representation).ref(2);
  }

  /** REPRESENTATION and its subtypes: name, items, context. */
  private representation(id: number) {
    const only = this.entities.only(id);
    const f = only ?? this.entities.part(id, 'REPRESENTATION');
    if (!f || f.count < 3) throw this.entities.error(id, 'a representation was expected here');
    return f;
  }

  private units(representation: number): Units {
    const context = this.contextOf(representation);
    const known = this.unitsAt.get(context) ?? unitsOf(this.entities, context);
    this.unitsAt.set(context, known);
    return known;
  }

  private topology(representation: number): Topology {
    const units = this.units(representation);
    const key = `${units.mm}/${units.radians}`;
    const known = this.topologies.get(key) ?? new Topology(this.entities, this.shapes, units);
    this.topologies.set(key, known);
    return known;
  }
}

const REPRESENTATIONS = [
  'SHAPE_REPRESENTATION',
  'ADVANCED_BREP_SHAPE_REPRESENTATION',
  'FACETED_BREP_SHAPE_REPRESENTATION',
  'MANIFOLD_SURFACE_SHAPE_REPRESENTATION',
  'GEOMETRICALLY_BOUNDED_SURFACE_SHAPE_REPRESENTATION',
  'REPRESENTATION',
];

function link<T>(map: Map<number, T[]>, key: number, value: T): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}
