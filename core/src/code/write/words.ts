import type { MachineProfile } from '../profiles/schema.ts';
import { MM_PER_INCH } from '../../units/length.ts';

/** Formats numbers and comments the way a profile wants them. */
export class Words {
  constructor(
    private readonly profile: MachineProfile,
    private readonly units: 'mm' | 'inch',
  ) {}

  /** What one of the program's units measures, mm. */
  get mm(): number {
    return this.units === 'mm' ? 1 : MM_PER_INCH;
  }

  /** A coordinate, always with a decimal point and no needless zeros: `12.7`, `-3.`, `0.`. */
  coordinate(mm: number): string {
    return this.decimal(this.units === 'mm' ? mm : mm / MM_PER_INCH, this.profile.decimals[this.units]);
  }

  /** A tap's feed keeps every digit of pitch × speed; any other is rounded to what a person would set. */
  feed(mmPerMin: number, exact: boolean): string {
    const digits = exact ? this.profile.decimals[this.units] : this.units === 'mm' ? 0 : 1;
    // However small, a feed is never written as none.
    const own = Math.max(10 ** -digits, mmPerMin / this.mm);
    const s = this.decimal(own, digits);
    return s.includes('.') ? s : `${s}.`;
  }

  dwell(seconds: number): string {
    return this.profile.dwellUnit === 'milliseconds'
      ? `P${Math.round(seconds * 1000)}`
      : `P${this.decimal(seconds, 3)}`;
  }

  /** A comment as lines of its own, none longer than the control shows; none at all where it takes none. */
  comment(text: string): string[] {
    const { commentStyle, commentLength } = this.profile;
    if (commentStyle === 'none') return [];
    return folded(asciiComment(text), commentLength).map((line) =>
      commentStyle === 'parentheses' ? `(${line})` : `; ${line}`,
    );
  }

  /** A block as the profile spells it: spaces between words or none, `G01` or `G1`. */
  spelled(block: string): string {
    const { wordSpaces, twoDigitWords } = this.profile;
    const words = twoDigitWords ? block.replace(/\b([GM])(\d)(?![\d.])/g, '$10$2') : block;
    return wordSpaces ? words : words.replace(/ /g, '');
  }

  private decimal(v: number, digits: number): string {
    const s = digits > 0 ? v.toFixed(digits).replace(/0+$/, '') : v.toFixed(0);
    return /^-0\.$/.test(s) ? '0.' : s;
  }
}

/** A text in lines of a length at most, broken between words; a word that is longer is broken in itself. */
export function folded(text: string, longest: number): string[] {
  const out: string[] = [];
  let rest = text;
  while (rest.length > longest) {
    const space = rest.lastIndexOf(' ', longest);
    const end = space > 0 ? space : longest;
    out.push(rest.slice(0, end));
    rest = rest.slice(end).trimStart();
  }
  return [...out, rest];
}

/** Upper-case ASCII without brackets: what any control can show. */
export function asciiComment(text: string): string {
  return text
    .replace(/[⌀Ø]/g, 'D')
    .replace(/°/g, ' DEG')
    .replace(/×/g, 'X')
    .replace(/↧\s*/g, 'DEEP ')
    .replace(/⌴\s*/g, 'CBORE ')
    .replace(/⌵\s*/g, 'CSK ')
    .replace(/[–—]/g, '-')
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/[()[\]{};%]/g, ' ')
    .replace(/[^\x20-\x7e]/g, '?')
    .replace(/\s+/g, ' ')
    .trim()
    .toUpperCase();
}
