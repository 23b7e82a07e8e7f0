import { isHole } from '../features/family.ts';
import { readProgram } from '../code/read/read.ts';
import type { ReadProgram } from '../code/read/motion.ts';
import type { DerivedJob, DerivedSetup } from '../job/derive.ts';
import { labelOf } from '../job/derive.ts';
import { viewHole } from '../operations/hole-view.ts';
import type { Tool } from '../tools/schema.ts';
import { formatLength } from '../units/length.ts';
import { CHECK_RULES } from './checks/rules.ts';
import { madeHoles, type Check, type MadeHole } from './checks/check.ts';
import { programTime, type ProgramTime } from './time.ts';

export interface ProvenProgram {
  read: ReadProgram;
  checks: Check[];
  time: ProgramTime;
  made: MadeHole[];
}

/** Reads a setup's text back and runs every check on it. Nothing here looks at how the text was written. */
export function proveProgram(text: string, job: DerivedJob, setup: DerivedSetup, tools: readonly Tool[], units: 'mm' | 'inch'): ProvenProgram {
  const read = readProgram(text, job.machine);
  const views = job.rows.flatMap((row) =>
    row.size.features.flatMap((f, i) => {
      const view = isHole(f) ? viewHole(f, labelOf(row.size, i), setup.frame.frame) : null;
      return view ? [{ view, tag: row.tag }] : [];
    }),
  );
  const made = madeHoles(read, tools)(views);
  const say = (mm: number): string => `${formatLength(mm, units)} ${units === 'mm' ? 'mm' : 'in'}`;
  const setupId = setup.setup.id;
  const checks: Check[] = read.problems.map((p) => ({ ...p, setupId }));
  for (const { run } of CHECK_RULES) checks.push(...run({ job, setup, read, made, say }).map((c) => ({ ...c, setupId })));
  return { read, checks, time: programTime(read, job.machine), made };
}

/** Checks of the plan itself, before any code: open rows, remarks of operations, two tools on one number. */
export function planChecks(job: DerivedJob, tools: readonly Tool[]): Check[] {
  const out: Check[] = [];
  for (const row of job.rows) {
    const feature = row.size.features[0]!.id;
    if (row.state === 'unreachable' || row.state === 'open') {
      for (const message of row.reasons)
        out.push({ rule: row.state === 'open' ? 'open-row' : 'unreachable', severity: 'warning', message: `${row.tag}: ${message}`, tag: row.tag, feature });
    }
    for (const r of row.remarks) out.push({ ...r, message: `${row.tag}: ${r.message}`, tag: row.tag, feature });
  }
  const byNumber = new Map<number, Tool>();
  const used = new Set(job.rows.flatMap((r) => r.operations.map((o) => o.tool.id)));
  for (const t of tools) {
    if (t.number === null) continue;
    const other = byNumber.get(t.number);
    if (other)
      out.push({
        rule: 'number-twice',
        severity: used.has(t.id) || used.has(other.id) ? 'error' : 'warning',
        message: `T${t.number} holds two tools: ${other.description} and ${t.description}. Give one of them another number.`,
      });
    byNumber.set(t.number, t);
  }
  for (const o of job.rows.flatMap((r) => r.operations)) {
    if (o.tool.number === null)
      out.push({ rule: 'no-number', severity: 'error', message: `${o.tag}: ${o.tool.description} is not in the magazine. Give it a number on the tool screen.`, tag: o.tag });
  }
  return out;
}
