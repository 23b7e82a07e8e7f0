/** One line's words: letters and values side by side, in the order written. */
export interface Block {
  line: number;
  letters: string[];
  values: number[];
  /** Whether a value was written with a decimal point (dwell times read differently). */
  decimal: boolean[];
  /** What could not be read, in plain words. */
  fault: string | null;
}

const A = 65;
const Z = 90;

/**
 * Splits one line of word-address code (ISO 6983-1) into words. Comments in brackets and after a semicolon are dropped;
 * `%`, block numbers and a leading `/` carry no meaning here. Null for a line without words.
 */
export function readBlock(text: string, line: number): Block | null {
  const letters: string[] = [];
  const values: number[] = [];
  const decimal: boolean[] = [];
  let fault: string | null = null;
  const n = text.length;
  let i = 0;
  while (i < n) {
    let c = text.charCodeAt(i);
    if (c <= 32 || c === 37 || c === 47) {
      i++;
      continue;
    }
    if (c === 59) break;
    if (c === 40) {
      const end = text.indexOf(')', i);
      if (end < 0) {
        fault ??= 'a comment is opened and not closed';
        break;
      }
      i = end + 1;
      continue;
    }
    if (c === 35 || c === 91) {
      fault ??= 'variables and expressions are not supported';
      break;
    }
    if (c >= 97 && c <= 122) c -= 32;
    if (c < A || c > Z) {
      fault ??= `"${text[i]}" has no meaning here`;
      break;
    }
    i++;
    while (i < n && text.charCodeAt(i) <= 32) i++;
    const start = i;
    let dot = false;
    while (i < n) {
      const d = text.charCodeAt(i);
      if (d === 46) dot = true;
      else if (!((d >= 48 && d <= 57) || ((d === 45 || d === 43) && i === start))) break;
      i++;
    }
    const word = text.slice(start, i);
    const value = word === '' || word === '-' || word === '+' || word === '.' ? NaN : Number(word);
    const letter = String.fromCharCode(c);
    if (Number.isNaN(value)) {
      const next = text.charCodeAt(i);
      fault ??= next === 35 || next === 91 ? 'variables and expressions are not supported' : `the word ${letter} has no number`;
      break;
    }
    if (letter === 'N' || letter === 'O') continue;
    letters.push(letter);
    values.push(value);
    decimal.push(dot);
  }
  return letters.length === 0 && fault === null ? null : { line, letters, values, decimal, fault };
}
