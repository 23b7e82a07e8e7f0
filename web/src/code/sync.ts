import { hunksOf } from '@yellow-pin/core/code/edits/find-edits';
import type { TakenEdit } from '@yellow-pin/core/code/edits/take-edits';
import { linesOf } from '@yellow-pin/core/code/write/numbering';

/** A change of an editor's text: characters that are replaced. */
export interface TextChange {
  from: number;
  to: number;
  insert: string;
}

/** A program as an editor holds it: lines end in one way, and nothing stands behind the last. */
export const inEditor = (text: string): string => linesOf(text).join('\n');

/** What makes one text of another, line by line: what is the same is not touched, so that a cursor stays where it is. */
export function changesTo(before: string, after: string): TextChange[] {
  if (before === after) return [];
  const was = before.split('\n');
  const starts = [0];
  for (const line of was) starts.push(starts[starts.length - 1]! + line.length + 1);
  return hunksOf(was, after.split('\n')).map(({ from, count, after: lines }) => {
    const [start, end] = [starts[from]!, starts[from + count]!];
    const isAtEnd = from + count === was.length;
    const text = lines.map((l) => `${l}\n`).join('');
    // The last line has nothing behind it: what is put in there, or taken away, has its line break in front.
    if (!isAtEnd) return { from: start, to: end, insert: text };
    const front = from > 0 ? start - 1 : 0;
    return {
      from: front,
      to: before.length,
      insert: `${from > 0 && lines.length > 0 ? '\n' : ''}${lines.join('\n')}`,
    };
  });
}

/** The text without the edits by hand that stand in it. */
export function withoutTaken(text: string, taken: readonly TakenEdit[]): string {
  const lines = linesOf(text);
  for (const { firstLine, lastLine, before } of [...taken].reverse())
    lines.splice(firstLine - 1, lastLine - firstLine + 1, ...before);
  return lines.join('\n');
}
