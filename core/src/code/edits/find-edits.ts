import { diffArrays } from 'diff';
import { at } from '../../lists.ts';
import { sectionsByLine, type Hunk, type Section, type SectionEdits } from './schema.ts';

/**
 * What somebody has changed of a posted text, section by section. Both texts are lines without block numbers. Lines that are put in belong
 * to the section of the line above. Laid over the same posted text (`takeEdits`) it gives what was typed.
 */
export function findEdits(
  posted: readonly string[],
  typed: readonly string[],
  sections: readonly Section[],
): SectionEdits[] {
  const names = sectionsByLine(posted.length, sections);
  const found = new Map<string | null, Hunk[]>();
  for (const hunk of hunksOf(posted, typed))
    for (const part of bySection(hunk, names)) {
      const name = sectionAt(part, names);
      found.set(name, [...(found.get(name) ?? []), part]);
    }
  return [...found].map(([section, hunks]) => {
    // Where each of the section's lines stands in the whole text.
    const own = names.flatMap((name, i) => (name === section ? [i] : []));
    const offset = new Map(own.map((line, k) => [line, k]));
    return {
      section,
      base: own.map((i) => at(posted, i)),
      hunks: hunks.map(({ from, count, after }) => ({
        from: count > 0 ? (offset.get(from) ?? 0) : from === 0 ? 0 : (offset.get(from - 1) ?? -1) + 1,
        count,
        after,
      })),
    };
  });
}

/** Where two texts differ: lines of the first that are replaced, by which of the second. */
export function hunksOf(posted: readonly string[], typed: readonly string[]): Hunk[] {
  const out: Hunk[] = [];
  let line = 0;
  let open: Hunk | null = null;
  for (const part of diffArrays([...posted], [...typed])) {
    if (!part.added && !part.removed) {
      open = null;
      line += part.value.length;
      continue;
    }
    if (!open) {
      open = { from: line, count: 0, after: [] };
      out.push(open);
    }
    if (part.added) open.after.push(...part.value);
    else {
      open.count += part.value.length;
      line += part.value.length;
    }
  }
  return out;
}

const sectionAt = ({ from, count }: Hunk, names: readonly (string | null)[]): string | null =>
  names[count > 0 ? from : from - 1] ?? null;

/** A hunk over several sections, cut at their borders: what is put in stands in the first. */
function bySection(hunk: Hunk, names: readonly (string | null)[]): Hunk[] {
  const out: Hunk[] = [];
  for (let i = hunk.from; i < hunk.from + hunk.count; i++) {
    const last = out.at(-1);
    if (last && names[i] === names[i - 1]) last.count++;
    else out.push({ from: i, count: 1, after: last ? [] : hunk.after });
  }
  return out.length > 0 ? out : [hunk];
}
