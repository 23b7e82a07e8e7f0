import { isWord, OPEN, pastBlanks, pastText, QUOTE, CLOSE } from './bytes.ts';
import type { EntityTable } from './scan.ts';

/** Of which types a file's entities are: no text is made for one that was met before. */
export class Types {
  private readonly names = new Map<number, { name: string; indices: number[] }[]>();

  constructor(
    private readonly b: Uint8Array,
    table: EntityTable,
  ) {
    for (let i = 0; i < table.count; i++) {
      const start = table.starts[i]!;
      if (b[start] === OPEN) this.complex(start, i);
      else this.word(start, i);
    }
  }

  /** Places in the table of the entities of a type (in capitals), ascending. */
  indices(type: string): readonly number[] {
    let hash = 0;
    for (let k = 0; k < type.length; k++) hash = mixed(hash, type.charCodeAt(k));
    return this.names.get(hash)?.find((n) => n.name === type)?.indices ?? [];
  }

  /** The types of `(A(…)B(…))`: words at depth one. */
  private complex(start: number, index: number): void {
    const { b } = this;
    let depth = 0;
    for (let i = start; i < b.length;) {
      i = pastBlanks(b, i);
      const byte = b[i]!;
      if (byte === QUOTE) {
        i = pastText(b, i);
        if (i < 0) return;
      } else if (byte === CLOSE && --depth === 0) return;
      else if (depth === 1 && isWord(byte)) i = this.word(i, index);
      else {
        if (byte === OPEN) depth++;
        i++;
      }
    }
  }

  /** Notes the word at a place as a type of an entity; gives the place past it. */
  private word(from: number, index: number): number {
    const { b } = this;
    let hash = 0;
    let to = from;
    for (; to < b.length && (isWord(b[to]!) || to === from); to++) hash = mixed(hash, capital(b[to]!));
    let same = this.names.get(hash);
    if (!same) this.names.set(hash, (same = []));
    let known = same.find((n) => this.isName(n.name, from, to));
    if (!known) {
      let name = '';
      for (let k = from; k < to; k++) name += String.fromCharCode(capital(b[k]!));
      same.push((known = { name, indices: [] }));
    }
    known.indices.push(index);
    return to;
  }

  private isName(name: string, from: number, to: number): boolean {
    if (name.length !== to - from) return false;
    for (let k = from; k < to; k++) if (name.charCodeAt(k - from) !== capital(this.b[k]!)) return false;
    return true;
  }
}

const capital = (b: number): number => (b >= 97 && b <= 122 ? b - 32 : b);
/** FNV-1a. */
const mixed = (hash: number, byte: number): number => Math.imul(hash ^ byte, 0x01000193) >>> 0;
