import { encodeText } from './text.ts';
import { Item, Ref, Typed, type Value } from './value.ts';

export interface Part21Header {
  description: string[];
  fileName: string;
  /** ISO 8601. */
  time: string;
  author: string;
  organisation: string;
  system: string;
  schemas: string[];
}

/** A whole number: written without a point, as EXPRESS tells INTEGER from REAL. */
export class Whole {
  constructor(readonly value: number) {}
}

type Written = Exclude<Value, Value[]> | Whole | readonly Written[];

/** Collects entities and writes them as one exchange file (ISO 10303-21, clear text). */
export class Part21Writer {
  private readonly lines: string[] = [];

  /** Adds an entity of one type; gives what refers to it. */
  add(type: string, ...args: Written[]): Ref {
    const ref = new Ref(this.lines.length + 1);
    this.lines.push(`#${ref.id}=${type}${list(args)};`);
    return ref;
  }

  text(h: Part21Header): string {
    return [
      'ISO-10303-21;',
      'HEADER;',
      `FILE_DESCRIPTION${list([h.description, '2;1'])};`,
      `FILE_NAME${list([h.fileName, h.time, [h.author], [h.organisation], h.system, h.system, ''])};`,
      `FILE_SCHEMA${list([h.schemas])};`,
      'ENDSEC;',
      'DATA;',
      ...this.lines,
      'ENDSEC;',
      'END-ISO-10303-21;',
      '',
    ].join('\n');
  }
}

const list = (values: readonly Written[]): string => `(${values.map(written).join(',')})`;

function written(v: Written): string {
  if (v === null) return '$';
  if (v === undefined) return '*';
  if (typeof v === 'number') return real(v);
  if (typeof v === 'string') return `'${encodeText(v)}'`;
  if (v instanceof Ref) return `#${v.id}`;
  if (v instanceof Item) return `.${v.name}.`;
  if (v instanceof Whole) return String(v.value);
  if (v instanceof Typed) return `${v.type}${list(v.args)}`;
  return list(v);
}

/** A REAL has a point, and a large E before its power of ten. */
function real(x: number): string {
  if (!Number.isFinite(x)) throw new RangeError(`${x} cannot be written in an exchange file`);
  const [digits = '', power] = String(x).split('e');
  return `${digits}${digits.includes('.') ? '' : '.'}${power === undefined ? '' : `E${power.replace('+', '')}`}`;
}
