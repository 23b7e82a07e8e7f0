import type { SectionEdits, Section } from '../code/edits/schema.ts';
import { takeEdits, type TakenEdit, type UnfitEdit } from '../code/edits/take-edits.ts';
import type { MachineProfile } from '../code/profiles/schema.ts';
import { linesOf, textOf, unnumbered } from '../code/write/numbering.ts';
import { findEdits } from '../code/edits/find-edits.ts';
import type { WrittenProgram } from '../code/write/write.ts';
import type { Plan } from '../plan/plan.ts';
import type { Check } from '../proof/checks/check.ts';
import type { DerivedSetup } from './derive.ts';

/** A posted program with the edits by hand that stand on it. */
export interface EditedProgram extends WrittenProgram {
  /** The lines as they are posted from the plan, without block numbers: `lines` where nothing was edited. */
  posted: string[];
  /** The posted operations, by the names under which edits know them. */
  sections: Section[];
  /** The edits that were laid over it, as the plan has them. */
  edits: readonly SectionEdits[];
  taken: TakenEdit[];
  unfit: UnfitEdit[];
}

/** Lays the edits of a setup over its posted program; lines of operations and holes go along. */
export function withEdits(
  program: WrittenProgram,
  { operations }: DerivedSetup,
  edits: readonly SectionEdits[],
  machine: MachineProfile,
): EditedProgram {
  const posted = program.lines;
  const planned = new Map(operations.map((o) => [o.id, `${o.sizeKey}/${o.key}`]));
  const sections = program.operations.map(({ id, firstLine, lastLine }) => ({
    name: planned.get(id) ?? id,
    firstLine,
    lastLine,
  }));
  if (edits.length === 0) return { ...program, posted, sections, edits, taken: [], unfit: [] };
  const { lines, taken, unfit, startOf, lineOf } = takeEdits(posted, sections, edits);
  return {
    text: textOf(lines, machine),
    lines,
    posted,
    sections,
    edits,
    taken,
    unfit,
    home: program.home,
    visits: program.visits.map((line) => startOf(line - 1) + 1),
    end: startOf(program.end - 1) + 1,
    operations: program.operations.map((o) => ({
      ...o,
      firstLine: startOf(o.firstLine - 1) + 1,
      // With what is put in below its last line.
      lastLine: startOf(o.lastLine),
      holeLines: o.holeLines.flatMap(([line, label]): [number, string][] => {
        const there = lineOf(line - 1);
        return there === null ? [] : [[there + 1, label]];
      }),
    })),
  };
}

/**
 * The edits of a setup after its text was typed over: what differs from what is posted, and those that do not fit, which wait for a decision.
 */
export function editsOf(
  typed: string,
  { posted, sections, edits, unfit }: Pick<EditedProgram, 'posted' | 'sections' | 'edits' | 'unfit'>,
  machine: MachineProfile,
): SectionEdits[] {
  const lines = linesOf(typed).map((line) => unnumbered(line, machine));
  return [...onlyHunks(edits, (at) => unfit.some((u) => isAt(u, at))), ...findEdits(posted, lines, sections)];
}

/** The edits without one that does not fit. */
export const withoutUnfit = (edits: readonly SectionEdits[], gone: UnfitEdit): SectionEdits[] =>
  onlyHunks(edits, (at) => !isAt(gone, at));

const isAt = (u: UnfitEdit, [list, hunk]: UnfitEdit['at']): boolean => u.at[0] === list && u.at[1] === hunk;

const onlyHunks = (
  edits: readonly SectionEdits[],
  isKept: (at: UnfitEdit['at']) => boolean,
): SectionEdits[] =>
  edits.flatMap((e, list) => {
    const hunks = e.hunks.filter((_, n) => isKept([list, n]));
    return hunks.length > 0 ? [{ ...e, hunks }] : [];
  });

/** What is to be said of edits: those that do not fit what is posted now, and those of setups that have no program. */
export function editChecks(
  programs: readonly (EditedProgram & { setup: DerivedSetup })[],
  { handEdits, setups }: Plan,
): Check[] {
  const out = programs.flatMap(({ unfit, setup }) =>
    unfit.map(({ before, after, why, near }): Check => ({
      rule: 'edit-unfit',
      severity: 'error',
      mustMend: true,
      setupId: setup.setup.id,
      line: near,
      message: `Line ${near}: ${inWords(before, after)} by hand. ${
        why === 'section gone'
          ? 'The operation is not posted any more'
          : 'The plan posts other lines there now, and they stand'
      }. Make the edit again, or let it go.`,
    })),
  );
  for (const { id, name } of setups)
    if ((handEdits[id] ?? []).length > 0 && !programs.some((p) => p.setup.setup.id === id))
      out.push({
        rule: 'edit-unfit',
        severity: 'warning',
        setupId: id,
        message: `${name} has edits by hand, but no program to stand in: none of its rows is planned.`,
      });
  return out;
}

const MOST = 60;
const quoted = (lines: readonly string[]): string => {
  const text = lines.join(' / ');
  return `“${text.length > MOST ? `${text.slice(0, MOST)} …` : text}”`;
};

function inWords(before: readonly string[], after: readonly string[]): string {
  if (before.length === 0) return `${quoted(after)} was put in`;
  return after.length === 0
    ? `${quoted(before)} was taken out`
    : `${quoted(before)} was made ${quoted(after)}`;
}
