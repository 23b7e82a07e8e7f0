import { at as entryAt } from '../../lists.ts';
const A = 65;
const Z = 90;
const SPACE = 32;

/** Exact powers of ten: a mantissa of up to 15 digits divided by one of them is rounded once, as Number() would. */
const TEN = Array.from({ length: 16 }, (_, i) => 10 ** i);

/** Place of a letter in {@link Block.words}. */
export const letter = (name: string): number => name.charCodeAt(0) - A;

const G = letter('G');
const M = letter('M');
const N = letter('N');
const O = letter('O');
const P = letter('P');
const KNOWN = new Set([...'GMTSFXYZRQPIJKHDLNOU'].map(letter));
/** Letters that count or name something: whole numbers only. */
const WHOLE = new Set([...'THDL'].map(letter));
/** Letters that are never negative. */
const NOT_NEGATIVE = new Set([...'THDLSPQF'].map(letter));
/** Lengths: written without a point, many controls read them in thousandths. */
const LENGTHS = new Set([...'XYZRQIJ'].map(letter));

/**
 * One line's words, split by the rules of word-address code (ISO 6983-1). Comments in brackets and after a semicolon are dropped; block
 * numbers carry no meaning. One block is filled again for each line: long programs make no garbage.
 */
export class Block {
  /** Value of each letter but G and M; NaN where it does not stand in the line. */
  readonly words = new Float64Array(26);
  readonly g: number[] = [];
  readonly m: number[] = [];
  /** P was written with a decimal point (dwell times read differently). */
  decimalP = false;
  /** Words whose letter has no meaning, as written. */
  readonly unknown: string[] = [];
  /** The first length written without a decimal point, noughts aside; null where there is none. */
  withoutPoint: string | null = null;
  /** Program or subprogram number, NaN where none begins here. */
  label = NaN;
  /** The line begins with `/`: a switch at the machine may leave it out. */
  skippable = false;
  /** What could not be read: a rule and plain words. */
  fault: { rule: string; text: string } | null = null;
  private position = 0;
  private hasPoint = false;

  /** Reads text[start, end); false for a line without words. */
  read(text: string, start: number, end: number): boolean {
    this.words.fill(NaN);
    if (this.g.length > 0) this.g.length = 0;
    if (this.m.length > 0) this.m.length = 0;
    this.decimalP = false;
    if (this.unknown.length > 0) this.unknown.length = 0;
    this.withoutPoint = null;
    this.label = NaN;
    this.skippable = false;
    this.fault = null;
    this.position = start;
    let any = false;
    while (this.position < end && this.fault === null) {
      const c = text.charCodeAt(this.position);
      if (c <= SPACE) this.position++;
      else if (c === 47 && !any) {
        this.skippable = true;
        this.position++;
      } else if (c === 59) break;
      else if (c === 40) this.skipComment(text, end);
      else any = this.word(text, end, c) || any;
    }
    return any || this.fault !== null;
  }

  /** The line's words as taken so far: "G17 G90 S500". */
  taken(): string {
    const plain = [...this.words].flatMap((v, i) =>
      Number.isNaN(v) || LENGTHS.has(i) ? [] : [`${String.fromCharCode(A + i)}${v}`],
    );
    return [...this.g.map((v) => `G${v}`), ...this.m.map((v) => `M${v}`), ...plain].join(' ');
  }

  private skipComment(text: string, end: number): void {
    const close = text.indexOf(')', this.position);
    if (close < 0 || close >= end)
      this.fault = { rule: 'unreadable', text: 'a comment is opened and not closed' };
    else if (text.slice(this.position + 1, close).includes('('))
      this.fault = {
        rule: 'bracket-in-comment',
        text: 'a comment holds a second opening bracket, where many controls stop. Take the inner brackets out',
      };
    this.position = close + 1;
  }

  private word(text: string, end: number, code: number): boolean {
    const c = code >= 97 && code <= 122 ? code - SPACE : code;
    if (c === 35 || c === 91) return this.fail('unreadable', 'variables and expressions are not supported');
    if (c < A || c > Z) return this.fail('unreadable', `"${text[this.position]}" has no meaning here`);
    this.position++;
    while (this.position < end && text.charCodeAt(this.position) <= SPACE) this.position++;
    const value = this.number(text, end);
    const at = c - A;
    const name = String.fromCharCode(c);
    if (Number.isNaN(value)) {
      const next = this.position < end ? text.charCodeAt(this.position) : 0;
      return this.fail(
        'unreadable',
        next === 35 || next === 91
          ? 'variables and expressions are not supported'
          : `the word ${name} has no number`,
      );
    }
    if (at === G) this.g.push(value);
    else if (at === M) this.m.push(value);
    else if (at === O) {
      // A letter typed for a nought would otherwise pass as a program number in the middle of a line.
      if (this.hasWords())
        return this.fail('unreadable', 'a letter O stands where only a number can: type a nought');
      this.label = value;
    } else if (!KNOWN.has(at)) this.unknown.push(`${name}${value}`);
    else if (at !== N) {
      if (!Number.isNaN(entryAt(this.words, at))) return this.fail('word-twice', `${name} stands twice`);
      if (NOT_NEGATIVE.has(at) && value < 0)
        return this.fail('bad-number', `${name}${value} cannot be negative`);
      if (WHOLE.has(at) && !Number.isInteger(value))
        return this.fail('bad-number', `${name}${value} must be a whole number`);
      this.words[at] = value;
      if (at === P) this.decimalP = this.hasPoint;
      if (!this.hasPoint && value !== 0 && LENGTHS.has(at)) this.withoutPoint ??= `${name}${value}`;
    } else return false;
    return true;
  }

  private hasWords(): boolean {
    if (this.g.length > 0 || this.m.length > 0 || this.unknown.length > 0 || !Number.isNaN(this.label))
      return true;
    return this.words.some((v) => !Number.isNaN(v));
  }

  private fail(rule: string, text: string): boolean {
    this.fault = { rule, text };
    return true;
  }

  /** A number at the position, which moves behind it; NaN where there is none. */
  private number(text: string, end: number): number {
    const start = this.position;
    let i = start;
    let sign = 1;
    const first = i < end ? text.charCodeAt(i) : 0;
    if (first === 45 || first === 43) {
      if (first === 45) sign = -1;
      i++;
    }
    let mantissa = 0;
    let digits = 0;
    let decimals = 0;
    this.hasPoint = false;
    for (; i < end; i++) {
      const d = text.charCodeAt(i);
      if (d >= 48 && d <= 57) {
        mantissa = mantissa * 10 + (d - 48);
        digits++;
        if (this.hasPoint) decimals++;
      } else if (d === 46 && !this.hasPoint) this.hasPoint = true;
      else break;
    }
    this.position = i;
    if (digits === 0) return NaN;
    // A second point or sign inside a number makes it unreadable rather than two words.
    if (i < end && (text.charCodeAt(i) === 46 || text.charCodeAt(i) === 45)) return NaN;
    return digits <= 15 ? (sign * mantissa) / entryAt(TEN, decimals) : Number(text.slice(start, i));
  }
}
