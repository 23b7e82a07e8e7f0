import {
  CLOSE,
  EQUALS,
  EXCLAMATION,
  HASH,
  isDigit,
  isLetter,
  isWord,
  lineAt,
  MINUS,
  OPEN,
  pastBlanks,
  pastText,
  QUOTE,
  SEMICOLON,
  SLASH,
} from './bytes.ts';
import { Part21Error } from './error.ts';

/** Where the entities of a file stand, in the order in which they stand there. */
export interface EntityTable {
  count: number;
  /** Their numbers (`#12`). */
  ids: Uint32Array;
  /** The byte at which the type, or the bracket of a complex one, begins. */
  starts: Uint32Array;
}

export interface Sections {
  /** Where the parameters of header entities stand, by type in capitals. */
  header: Map<string, number>;
  entities: EntityTable;
}

const LARGEST_ID = 0xffffffff;

/**
 * Finds every entity of an exchange file (ISO 10303-21, editions 1 to 3) in one pass, in time that grows as its bytes do. Nothing is decoded:
 * that is done when an entity is asked for. Several and named DATA sections are one; anchors, references and signatures are passed over.
 * Throws {@link Part21Error} for what is no such file, is cut off, or lacks a bracket or a semicolon.
 */
export function scanPart21(bytes: Uint8Array): Sections {
  return new Scanner(bytes).run();
}

class Scanner {
  private at = 0;
  private count = 0;
  private ids = new Uint32Array(1024);
  private starts = new Uint32Array(1024);
  private readonly header = new Map<string, number>();

  constructor(private readonly b: Uint8Array) {}

  run(): Sections {
    const { b } = this;
    if (b[0] === 0xef && b[1] === 0xbb && b[2] === 0xbf) this.at = 3;
    if (this.keyword() !== 'ISO-10303-21') throw this.error('it does not begin with ISO-10303-21', 0);
    this.semicolon();
    let hasData = false;
    for (;;) {
      const from = pastBlanks(b, this.at);
      const section = this.keyword();
      if (section === 'END-ISO-10303-21') break;
      if (section === '')
        throw this.error(from >= b.length ? this.cutOff : 'a section was expected here', from);
      if (section === 'DATA') {
        hasData = true;
        this.pastParameters();
        this.semicolon();
        this.data();
      } else if (section === 'HEADER') {
        this.semicolon();
        this.headerSection();
      } else this.pastSection();
    }
    if (!hasData) throw this.error('it has no DATA section', 0);
    return {
      header: this.header,
      entities: {
        count: this.count,
        ids: this.ids.subarray(0, this.count),
        starts: this.starts.subarray(0, this.count),
      },
    };
  }

  private readonly cutOff = 'it ends without END-ISO-10303-21: it was cut off';

  private headerSection(): void {
    for (;;) {
      const type = this.keyword();
      if (type === 'ENDSEC') return this.semicolon();
      this.at = pastBlanks(this.b, this.at);
      if (type === '' || this.b[this.at] !== OPEN)
        throw this.error('a header entity was expected here', this.at);
      this.header.set(type, this.at);
      this.at = this.pastBrackets(this.at, null);
      this.semicolon();
    }
  }

  private data(): void {
    const { b } = this;
    for (;;) {
      this.at = pastBlanks(b, this.at);
      if (b[this.at] !== HASH) {
        const from = this.at;
        if (this.keyword() === 'ENDSEC') return this.semicolon();
        throw this.error(from >= b.length ? this.cutOff : 'an entity (#number = …) was expected here', from);
      }
      this.entity();
    }
  }

  private entity(): void {
    const { b } = this;
    const from = this.at;
    let id = 0;
    let i = from + 1;
    for (; i < b.length && isDigit(b[i]!); i++) id = id * 10 + b[i]! - 48;
    if (i === from + 1 || id > LARGEST_ID)
      throw this.error('# is not followed by a number of an entity', from);
    i = pastBlanks(b, i);
    if (b[i] !== EQUALS) throw this.error('“=” is missing after the number', from, id);
    i = pastBlanks(b, i + 1);
    this.add(id, i);
    // Types that a file defines for itself begin with an exclamation mark.
    if (b[i] === EXCLAMATION) i++;
    while (i < b.length && isWord(b[i]!)) i++;
    i = pastBlanks(b, i);
    if (b[i] !== OPEN) throw this.error('a type with its parameters was expected', i, id);
    this.at = this.pastBrackets(i, id);
    this.at = pastBlanks(b, this.at);
    if (b[this.at] !== SEMICOLON) throw this.error('the semicolon at the end is missing', this.at, id);
    this.at++;
  }

  private add(id: number, start: number): void {
    if (this.count === this.ids.length) {
      const more = (old: Uint32Array) => {
        const larger = new Uint32Array(old.length * 2);
        larger.set(old);
        return larger;
      };
      this.ids = more(this.ids);
      this.starts = more(this.starts);
    }
    this.ids[this.count] = id;
    this.starts[this.count++] = start;
  }

  /** Past the bracket that closes the one at `from`. */
  private pastBrackets(from: number, id: number | null): number {
    const { b } = this;
    let depth = 0;
    for (let i = from; i < b.length;) {
      const byte = b[i]!;
      if (byte === QUOTE) {
        i = pastText(b, i);
        if (i < 0) throw this.error('a text is never closed', from, id);
        continue;
      }
      if (byte === SLASH) {
        const past = pastBlanks(b, i);
        if (past === i) throw this.error('“/” stands where a value was expected', i, id);
        i = past;
        continue;
      }
      if (byte === OPEN) depth++;
      else if (byte === CLOSE) {
        if (--depth === 0) return i + 1;
      } else if (byte === SEMICOLON || byte === EQUALS)
        throw this.error('a bracket is never closed', from, id);
      i++;
    }
    throw this.error(this.cutOff, from, id);
  }

  /** Edition 3 names its DATA sections: `DATA('part',('SCHEMA'));`. */
  private pastParameters(): void {
    this.at = pastBlanks(this.b, this.at);
    if (this.b[this.at] === OPEN) this.at = this.pastBrackets(this.at, null);
  }

  /** Past a section whose content is of no use here, to the end of its ENDSEC. */
  private pastSection(): void {
    const { b } = this;
    const from = this.at;
    while (this.at < b.length) {
      this.at = pastBlanks(b, this.at);
      const byte = b[this.at]!;
      if (byte === QUOTE) {
        this.at = pastText(b, this.at);
        if (this.at < 0) throw this.error('a text is never closed', from);
      } else if (isLetter(byte)) {
        if (this.keyword() === 'ENDSEC') return this.semicolon();
      } else this.at++;
    }
    throw this.error(this.cutOff, from);
  }

  /** The keyword here, in capitals, with the hyphens of the first and last one; empty where there is none. */
  private keyword(): string {
    const { b } = this;
    this.at = pastBlanks(b, this.at);
    if (!isLetter(b[this.at] ?? 0)) return '';
    let word = '';
    for (; this.at < b.length && (isWord(b[this.at]!) || b[this.at] === MINUS); this.at++)
      if (word.length < 40) word += String.fromCharCode(b[this.at]!);
    return word.toUpperCase();
  }

  private semicolon(): void {
    const from = this.at;
    this.at = pastBlanks(this.b, this.at);
    if (this.b[this.at] !== SEMICOLON)
      throw this.error(this.at >= this.b.length ? this.cutOff : 'a semicolon is missing', from);
    this.at++;
  }

  private error(what: string, at: number, id: number | null = null): Part21Error {
    return new Part21Error(what, lineAt(this.b, at), id);
  }
}
