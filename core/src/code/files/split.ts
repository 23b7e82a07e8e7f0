import { at } from '../../lists.ts';
import type { MachineProfile } from '../profiles/schema.ts';
import type { Motion, ReadProgram } from '../read/motion.ts';
import { textOf } from '../write/numbering.ts';
import { Words } from '../write/words.ts';
import type { WrittenProgram } from '../write/write.ts';

/** One file that is sent. */
export interface ProgramFile {
  fileName: string;
  text: string;
}

/** How far apart the program numbers of a setup's parts are: its setups are one apart. */
const APART = 100;
const NUMBER = /^O(\d+)/;

/**
 * A setup's program as the files that it is sent in: cut before some of its tool visits (numbers from 0), each with the head, a number of its
 * own, its way home first and the subprograms that it calls. Without cuts it is one file, the program itself.
 */
export function programFiles(
  { lines, text, visits, end, home }: Pick<WrittenProgram, 'lines' | 'text' | 'visits' | 'end' | 'home'>,
  cuts: readonly number[],
  profile: MachineProfile,
  fileName: string,
): ProgramFile[] {
  const starts = [0, ...[...new Set(cuts)].filter((c) => c > 0 && c < visits.length).sort((a, b) => a - b)];
  if (starts.length === 1) return [{ fileName, text }];
  const head = lines.slice(0, at(visits, 0) - 1);
  const { tail, subprograms } = tailOf(lines.slice(end - 1));
  const words = new Words(profile, 'mm');
  return starts.map((visit, n): ProgramFile => {
    const from = at(visits, visit) - 1;
    const next = starts[n + 1];
    const to = next === undefined ? end - 1 : at(visits, next) - 1;
    const own = lines.slice(from, to);
    // A program begins at home, whoever ran before it.
    const first = own.findIndex((l) => l !== '' && !/^[(;]/.test(l));
    const body = n === 0 ? own : [...own.slice(0, first), ...home, ...own.slice(first)];
    const said = words.comment(`part ${n + 1} of ${starts.length}`);
    const called = subprograms.filter((s) => own.some((l) => calls(l, s.number)));
    const all = [
      ...head.flatMap((l) => (NUMBER.test(l) ? [numberOf(l, n), ...said] : [l])),
      ...(head.some((l) => NUMBER.test(l)) ? [] : said),
      ...body,
      ...tail.before,
      ...called.flatMap((s) => s.lines),
      ...tail.after,
    ];
    return {
      fileName: fileName.replace(/\.nc$/, `-part-${n + 1}.nc`),
      text: textOf(all, profile),
    };
  });
}

const numberOf = (line: string, n: number): string =>
  line.replace(NUMBER, (_, v: string) => `O${String(Number(v) + APART * n).padStart(v.length, '0')}`);
const calls = (line: string, number: number): boolean => new RegExp(`M98 ?P${number}(?!\\d)`).test(line);

/** What stands after the last tool: the end, the subprograms, the closing tape mark. */
function tailOf(lines: readonly string[]): {
  tail: { before: string[]; after: string[] };
  subprograms: { number: number; lines: string[] }[];
} {
  const tail = { before: [] as string[], after: [] as string[] };
  const subprograms: { number: number; lines: string[] }[] = [];
  for (const line of lines) {
    const number = NUMBER.exec(line)?.[1];
    if (number !== undefined) subprograms.push({ number: Number(number), lines: [line] });
    else if (line === '%') tail.after.push(line);
    else if (subprograms.length > 0) at(subprograms, subprograms.length - 1).lines.push(line);
    else tail.before.push(line);
  }
  return { tail, subprograms };
}

/**
 * Whether files run one after the other do what a program does: every motion with its tool, ways, feed and speed. The way home at a file's
 * start is no part of it. The line of the first file that does not, or null.
 */
export function firstDifference(
  whole: Pick<ReadProgram, 'motions'>,
  parts: readonly Pick<ReadProgram, 'motions'>[],
): { part: number; line: number } | null {
  const wanted = whole.motions.filter(isSomewhere);
  let n = 0;
  for (const [part, { motions }] of parts.entries())
    for (const m of motions.filter(isSomewhere)) {
      const w = wanted[n++];
      if (!w || !isSameMotion(w, m)) return { part, line: m.line };
    }
  return n === wanted.length ? null : { part: parts.length - 1, line: 0 };
}

/** Ends at a place that the text says. */
const isSomewhere = (m: Motion): boolean => m.to.every((v) => v !== null);

/** The place before a file's first motion is not known there: ends are compared, not starts. */
const isSameMotion = (a: Motion, b: Motion): boolean =>
  a.kind === b.kind &&
  a.tool === b.tool &&
  a.to.every((v, i) => v === b.to[i]) &&
  (a.kind === 'rapid' || (a.feed === b.feed && a.speed === b.speed)) &&
  a.turns === b.turns &&
  a.clockwise === b.clockwise &&
  (a.centre ?? []).every((v, i) => v === b.centre?.[i]) &&
  a.seconds === b.seconds &&
  a.cycle === b.cycle &&
  a.compensation?.side === b.compensation?.side;
