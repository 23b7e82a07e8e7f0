import type { MachineProfile } from '@yellow-pin/core/code/profiles/schema';
import type { SectionEdits } from '@yellow-pin/core/code/edits/schema';
import type { TakenEdit, UnfitEdit } from '@yellow-pin/core/code/edits/take-edits';
import { linesOf } from '@yellow-pin/core/code/write/numbering';
import { editsOf, withoutUnfit } from '@yellow-pin/core/job/edited';
import type { WrittenSetup } from '@yellow-pin/core/job/produce';
import { changePlan, usePlan } from '../job/store.ts';

/** Puts a setup's edits into the plan; false where they are what they were. */
function keep({ setup }: WrittenSetup, edits: SectionEdits[]): boolean {
  const { plan } = usePlan.getState();
  if (!plan) return false;
  const { [setup.setup.id]: before = [], ...others } = plan.handEdits;
  if (JSON.stringify(before) === JSON.stringify(edits)) return false;
  changePlan({ handEdits: edits.length > 0 ? { ...others, [setup.setup.id]: edits } : others });
  return true;
}

/** Takes a text that was typed over a program as edits by hand; false where it is no other than before. */
export const takeText = (text: string, program: WrittenSetup, machine: MachineProfile): boolean =>
  keep(program, editsOf(text, program, machine));

/** Takes one edit back: the posted lines stand again. */
export function takeEditBack(edit: TakenEdit, program: WrittenSetup, machine: MachineProfile): void {
  const lines = linesOf(program.text);
  lines.splice(edit.firstLine - 1, edit.lastLine - edit.firstLine + 1, ...edit.before);
  takeText(lines.join('\n'), program, machine);
}

/** Lets an edit go that no longer fits. */
export const letGo = (edit: UnfitEdit, program: WrittenSetup): boolean =>
  keep(program, withoutUnfit(program.edits, edit));

/** Takes all edits of a program back. */
export const takeAllBack = (program: WrittenSetup): boolean => keep(program, []);
