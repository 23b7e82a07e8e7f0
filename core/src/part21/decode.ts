import {
  CLOSE,
  COMMA,
  DOLLAR,
  DOT,
  DOUBLE_QUOTE,
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
  PLUS,
  QUOTE,
  STAR,
} from './bytes.ts';
import { Part21Error } from './error.ts';
import { decodeText } from './text.ts';
import { Item, Ref, Typed, type Value } from './value.ts';

/** Lists within lists go no deeper in any schema: beyond this a file wants to exhaust the reader. */
const DEEPEST = 60;

const LATIN = new TextDecoder('latin1');
const UTF8 = new TextDecoder('utf-8');
const ITEMS = new Map<string, Item>();
const POWERS = Array.from({ length: 16 }, (_, k) => 10 ** k);
/** Types that were met before, by a number of their bytes; what has the same number is compared. */
const TYPES = new Map<number, string>();

/** Reads parameters from the bytes of a file, from a place on; keeps where it stands. */
export class Decoder {
  private depth = 0;

  constructor(
    private readonly b: Uint8Array,
    private at: number,
    /** For messages. */
    private readonly id: number | null,
  ) {}

  /** The type that stands here, in capitals; empty before a bracket. */
  type(): string {
    const { b } = this;
    this.at = pastBlanks(b, this.at);
    const from = this.at;
    if (b[this.at] === EXCLAMATION) this.at++;
    let hash = 0;
    for (; this.at < b.length && isWord(b[this.at]!); this.at++)
      hash = (Math.imul(hash, 31) + b[this.at]!) | 0;
    const known = TYPES.get(hash);
    if (known !== undefined && this.isWritten(known, from)) return known;
    const type = LATIN.decode(b.subarray(from, this.at)).toUpperCase();
    if (TYPES.size < 2000) TYPES.set(hash, type);
    return type;
  }

  private isWritten(type: string, from: number): boolean {
    if (this.at - from !== type.length) return false;
    for (let k = 0; k < type.length; k++) if (type.charCodeAt(k) !== this.b[from + k]) return false;
    return true;
  }

  /** Whether the byte comes next; passes it where it does. */
  is(byte: number): boolean {
    this.at = pastBlanks(this.b, this.at);
    if (this.b[this.at] !== byte) return false;
    this.at++;
    return true;
  }

  /** What stands in brackets here, without the brackets. */
  list(): Value[] {
    if (!this.is(OPEN)) throw this.error('a bracket was expected here');
    if (++this.depth > DEEPEST) throw this.error(`lists stand more than ${DEEPEST} deep in each other`);
    const out: Value[] = [];
    if (!this.is(CLOSE)) {
      do out.push(this.value());
      while (this.is(COMMA));
      if (!this.is(CLOSE)) throw this.error('a comma or the closing bracket is missing');
    }
    this.depth--;
    return out;
  }

  private value(): Value {
    const { b } = this;
    this.at = pastBlanks(b, this.at);
    const byte = b[this.at] ?? 0;
    if (byte === HASH) return this.reference();
    if (byte === OPEN) return this.list();
    if (byte === QUOTE) return this.text();
    if (byte === DOLLAR) return this.past(null);
    if (byte === STAR) return this.past(undefined);
    if (isDigit(byte) || byte === MINUS || byte === PLUS) return this.number();
    if (byte === DOT) return isDigit(b[this.at + 1] ?? 0) ? this.number() : this.item();
    if (byte === DOUBLE_QUOTE) return this.binary();
    if (isLetter(byte) || byte === EXCLAMATION) {
      const from = this.at;
      const type = this.type();
      if (!this.is(OPEN)) {
        this.at = from;
        throw this.error(`${type} is no value`);
      }
      this.at--;
      return new Typed(type, this.list());
    }
    throw this.error(`“${String.fromCharCode(byte)}” is no value`);
  }

  private past<T>(value: T): T {
    this.at++;
    return value;
  }

  private reference(): Ref {
    const { b } = this;
    const from = ++this.at;
    let id = 0;
    while (this.at < b.length && isDigit(b[this.at]!)) id = id * 10 + b[this.at++]! - 48;
    if (this.at === from) throw this.error('# is not followed by a number of an entity');
    return new Ref(id);
  }

  private number(): number {
    const { b } = this;
    const from = this.at;
    let at = from;
    const isMinus = b[at] === MINUS;
    if (isMinus || b[at] === PLUS) at++;
    // Digits as one whole number and how many of them stand after the point: exact up to 2^53 and 10^22.
    let [digits, whole, places] = [0, 0, 0];
    for (; isDigit(b[at] ?? 0); at++, digits++) whole = whole * 10 + b[at]! - 48;
    if (b[at] === DOT)
      for (at++; isDigit(b[at] ?? 0); at++, digits++, places++) whole = whole * 10 + b[at]! - 48;
    const next = b[at] ?? 0;
    if (digits > 15 || digits === 0 || isLetter(next) || next === HASH || next === DOT)
      return this.longNumber();
    this.at = at;
    const n = whole / POWERS[places]!;
    return isMinus ? -n : n;
  }

  /** One with a power of ten, with more digits than a whole number holds, or that is none. */
  private longNumber(): number {
    const { b } = this;
    const from = this.at;
    // Signs stand before a number, and before its power of ten.
    for (; this.at < b.length; this.at++) {
      const byte = b[this.at]!;
      const isSign =
        (byte === MINUS || byte === PLUS) && (this.at === from || (b[this.at - 1]! | 32) === 101);
      if (!isDigit(byte) && byte !== DOT && (byte | 32) !== 101 && !isSign) break;
    }
    const text = LATIN.decode(b.subarray(from, this.at));
    const n = Number(text);
    // Some runtimes print 1.#QNAN and its like for what is no number.
    if (!Number.isFinite(n) || b[this.at] === HASH || isLetter(b[this.at] ?? 0))
      throw this.error(`${LATIN.decode(b.subarray(from, this.at + 8)).split(/[,)\s]/)[0]} is no number`);
    return n;
  }

  private item(): Item {
    const { b } = this;
    const from = this.at + 1;
    let to = from;
    while (to < b.length && isWord(b[to]!)) to++;
    if (to === from || b[to] !== DOT) throw this.error('a dot stands where a value was expected');
    this.at = to + 1;
    const name = LATIN.decode(b.subarray(from, to)).toUpperCase();
    let item = ITEMS.get(name);
    if (!item) {
      item = new Item(name);
      // Only what schemas have stays: a hostile file must not fill the memory.
      if (ITEMS.size < 500) ITEMS.set(name, item);
    }
    return item;
  }

  private text(): string {
    const { b } = this;
    const past = pastText(b, this.at);
    if (past < 0) throw this.error('a text is never closed');
    const raw = b.subarray(this.at + 1, past - 1);
    this.at = past;
    return decodeText(readable(raw));
  }

  /** Bits as hexadecimal digits between double quotes; no geometry has them, and they stay text. */
  private binary(): string {
    const from = ++this.at;
    const { b } = this;
    while (this.at < b.length && b[this.at] !== DOUBLE_QUOTE) this.at++;
    return LATIN.decode(b.subarray(from, this.at++));
  }

  error(what: string): Part21Error {
    return new Part21Error(what, lineAt(this.b, this.at), this.id);
  }
}

/** Edition 3 has UTF-8 in strings; where bytes are none, they are ISO 8859-1. A line's end within a string is no part of it. */
function readable(raw: Uint8Array): string {
  if (raw.length === 0) return '';
  const text = UTF8.decode(raw);
  return (text.includes('\ufffd') ? LATIN.decode(raw) : text).replace(/[\r\n]/g, '');
}
