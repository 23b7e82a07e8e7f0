/** What one pass over the bytes of a STEP file tells, before anything is decoded or built. */
export interface StepScan {
  /** It begins with ISO-10303-21, after blanks and a byte order mark at most. */
  begins: boolean;
  isBlank: boolean;
  hasData: boolean;
  /** END-ISO-10303-21; stands outside strings and comments. */
  ends: boolean;
  hasEntity: boolean;
  /** Lines up to the end, for messages. */
  lines: number;
  /** First two arguments of the first PRODUCT, as written between their quotes; null where there is none. */
  product: [Uint8Array, Uint8Array] | null;
  schema: Uint8Array | null;
  /** Names of all CONVERSION_BASED_UNITs. */
  unitNames: Uint8Array[];
  /** The first number that no part has: its text and line. */
  oddNumber: { text: string; line: number } | null;
}

/** Beyond this no length, angle or weight of a part is meant: the file is damaged, and kernels go astray. */
const LARGEST = 1e30;
/** Unit names are looked at up to this many: a file has a handful. */
const MOST_UNITS = 100;

const [QUOTE, SLASH, STAR, HASH, EQUALS, OPEN, COMMA, SEMICOLON] = [39, 47, 42, 35, 61, 40, 44, 59];
const [BLANK, LETTER, DIGIT] = [1, 2, 3];
/** Class of a byte: blank, letter of a word, first of a number; 0 for the rest. */
const KIND = new Uint8Array(256);
for (const b of [9, 10, 11, 12, 13, 32]) KIND[b] = BLANK;
for (let b = 65; b <= 90; b++) KIND[b] = KIND[b + 32] = LETTER;
KIND[95] = LETTER;
for (let b = 48; b <= 57; b++) KIND[b] = DIGIT;
for (const b of [43, 45, 46]) KIND[b] = DIGIT;
/** What a word goes on with: letters, digits and, for END-ISO-10303-21, hyphens. */
const IN_WORD = new Uint8Array(256);
for (let b = 0; b < 256; b++) IN_WORD[b] = KIND[b] === LETTER || (b >= 48 && b <= 57) || b === 45 ? 1 : 0;

const NOT_NUMBERS = new Set(['NAN', 'INF', 'INFINITY', 'QNAN', 'IND']);
const WORDS = new Set(['DATA', 'PRODUCT', 'FILE_SCHEMA', 'CONVERSION_BASED_UNIT', 'END-ISO-10303-21']);
const LONGEST_WORD = 24;
/** By length and first letter: nearly every other word is told from these without making a text of it. */
const MAY_MATTER = new Uint8Array(32 * (LONGEST_WORD + 1));
const shapeOf = (length: number, letter: number): number => 32 * length + (letter & 31);
for (const w of [...WORDS, ...NOT_NUMBERS]) MAY_MATTER[shapeOf(w.length, w.charCodeAt(0))] = 1;

/** Reads the bytes once, in time that grows as they do whatever they hold. */
export function scanStep(bytes: Uint8Array): StepScan {
  return new Scanner(bytes).run();
}

class Scanner {
  private at = 0;
  private readonly out: StepScan = {
    begins: false,
    isBlank: false,
    hasData: false,
    ends: false,
    hasEntity: false,
    lines: 1,
    product: null,
    schema: null,
    unitNames: [],
    oddNumber: null,
  };

  constructor(private readonly b: Uint8Array) {}

  run(): StepScan {
    const { b, out } = this;
    if (b[0] === 0xef && b[1] === 0xbb && b[2] === 0xbf) this.at = 3;
    this.skip();
    out.isBlank = this.at >= b.length;
    out.begins = this.firstWord() === 'ISO-10303-21' && this.is(SEMICOLON);
    if (!out.begins) return out;
    while (this.at < b.length) this.token();
    return out;
  }

  private token(): void {
    const { b } = this;
    const byte = b[this.at]!;
    const kind = KIND[byte]!;
    if (kind === BLANK || byte === SLASH) {
      const before = this.at;
      this.skip();
      if (this.at === before) this.at++;
    } else if (byte === QUOTE) this.string();
    else if (kind === LETTER) this.keyword();
    else if (kind === DIGIT) this.number();
    else if (byte === HASH) this.reference();
    else this.at++;
  }

  /** Past blanks and comments. */
  private skip(): void {
    const { b } = this;
    for (;;) {
      while (this.at < b.length && KIND[b[this.at]!] === BLANK) if (b[this.at++] === 10) this.out.lines++;
      if (b[this.at] !== SLASH || b[this.at + 1] !== STAR) return;
      this.at += 2;
      while (this.at < b.length && !(b[this.at] === STAR && b[this.at + 1] === SLASH))
        if (b[this.at++] === 10) this.out.lines++;
      this.at += 2;
    }
  }

  private is(byte: number): boolean {
    this.skip();
    if (this.b[this.at] !== byte) return false;
    this.at++;
    return true;
  }

  /** What stands between the quotes, doubled ones left as they are. */
  private string(): Uint8Array {
    const { b } = this;
    const from = ++this.at;
    while (this.at < b.length) {
      if (b[this.at] === 10) this.out.lines++;
      if (b[this.at] === QUOTE) {
        if (b[this.at + 1] !== QUOTE) break;
        this.at++;
      }
      this.at++;
    }
    return b.subarray(from, this.at++);
  }

  private firstWord(): string {
    const from = this.at;
    this.pastWord();
    return this.text(from).toUpperCase();
  }

  private pastWord(): void {
    while (this.at < this.b.length && IN_WORD[this.b[this.at]!]) this.at++;
  }

  private keyword(): void {
    const { b, out } = this;
    const from = this.at;
    this.pastWord();
    if (MAY_MATTER[shapeOf(this.at - from, b[from]!)] !== 1) return;
    const word = this.text(from).toUpperCase();
    if (NOT_NUMBERS.has(word)) this.odd(from);
    if (!WORDS.has(word)) return;
    if (word === 'DATA') {
      // Edition 3 names its sections: DATA('part',('SCHEMA'));
      if (this.is(OPEN)) this.pastBracket();
      if (this.is(SEMICOLON)) out.hasData = true;
    } else if (word === 'END-ISO-10303-21') out.ends ||= this.is(SEMICOLON);
    else if (this.is(OPEN)) this.argumentsOf(word);
  }

  private pastBracket(): void {
    for (let depth = 1; depth > 0 && this.at < this.b.length;) {
      const byte = this.b[this.at]!;
      if (byte === SEMICOLON) return;
      if (byte === QUOTE) this.string();
      else {
        if (byte === 10) this.out.lines++;
        depth += byte === OPEN ? 1 : byte === 41 ? -1 : 0;
        this.at++;
      }
    }
  }

  private argumentsOf(word: string): void {
    const { out } = this;
    if (word === 'FILE_SCHEMA') {
      if (this.is(OPEN) && this.isQuote()) out.schema ??= this.string();
    } else if (word === 'CONVERSION_BASED_UNIT') {
      if (this.isQuote() && out.unitNames.length < MOST_UNITS) out.unitNames.push(this.string());
    } else if (out.product === null && this.isQuote()) {
      const id = this.string();
      if (this.is(COMMA) && this.isQuote()) out.product = [id, this.string()];
    }
  }

  private isQuote(): boolean {
    this.skip();
    return this.b[this.at] === QUOTE;
  }

  private number(): void {
    const { b } = this;
    const from = this.at;
    let isLong = false;
    while (this.at < b.length) {
      const byte = b[this.at]!;
      if (KIND[byte] !== DIGIT && byte !== 69 && byte !== 101) break;
      isLong ||= byte === 69 || byte === 101;
      this.at++;
    }
    // 1.#QNAN and its like, as some runtimes print what is no number.
    if (b[this.at] === HASH && KIND[b[this.at + 1]!] === LETTER) this.odd(from);
    if ((isLong || this.at - from > 30) && !(Math.abs(Number(this.text(from))) <= LARGEST)) this.odd(from);
  }

  private reference(): void {
    const { b } = this;
    const from = ++this.at;
    while (this.at < b.length && b[this.at]! >= 48 && b[this.at]! <= 57) this.at++;
    if (this.out.hasEntity || this.at === from) return;
    this.skip();
    this.out.hasEntity = b[this.at] === EQUALS;
  }

  private odd(from: number): void {
    this.out.oddNumber ??= { text: this.text(from).slice(0, 40), line: this.out.lines };
  }

  private text(from: number): string {
    let s = '';
    for (let i = from; i < this.at && i < from + 64; i++) s += String.fromCharCode(this.b[i]!);
    return s;
  }
}
