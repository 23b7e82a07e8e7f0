/** The characters of ISO 10303-21 as bytes. */
export const EXCLAMATION = 33;
export const QUOTE = 39;
export const OPEN = 40;
export const CLOSE = 41;
export const STAR = 42;
export const PLUS = 43;
export const COMMA = 44;
export const MINUS = 45;
export const DOT = 46;
export const SLASH = 47;
export const SEMICOLON = 59;
export const EQUALS = 61;
export const DOLLAR = 36;
export const HASH = 35;
export const DOUBLE_QUOTE = 34;
export const NEWLINE = 10;

const [BLANK, LETTER, DIGIT] = [1, 2, 4];
const KIND = new Uint8Array(256);
for (let b = 0; b <= 32; b++) KIND[b] = BLANK;
for (let b = 65; b <= 90; b++) KIND[b] = KIND[b + 32] = LETTER;
KIND[95] = LETTER;
for (let b = 48; b <= 57; b++) KIND[b] = DIGIT;

/** Blanks and control characters separate and mean nothing (clause 5.3; tabs are not in it and found in files). */
export const isBlank = (b: number): boolean => KIND[b] === BLANK;
export const isDigit = (b: number): boolean => KIND[b] === DIGIT;
/** A letter or an underscore: what a keyword begins with. */
export const isLetter = (b: number): boolean => KIND[b] === LETTER;
/** What a keyword goes on with. */
export const isWord = (b: number): boolean => (KIND[b]! & (LETTER | DIGIT)) !== 0;

/** Lines up to a place, counted from 1. */
export function lineAt(bytes: Uint8Array, at: number): number {
  let line = 1;
  for (let i = 0; i < at && i < bytes.length; i++) if (bytes[i] === NEWLINE) line++;
  return line;
}

/** The first place from `at` on that is neither blank nor in a comment; the end where a comment is never closed. */
export function pastBlanks(b: Uint8Array, at: number): number {
  for (;;) {
    while (at < b.length && KIND[b[at]!] === BLANK) at++;
    if (b[at] !== SLASH || b[at + 1] !== STAR) return at;
    at += 2;
    while (at < b.length && !(b[at] === STAR && b[at + 1] === SLASH)) at++;
    at = Math.min(at + 2, b.length);
  }
}

/** Past the string that begins with the quote at `at`; -1 where it is never closed. */
export function pastText(b: Uint8Array, at: number): number {
  for (let i = at + 1; i < b.length; i++) {
    if (b[i] !== QUOTE) continue;
    if (b[i + 1] !== QUOTE) return i + 1;
    i++;
  }
  return -1;
}
