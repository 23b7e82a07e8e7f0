import { Part21Error } from '../part21/error.ts';
import type { Part21File } from '../part21/file.ts';
import { Item, Ref, Typed, type Value } from '../part21/value.ts';

/** What this reader does not know, though it may be right: another one may. Names the entity and its type. */
export class UnknownStep extends Error {
  constructor(
    readonly what: string,
    readonly entity: number,
  ) {
    super(`#${entity}: ${what}`);
    this.name = 'UnknownStep';
  }
}

/**
 * The parameters of one type of an entity, by place. Whatever is not as ISO 10303 has it throws a {@link Part21Error} with the entity's number
 * and line.
 */
export class Fields {
  constructor(
    private readonly file: Part21File,
    readonly id: number,
    readonly type: string,
    private readonly args: readonly Value[],
  ) {}

  get count(): number {
    return this.args.length;
  }

  /** The entity that a parameter refers to. */
  ref(i: number): number {
    const v = this.at(i);
    if (v instanceof Ref) return v.id;
    throw this.wrong(i, 'an entity', v);
  }

  /** The same where it may be left out. */
  refOrNone(i: number): number | null {
    return this.at(i) === null ? null : this.ref(i);
  }

  refs(i: number): number[] {
    return this.list(i).map((v) => {
      if (v instanceof Ref) return v.id;
      throw this.wrong(i, 'a list of entities', v);
    });
  }

  number(i: number): number {
    return this.asNumber(i, this.at(i));
  }

  numbers(i: number): number[] {
    return this.list(i).map((v) => this.asNumber(i, v));
  }

  integer(i: number): number {
    const n = this.number(i);
    if (!Number.isInteger(n)) throw this.wrong(i, 'a whole number', n);
    return n;
  }

  integers(i: number): number[] {
    return this.numbers(i).map((n) => {
      if (!Number.isInteger(n)) throw this.wrong(i, 'a list of whole numbers', n);
      return n;
    });
  }

  /** Lists within a list. */
  grid<T>(i: number, read: (v: Value) => T): T[][] {
    return this.list(i).map((row) => {
      if (!Array.isArray(row)) throw this.wrong(i, 'a list of lists', row);
      return row.map(read);
    });
  }

  refGrid(i: number): number[][] {
    return this.grid(i, (v) => {
      if (v instanceof Ref) return v.id;
      throw this.wrong(i, 'a list of lists of entities', v);
    });
  }

  numberGrid(i: number): number[][] {
    return this.grid(i, (v) => this.asNumber(i, v));
  }

  /** A BOOLEAN; of a LOGICAL that is unknown, false. */
  flag(i: number): boolean {
    return this.item(i) === 'T';
  }

  item(i: number): string {
    const v = this.at(i);
    if (v instanceof Item) return v.name;
    throw this.wrong(i, 'a word between dots', v);
  }

  text(i: number): string {
    const v = this.at(i);
    return typeof v === 'string' ? v : '';
  }

  /** As it stands there. */
  value(i: number): Value {
    return this.at(i);
  }

  list(i: number): readonly Value[] {
    const v = this.at(i);
    if (Array.isArray(v)) return v;
    throw this.wrong(i, 'a list', v);
  }

  error(what: string): Part21Error {
    return new Part21Error(what, this.file.lineOf(this.id), this.id);
  }

  private at(i: number): Value {
    if (i >= this.args.length)
      throw this.error(`${this.type} has ${this.args.length} parameters; one more was expected`);
    return this.args[i];
  }

  /** A number, also where its type is named: `LENGTH_MEASURE(2.5)`. */
  private asNumber(i: number, v: Value): number {
    if (typeof v === 'number') return v;
    if (v instanceof Typed && typeof v.args[0] === 'number') return v.args[0];
    throw this.wrong(i, 'a number', v);
  }

  private wrong(i: number, wanted: string, found: Value): Part21Error {
    const is =
      found === null
        ? '$'
        : found === undefined
          ? '*'
          : found instanceof Ref
            ? `#${found.id}`
            : String(found);
    return this.error(`parameter ${i + 1} of ${this.type} is ${is.slice(0, 40)} in place of ${wanted}`);
  }
}

/** Types whose meaning is known here, whatever it is: where another is wanted they are wrong. */
const KNOWN =
  /^(CARTESIAN_POINT|DIRECTION|VECTOR|AXIS[12]_PLACEMENT(_3D)?|LINE|CIRCLE|ELLIPSE|PARABOLA|HYPERBOLA|POLYLINE|(B_SPLINE|TRIMMED|COMPOSITE|SURFACE|SEAM)_CURVE.*|PLANE|.*_SURFACE(_WITH_KNOTS)?|VERTEX_POINT|EDGE_CURVE|ORIENTED_(EDGE|FACE|CLOSED_SHELL)|(EDGE|POLY|VERTEX)_LOOP|FACE_(OUTER_)?BOUND|ADVANCED_FACE|FACE_SURFACE|(CLOSED|OPEN)_SHELL|.*_BREP|.*_UNIT|PRODUCT.*|.*REPRESENTATION.*)$/;

/** Entities of a file by number, with their parameters to be asked for. */
export class Entities {
  constructor(readonly file: Part21File) {}

  /** The types of an entity: one, or those of a complex one. */
  types(id: number): string[] {
    return this.file.entity(id).parts.map((p) => p.type);
  }

  /** The parameters of one of an entity's types; null where it is not of that type. */
  part(id: number, type: string): Fields | null {
    const part = this.file.entity(id).parts.find((p) => p.type === type);
    return part ? new Fields(this.file, id, part.type, part.args) : null;
  }

  /** The same of an entity that must be of the type. */
  need(id: number, type: string): Fields {
    const found = this.part(id, type);
    if (!found) throw this.error(id, `${type} was expected in place of ${this.types(id).join(' ')}`);
    return found;
  }

  /** The only type of an entity; null for a complex one. */
  only(id: number): Fields | null {
    const { parts } = this.file.entity(id);
    const [part] = parts;
    return part && parts.length === 1 ? new Fields(this.file, id, part.type, part.args) : null;
  }

  /**
   * What to say where an entity is not of the sort that is wanted: the file is damaged where it is of another sort that is known, else it may be
   * right and this reader does not know it.
   */
  other(id: number, wanted: string): Part21Error | UnknownStep {
    const types = this.types(id).join(' ');
    return this.types(id).some((t) => KNOWN.test(t))
      ? this.error(id, `${wanted} was expected in place of ${types}`)
      : new UnknownStep(`${types} is not known as ${wanted}`, id);
  }

  error(id: number, what: string): Part21Error {
    return new Part21Error(what, this.file.lineOf(id), id);
  }
}
