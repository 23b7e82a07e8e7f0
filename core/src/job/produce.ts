import { got } from '../lists.ts';
import { plainName } from '../code/files/plain-name.ts';
import { writeProgram, type WrittenProgram } from '../code/write/write.ts';
import { motionProgram, type ProgramHead } from '../motion/program.ts';
import type { Check } from '../proof/checks/check.ts';
import { withAccepted } from '../proof/accepted.ts';
import { planChecks, proveProgram, toolsSaid, type ProofInput, type ProvenProgram } from '../proof/prove.ts';
import type { Space } from '../space/space.ts';
import { outlines, profiles, type Disc } from '../tools/profile.ts';
import type { Tool } from '../tools/schema.ts';
import { formatLength } from '../units/length.ts';
import { derive, type DerivedJob, type DerivedSetup, type DeriveInput } from './derive.ts';
import { operationFile, splitChecks, type OperationFile } from './files.ts';
import type { ToolsSaid } from '../code/read/read.ts';
import { editChecks, withEdits, type EditedProgram } from './edited.ts';
import { withJobTools } from '../plan/library.ts';
import { attitudeName } from '../setup/setup.ts';
import { holdingInWords, stockInWords } from '../setup/setup-frame.ts';

/** One setup's program as it is written, with the edits by hand that stand on it. */
export interface WrittenSetup extends EditedProgram {
  setup: DerivedSetup;
  fileName: string;
}

/** The same, read back and proved. */
export interface ProducedSetup extends WrittenSetup, ProvenProgram {}

export interface ProducedJob {
  job: DerivedJob;
  programs: ProducedSetup[];
  checks: Check[];
}

export interface ProduceInput extends DeriveInput {
  name: string;
}

/** What is known of a job, one step after the other: what is planned, then the code, then what proving it found. */
export type ProduceStep =
  | { step: 'plan'; job: DerivedJob }
  | { step: 'code'; programs: WrittenSetup[] }
  | { step: 'proof'; job: DerivedJob; programs: ProducedSetup[]; checks: Check[] };

/** A job as it follows from its plan before anybody edits or reads a text. */
interface Posted {
  input: ProduceInput;
  job: DerivedJob;
  spaces: ReadonlyMap<string, Space>;
  discs: (tool: Tool) => readonly Disc[];
  checks: Check[];
  programs: (WrittenProgram & { setup: DerivedSetup; fileName: string })[];
}

/**
 * Produces jobs one after the other and remembers the last: where only a text was edited by hand or a finding accepted, nothing is planned
 * again, and only the text that is another is proved.
 */
export class Producer {
  private last: {
    key: string;
    asked: ProduceInput;
    posted: Posted;
    proven: Map<string, ProducedSetup>;
  } | null = null;

  private told: DerivedJob | null = null;

  /** One operation of what was produced last as a program of its own, or why it cannot be. */
  operation(setupId: string, operationId: string): OperationFile {
    const program = this.last?.proven.get(setupId);
    if (!this.last || !program) return { why: 'The program is not read back yet. Wait until it is.' };
    const { input, job } = this.last.posted;
    return operationFile(program, operationId, {
      index: job.setups.findIndex((s) => s.setup.id === setupId),
      units: input.plan.units,
      machine: job.machine,
      title: input.name,
      tools: saidOf(this.last.posted, program.setup),
    });
  }

  /** From part and plan to proved programs in steps, so that each can be shown as soon as it is there; what is as it was is not told again. */
  *steps(asked: ProduceInput): Generator<ProduceStep, ProducedJob> {
    const { handEdits, accepted } = asked.plan;
    const key = JSON.stringify({ ...asked.plan, handEdits: null, accepted: null, splits: null });
    let known = this.last?.key === key && isSamePart(this.last.asked, asked) ? this.last : null;
    if (!known) {
      const library = withJobTools(asked.library, asked.plan);
      const { job, spaces } = derive({ ...asked, library });
      this.told = job;
      yield { step: 'plan', job };
      const posted = post({ ...asked, library }, job, spaces);
      known = { key, asked, posted, proven: new Map() };
      this.last = known;
    }
    const { posted, proven } = known;
    const { job } = posted;
    // Another may have been told meanwhile, and given up before its code was written.
    if (this.told !== job) yield { step: 'plan', job };
    this.told = job;
    const written = posted.programs.map((p): WrittenSetup => ({
      ...withEdits(p, p.setup, handEdits[p.setup.setup.id] ?? [], job.machine),
      setup: p.setup,
      fileName: p.fileName,
    }));
    yield { step: 'code', programs: written };
    const programs = written.map((w): ProducedSetup => {
      const id = w.setup.setup.id;
      const before = proven.get(id);
      const now =
        before && before.text === w.text
          ? { ...before, ...w }
          : { ...w, ...proveProgram(w.text, proofInput(posted, w.setup)) };
      proven.set(id, now);
      return now;
    });
    const checks = withAccepted(
      [
        ...posted.checks,
        ...programs.flatMap((p) => p.checks),
        ...editChecks(written, asked.plan),
        ...splitChecks(programs, asked.plan.splits, job.machine, (s) => saidOf(posted, s)),
      ],
      accepted,
    );
    yield { step: 'proof', job, programs, checks };
    return { job, programs, checks };
  }
}

/** From part and plan to proved programs: the whole line of work in one call. */
export function produceJob(input: ProduceInput): ProducedJob {
  const steps = new Producer().steps(input);
  for (;;) {
    const next = steps.next();
    if (next.done) return next.value;
  }
}

/** Whether nothing but the plan can be another. */
const isSamePart = (a: ProduceInput, b: ProduceInput): boolean =>
  a.features === b.features &&
  a.mesh === b.mesh &&
  a.bounds === b.bounds &&
  a.partBox === b.partBox &&
  a.library === b.library &&
  a.name === b.name;

/** Writes every setup of a job. */
function post(input: ProduceInput, job: DerivedJob, spaces: ReadonlyMap<string, Space>): Posted {
  const { units } = input.plan;
  const checks = planChecks(job, input.library.tools);
  const taken = new Set<string>();
  const discs = outlines(input.library);
  const programs = job.setups.flatMap((setup, index): Posted['programs'] => {
    const ready = postable(setup, checks);
    if (ready.operations.length === 0) return [];
    const space = got(spaces, setup.setup.id);
    const several = job.setups.length > 1;
    const title = several ? `${input.name} - ${setup.setup.name}` : input.name;
    const motion = motionProgram(ready, title, units, headOf(job, ready, index, units), { space, discs });
    const name = freeName(fileName(input.name, several ? setup.setup.name : null), taken);
    return [{ ...writeProgram(motion, job.machine), setup: ready, fileName: name }];
  });
  return { input, job, spaces, discs, checks, programs };
}

/** What reading a setup's text knows of its tools. */
function saidOf({ input }: Pick<Posted, 'input'>, setup: DerivedSetup): ToolsSaid {
  const byNumber = new Map(input.library.tools.map((t) => [t.number, t]));
  return toolsSaid(setup, (n) => byNumber.get(n) ?? null);
}

const proofInput = (
  { input, job, spaces, discs }: Pick<Posted, 'input' | 'job' | 'spaces' | 'discs'>,
  setup: DerivedSetup,
): ProofInput => ({
  job,
  setup,
  space: got(spaces, setup.setup.id),
  discs,
  outline: profiles(input.library),
  tools: input.library.tools,
  units: input.plan.units,
});

/**
 * Proves a text against one of the job's setups, as after an edit by hand: every check of the text, and those of the plan. Throws a
 * RangeError for a setup that the plan does not have.
 */
export function proveText(
  asked: ProduceInput,
  setupId: string,
  text: string,
): ProvenProgram & { job: DerivedJob } {
  const input = { ...asked, library: withJobTools(asked.library, asked.plan) };
  const { job, spaces } = derive(input);
  const { tools } = input.library;
  const setup = job.setups.find((s) => s.setup.id === setupId);
  if (!setup) throw new RangeError(`the plan has no setup ${setupId}`);
  const checks = planChecks(job, tools);
  const discs = outlines(input.library);
  const proven = proveProgram(text, proofInput({ input, job, spaces, discs }, postable(setup, checks)));
  return { ...proven, job, checks: withAccepted([...checks, ...proven.checks], input.plan.accepted) };
}

/** A setup without the operations of sizes whose tools have no number: those are not posted. */
function postable(setup: DerivedSetup, checks: readonly Check[]): DerivedSetup {
  const blocked = new Set(checks.filter((c) => c.rule === 'no-number').map((c) => c.tag));
  return { ...setup, operations: setup.operations.filter((o) => !blocked.has(o.tag)) };
}

/** What an operator wants to know before the first tool, beside the tools themselves. */
function headOf(
  job: DerivedJob,
  { setup, frame }: DerivedSetup,
  index: number,
  units: 'mm' | 'inch',
): ProgramHead {
  const say = (mm: number): string => formatLength(mm, units);
  const open = job.rows.filter(
    (r) => r.setupId === setup.id && (r.state === 'open' || r.state === 'left out'),
  );
  const left = job.rows.flatMap((r) => (r.state === 'planned' && r.setupId === setup.id ? r.blocked : []));
  return {
    index,
    lines: [
      `material ${job.material.name}, side ${attitudeName(setup.attitude)}`,
      `stock ${stockInWords(setup, frame, say)}`,
      `holding ${holdingInWords(setup, say)}`,
      ...(job.feedPercent === 100 ? [] : [`all feeds at ${job.feedPercent} percent, taps turn slower`]),
    ],
    notMade: [
      ...open.map((r) => `${r.tag} ${r.calloutText} x${r.size.features.length}`),
      ...(left.length > 0 ? [left.map((b) => b.label).join(' ')] : []),
    ],
  };
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
  return `${plainName([name, setup ?? ''].join(' '), 'program')}.nc`;
}
