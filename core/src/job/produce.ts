import { writeProgram, type WrittenProgram } from '../code/write/write.ts';
import { clearPathOver } from '../motion/clear-path.ts';
import { motionProgram } from '../motion/program.ts';
import type { RayCaster } from '../model/ray.ts';
import { planChecks, proveProgram, type ProvenProgram } from '../proof/prove.ts';
import type { Check } from '../proof/checks/check.ts';
import { deriveJob, type DerivedJob, type DerivedSetup, type DeriveInput } from './derive.ts';

export interface ProducedSetup extends WrittenProgram, ProvenProgram {
  setup: DerivedSetup;
  fileName: string;
}

export interface ProducedJob {
  job: DerivedJob;
  programs: ProducedSetup[];
  checks: Check[];
}

export interface ProduceInput extends DeriveInput {
  name: string;
  /** The part, to see where a tool may stay low between holes. */
  rays: RayCaster | null;
}

/** From part and plan to proved programs: the whole line of work in one call. */
export function produceJob(input: ProduceInput): ProducedJob {
  const job = deriveJob(input);
  const { tools } = input.library;
  const checks = planChecks(job, tools);
  const blocked = new Set(checks.filter((c) => c.rule === 'no-number').map((c) => c.tag));
  const taken = new Set<string>();
  const programs = job.setups.flatMap((setup): ProducedSetup[] => {
    const operations = setup.operations.filter((o) => !blocked.has(o.tag));
    if (operations.length === 0) return [];
    const ready = { ...setup, operations };
    const several = job.setups.length > 1;
    const title = several ? `${input.name} - ${setup.setup.name}` : input.name;
    const motion = motionProgram(ready, title, input.plan.units, input.rays ? clearPathOver(input.rays, setup.frame.frame) : undefined);
    const written = writeProgram(motion, job.machine);
    const proven = proveProgram(written.text, job, ready, tools, input.plan.units);
    checks.push(...proven.checks);
    return [{ ...written, ...proven, setup: ready, fileName: freeName(fileName(input.name, several ? setup.setup.name : null), taken) }];
  });
  return { job, programs, checks };
}

/** The name, numbered where another program of the job has it already: no file may take another's place. */
function freeName(name: string, taken: Set<string>): string {
  let free = name;
  for (let n = 2; taken.has(free); n++) free = name.replace(/\.nc$/, `-${n}.nc`);
  taken.add(free);
  return free;
}

/** A plain file name from a job's name: letters, digits and dashes, never empty, never long. */
export function fileName(name: string, setup: string | null): string {
  const plain = [name, setup ?? '']
    .join(' ')
    .normalize('NFKD')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, 60);
  return `${plain || 'program'}.nc`;
}
