import { z } from 'zod';

const lines = z.array(z.string().max(1000)).max(50_000);

/** Lines of a section that are replaced: `count` of them from `from` on (from 0); none where lines are put in. */
export const hunkSchema = z.object({
  from: z.number().int().nonnegative(),
  count: z.number().int().nonnegative(),
  /** What stands in their place; none where lines are taken out. */
  after: lines,
});
export type Hunk = z.infer<typeof hunkSchema>;

/**
 * Edits by hand in one section of a program: the section as it was posted when they were made, and what was changed of it. What the section
 * was is kept so that edits can be taken along, or refused, when the plan posts another. Lines are without block numbers.
 */
export const sectionEditsSchema = z.object({
  /** An operation's name; null: all that stands outside operations, the head and the tool changes. */
  section: z.string().max(300).nullable(),
  base: lines,
  hunks: z.array(hunkSchema).max(2000),
});
export type SectionEdits = z.infer<typeof sectionEditsSchema>;

/** A stretch of a posted text that belongs to an operation; lines from 1, both ends included. */
export interface Section {
  name: string;
  firstLine: number;
  lastLine: number;
}

/** Each line's section, by number of the line from 0; null outside operations. */
export function sectionsByLine(count: number, sections: readonly Section[]): (string | null)[] {
  const out = new Array<string | null>(count).fill(null);
  for (const { name, firstLine, lastLine } of sections) out.fill(name, firstLine - 1, lastLine);
  return out;
}
