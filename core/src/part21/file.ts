import { CLOSE, isDigit, lineAt, OPEN, SEMICOLON } from './bytes.ts';
import { Decoder } from './decode.ts';
import { Part21Error } from './error.ts';
import { scanPart21, type Sections } from './scan.ts';
import { Types } from './types.ts';
import type { Entity, Value } from './value.ts';

/** So many entities are kept decoded, each in the place of the last few digits of its number: they are asked for a few times on end. */
const RECENT = 1 << 10;

/** Ids that are at most so much larger than their count are looked up in an array, others in a map. */
const DENSE = 8;

/**
 * An exchange file of ISO 10303-21: a table of where its entities stand; each is decoded when it is asked for.
 * Throws {@link Part21Error} for what is no such file, an entity that stands twice, and one that is asked for and is not there.
 */
export class Part21File {
  private readonly sections: Sections;
  private readonly indexOf: (id: number) => number;
  private readonly types: Types;
  private readonly recent: (Entity | undefined)[] = new Array<Entity | undefined>(RECENT).fill(undefined);

  constructor(private readonly bytes: Uint8Array) {
    this.sections = scanPart21(bytes);
    this.indexOf = this.lookUp();
    this.types = new Types(bytes, this.sections.entities);
  }

  get count(): number {
    return this.sections.entities.count;
  }

  /** The schemas that the header names. */
  get schemas(): string[] {
    const [names] = this.header('FILE_SCHEMA');
    return Array.isArray(names) ? names.filter((n) => typeof n === 'string') : [];
  }

  /** Parameters of a header entity; none where it is missing. */
  header(type: string): Value[] {
    const start = this.sections.header.get(type);
    return start === undefined ? [] : new Decoder(this.bytes, start, null).list();
  }

  has(id: number): boolean {
    return this.indexOf(id) >= 0;
  }

  /** The entity `#id`, with the parameters of all its types. */
  entity(id: number): Entity {
    const before = this.recent[id % RECENT];
    if (before?.id === id) return before;
    const index = this.indexOf(id);
    if (index < 0) throw this.missing(id);
    const entity = { id, parts: this.decode(id, this.sections.entities.starts[index]!) };
    this.recent[id % RECENT] = entity;
    return entity;
  }

  /** Numbers of all entities that have this type, complex ones among them, in the order of the file. */
  ofType(type: string): number[] {
    return this.types.indices(type).map((i) => this.sections.entities.ids[i]!);
  }

  /** All of them, in the order of the file. */
  *entities(): Generator<Entity> {
    for (const id of this.sections.entities.ids) yield this.entity(id);
  }

  /** The line in which an entity stands; 0 where it is not there. */
  lineOf(id: number): number {
    const index = this.indexOf(id);
    return index < 0 ? 0 : lineAt(this.bytes, this.sections.entities.starts[index]!);
  }

  /** Says who refers to what is not there: looked for only then. */
  private missing(id: number): Part21Error {
    const { ids, starts, count } = this.sections.entities;
    const name = [...`#${id}`].map((c) => c.charCodeAt(0));
    const isHere = (at: number) =>
      name.every((c, k) => this.bytes[at + k] === c) && !isDigit(this.bytes[at + name.length] ?? 0);
    const what = `#${id} is referred to and is not in the file`;
    for (let i = 0; i < count; i++)
      for (let at = starts[i]!; at < this.bytes.length && this.bytes[at] !== SEMICOLON; at++)
        if (isHere(at)) return new Part21Error(what, lineAt(this.bytes, starts[i]!), ids[i]!);
    return new Part21Error(what, 0);
  }

  private decode(id: number, start: number): Entity['parts'] {
    const d = new Decoder(this.bytes, start, id);
    const type = d.type();
    if (type !== '') return [{ type, args: d.list() }];
    const parts: Entity['parts'] = [];
    if (!d.is(OPEN)) throw d.error('a type or a bracket was expected here');
    while (!d.is(CLOSE)) {
      const part = d.type();
      if (part === '') throw d.error('a type was expected here');
      parts.push({ type: part, args: d.list() });
    }
    return parts;
  }

  private lookUp(): (id: number) => number {
    const { ids, count } = this.sections.entities;
    let largest = 0;
    for (let i = 0; i < count; i++) largest = Math.max(largest, ids[i]!);
    const twice = (i: number) =>
      new Part21Error(
        'this number stands twice in the file',
        lineAt(this.bytes, this.sections.entities.starts[i]!),
        ids[i]!,
      );
    if (largest < DENSE * count + 1024) {
      const places = new Int32Array(largest + 1).fill(-1);
      for (let i = 0; i < count; i++) {
        if (places[ids[i]!] !== -1) throw twice(i);
        places[ids[i]!] = i;
      }
      return (id) => places[id] ?? -1;
    }
    const places = new Map<number, number>();
    for (let i = 0; i < count; i++) {
      if (places.has(ids[i]!)) throw twice(i);
      places.set(ids[i]!, i);
    }
    return (id) => places.get(id) ?? -1;
  }
}
