import type { MachineProfile } from '../profiles/schema.ts';

const NUMBER = /^\s*N\d+\s*/i;
/** Lines that carry no block number: empty ones, comments, tape marks and program numbers. */
const PLAIN = /^\s*($|[(;%]|O\d)/i;
/** Block numbers have five digits at most: a longer program begins again. */
const MOST = 99_999;
const TOOL_CHANGE = /(?<![A-Z])M0?6(?!\d)/i;

/** Lines with block numbers before them, where the profile wants them; a line that has one keeps it. */
export function numbered(lines: readonly string[], { lineNumbers, wordSpaces }: MachineProfile): string[] {
  if (!lineNumbers.on) return [...lines];
  let number = lineNumbers.start;
  const isNumbered = (line: string): boolean => lineNumbers.where === 'blocks' || TOOL_CHANGE.test(line);
  return lines.map((line) => {
    if (PLAIN.test(line) || NUMBER.test(line) || !isNumbered(line)) return line;
    const out = `N${number}${wordSpaces ? ' ' : ''}${line}`;
    number = number + lineNumbers.step > MOST ? lineNumbers.start : number + lineNumbers.step;
    return out;
  });
}

/** A line without its block number, where the profile writes them: there they are no part of what anybody decided. */
export const unnumbered = (line: string, { lineNumbers }: MachineProfile): string =>
  lineNumbers.on ? line.replace(NUMBER, '') : line;

/** A program's lines; what ends the last is no line of its own. */
export const linesOf = (text: string): string[] => text.replace(/\r?\n$/, '').split(/\r?\n/);

/** A program's text of its lines, with block numbers and line endings as the profile wants them. */
export function textOf(lines: readonly string[], profile: MachineProfile): string {
  const end = profile.lineEnding === 'crlf' ? '\r\n' : '\n';
  return numbered(lines, profile).join(end) + end;
}
