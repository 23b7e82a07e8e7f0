import { diffArrays } from 'diff';
import { at } from '../../lists.ts';
import { sectionsByLine, type Hunk, type Section, type SectionEdits } from './schema.ts';

/** An edit that stands in the text. Lines count from 1; `lastLine` is before `firstLine` where lines were only taken out. */
export interface TakenEdit {
  firstLine: number;
  lastLine: number;
  /** The posted lines that it replaces. */
  before: string[];
  after: string[];
}

/** An edit that does not fit what is posted now: the posted lines stand. */
export interface UnfitEdit {
  /** Which of the edits it is: of which section's list, and there which. */
  at: [list: number, hunk: number];
  why: 'section gone' | 'lines changed';
  before: string[];
  after: string[];
  /** Line of the text near which it stood, from 1. */
  near: number;
}

/** A posted text with the edits on it that fit. */
export interface EditedText {
  lines: string[];
  taken: TakenEdit[];
  unfit: UnfitEdit[];
  /** Where a posted line (from 0; their count for the end) begins in the text, from 0: after what is put in above it. */
  startOf(posted: number): number;
  /** Where a posted line is, from 0; null where it was taken out. */
  lineOf(posted: number): number | null;
}

/**
 * Lays edits by hand over a posted text, as a merge of three: what the section was, what was made of it, what it is now. An edit is taken
 * where the lines that it replaces are the same as they were (for lines that are put in: their neighbours); elsewhere the posted lines stand
 * and the edit is unfit. Operations may have moved: each section is compared with itself.
 */
export function takeEdits(
  posted: readonly string[],
  sections: readonly Section[],
  edits: readonly SectionEdits[],
): EditedText {
  const names = sectionsByLine(posted.length, sections);
  const placed: Hunk[] = [];
  const lost: Omit<UnfitEdit, 'near'>[] = [];
  const linesNear: number[] = [];
  const busy = new Set<number>();
  edits.forEach(({ section, base, hunks }, list) => {
    const own = names.flatMap((name, i) => (name === section ? [i] : []));
    const now = movedTo(
      base,
      own.map((i) => at(posted, i)),
    );
    hunks.forEach((hunk, n) => {
      const offset = placeOf(hunk, base.length, own.length, now);
      const from = offset === null ? null : lineAt(own, offset, hunk.count);
      const isFree = from !== null && !marks(from, hunk.count).some((m) => busy.has(m));
      if (from !== null && isFree) {
        placed.push({ from, count: hunk.count, after: hunk.after });
        for (const m of marks(from, hunk.count)) busy.add(m);
        return;
      }
      lost.push({
        at: [list, n],
        why: own.length === 0 ? 'section gone' : 'lines changed',
        before: base.slice(hunk.from, hunk.from + hunk.count),
        after: hunk.after,
      });
      linesNear.push(own[Math.min(nearest(now, hunk.from), own.length - 1)] ?? 0);
    });
  });
  placed.sort((a, b) => a.from - b.from || a.count - b.count);
  const laid = laidOver(posted, placed);
  return {
    ...laid,
    unfit: lost.map((u, i) => ({
      ...u,
      near: Math.min(laid.startOf(linesNear[i] ?? 0) + 1, laid.lines.length),
    })),
  };
}

/** Places that an edit takes for itself: its lines, and of lines that are put in the gap between two (halves). */
const marks = (from: number, count: number): number[] =>
  count === 0 ? [from - 0.5] : Array.from({ length: count }, (_, k) => from + k);

/** A place in a section (from 0) as a line of the whole text; lines that are put in stand below the section's line above. */
function lineAt(own: readonly number[], offset: number, count: number): number | null {
  if (count > 0) {
    const from = own[offset];
    // Lines that were neighbours must be neighbours: other sections may stand between two lines outside operations.
    return from !== undefined && own[offset + count - 1] === from + count - 1 ? from : null;
  }
  const above = own[offset - 1];
  return offset === 0 ? 0 : above === undefined ? null : above + 1;
}

/** Each line of a section as it was: where it is now, or -1. */
function movedTo(base: readonly string[], own: readonly string[]): Int32Array {
  const out = new Int32Array(base.length).fill(-1);
  let [was, is] = [0, 0];
  for (const part of diffArrays([...base], [...own])) {
    const n = part.value.length;
    if (!part.added && !part.removed) for (let k = 0; k < n; k++) out[was + k] = is + k;
    if (!part.added) was += n;
    if (!part.removed) is += n;
  }
  return out;
}

/** Where an edit begins in the section as it is now; null where what it hangs on has changed. */
function placeOf({ from, count }: Hunk, before: number, after: number, now: Int32Array): number | null {
  if (count > 0) {
    const start = now[from] ?? -1;
    for (let k = 0; k < count; k++) if (start < 0 || now[from + k] !== start + k) return null;
    return start;
  }
  const above = from === 0 ? -1 : (now[from - 1] ?? -1);
  const below = from >= before ? after : (now[from] ?? -1);
  if (from > 0 && above < 0) return null;
  return below === above + 1 ? below : null;
}

/** Where a line of before would be now: at itself, else below the nearest line above that is still there. */
function nearest(now: Int32Array, from: number): number {
  const at = Math.min(from, now.length - 1);
  for (let i = at; i >= 0; i--) {
    const there = now[i] ?? -1;
    if (there >= 0) return i === from ? there : there + 1;
  }
  return 0;
}

function laidOver(posted: readonly string[], placed: readonly Hunk[]): Omit<EditedText, 'unfit'> {
  const lines: string[] = [];
  const taken: TakenEdit[] = [];
  const starts = new Int32Array(posted.length + 1);
  const kept = new Int32Array(posted.length).fill(-1);
  let next = 0;
  const copyTo = (end: number): void => {
    for (; next < end; next++) {
      starts[next] = lines.length;
      kept[next] = lines.length;
      lines.push(at(posted, next));
    }
  };
  for (const { from, count, after } of placed) {
    copyTo(from);
    const start = lines.length;
    lines.push(...after);
    const before = posted.slice(from, from + count);
    for (let k = 0; k < count; k++, next++) {
      starts[next] = start + Math.min(k, after.length);
      if (k < after.length) kept[next] = start + k;
    }
    taken.push({ firstLine: start + 1, lastLine: lines.length, before, after });
  }
  copyTo(posted.length);
  starts[posted.length] = lines.length;
  return {
    lines,
    taken,
    startOf: (line) => starts[Math.max(0, Math.min(posted.length, line))] ?? 0,
    lineOf: (line) => ((kept[line] ?? -1) < 0 ? null : (kept[line] ?? null)),
  };
}
