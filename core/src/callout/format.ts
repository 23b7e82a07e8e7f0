import { formatLength, type LengthUnit } from '../units/length.ts';
import { startsOf } from '../threads/thread.ts';
import type { Callout, Tolerance, Wish } from './schema.ts';

const WISH_WORDS: Record<Wish, string> = {
  formed: 'FORM TAP',
  insert: 'STI',
  milled: 'THREAD MILL',
  reamed: 'REAM',
};

function toleranceInWords({ fit, lower, upper }: Tolerance, say: (mm: number) => string): string {
  if (fit !== undefined) return fit;
  if (lower === undefined || upper === undefined) return '';
  if (lower === -upper) return `±${say(upper)}`;
  const signed = (v: number): string => `${v < 0 ? '-' : '+'}${say(Math.abs(v))}`;
  return `${signed(upper)}/${signed(lower)}`;
}

/** The callout in print style, in the job's unit. */
export function formatCallout(c: Callout, unit: LengthUnit): string {
  const n = (v: number) => formatLength(v, unit, unit === 'mm' ? 2 : 4);
  const parts: string[] = [];
  if (c.count !== undefined) parts.push(`${c.count}×`);
  if (c.diameter !== undefined) parts.push(`⌀${n(c.diameter)}`);
  if (c.tolerance)
    parts.push(toleranceInWords(c.tolerance, (v) => formatLength(v, unit, unit === 'mm' ? 4 : 5)));
  // Of a threaded hole the drilled depth stands before the thread, as on a print.
  if (c.depth !== undefined && !c.through && c.diameter !== undefined) parts.push(`↧${n(c.depth)}`);
  if (c.thread)
    parts.push(
      `${c.thread.designation.replace('x', '×')}${c.thread.toleranceClass ? ` – ${c.thread.toleranceClass}` : ''}${c.thread.hand === 'left' ? ' LH' : ''}${startsOf(c.thread) > 1 ? ` ${startsOf(c.thread)} STARTS` : ''}`,
    );
  if (c.threadDepth !== undefined) parts.push(`↧${n(c.threadDepth)}`);
  // Without a drill's size the word says which depth it is.
  if (c.depth !== undefined && !c.through && c.diameter === undefined) parts.push(`DRILL ${n(c.depth)} DEEP`);
  if (c.through) parts.push('THRU');
  if (c.counterbore)
    parts.push(
      `⌴ ⌀${n(c.counterbore.diameter)}${c.counterbore.depth !== undefined ? ` ↧${n(c.counterbore.depth)}` : ''}`,
    );
  if (c.countersink)
    parts.push(`⌵ ⌀${n(c.countersink.diameter)} × ${Math.round(c.countersink.angleDeg * 100) / 100}°`);
  for (const w of c.wishes ?? []) parts.push(WISH_WORDS[w]);
  return parts.filter(Boolean).join(' ');
}

/** A callout in print style with the signs that keyboards have: it reads back as the same. */
export const asTyped = (text: string): string => text.replace(/×/g, 'x').replace(/–/g, '-');
