import { at } from '../lists.ts';
import { firstDifference, programFiles, type ProgramFile } from '../code/files/split.ts';
import { plainName } from '../code/files/plain-name.ts';
import type { MachineProfile } from '../code/profiles/schema.ts';
import { mainLine, type Motion } from '../code/read/motion.ts';
import { readProgram, type ToolsSaid } from '../code/read/read.ts';
import { writeProgram } from '../code/write/write.ts';
import { motionProgram } from '../motion/program.ts';
import { visitsOf } from '../order/sequence.ts';
import type { Plan } from '../plan/plan.ts';
import type { Check } from '../proof/checks/check.ts';
import type { DerivedSetup } from './derive.ts';
import type { ProducedSetup, WrittenSetup } from './produce.ts';

/** The files in which a setup's program is sent: one, or cut before the visits that the plan names. */
export function filesOf(
  program: Pick<WrittenSetup, 'lines' | 'text' | 'visits' | 'end' | 'home' | 'fileName' | 'setup'>,
  splits: Plan['splits'],
  machine: MachineProfile,
): ProgramFile[] {
  const wanted = new Set(splits[program.setup.setup.id] ?? []);
  const cuts = visitsOf(program.setup.operations).flatMap((v, i) => (wanted.has(v.key) ? [i] : []));
  return programFiles(program, cuts, machine, program.fileName);
}

/**
 * What stands against sending programs in several files: each file is read back by itself, and all of them together must do what the proved
 * program does.
 */
export function splitChecks(
  programs: readonly ProducedSetup[],
  splits: Plan['splits'],
  machine: MachineProfile,
  saidOf: (setup: DerivedSetup) => ToolsSaid,
): Check[] {
  return programs.flatMap((p): Check[] => {
    const files = filesOf(p, splits, machine);
    if (files.length === 1) return [];
    const parts = files.map((f) => readProgram(f.text, machine, saidOf(p.setup)));
    const setupId = p.setup.setup.id;
    const own = parts.flatMap(({ problems }, i) =>
      problems
        .filter((x) => x.severity === 'error' && !p.read.problems.some((y) => y.rule === x.rule))
        .map((x) => ({ part: i, text: x.message })),
    );
    const off = firstDifference(p.read, parts);
    const wrong = off
      ? {
          part: off.part,
          text: off.line === 0 ? 'it ends too soon' : `line ${off.line} does something else`,
        }
      : own[0];
    if (!wrong) return [];
    return [
      {
        rule: 'split',
        severity: 'error',
        mustMend: true,
        message: `${at(files, wrong.part).fileName} does not do what the program does (${wrong.text}). Take the split out and send it whole.`,
        setupId,
      },
    ];
  });
}

/**
 * Program numbers of operations alone, as far from the first setup's: beyond those of setups, short of those of a second file. One that had the
 * whole program's number would take its place in the control.
 */
const ALONE = 50;
const ALONE_MANY = 49;

/** One operation as a program of its own, or why it cannot be. */
export type OperationFile = { fileName: string; text: string } | { why: string };

/**
 * Writes one operation of a proved setup as a program of its own, for a part that needs it again. It is read back, and what it cuts must be
 * what the setup's program cuts there. `title`: what stands at its head.
 */
export function operationFile(
  program: ProducedSetup,
  operationId: string,
  {
    index,
    units,
    machine,
    title,
    tools,
  }: {
    /** The setup's place among the job's, from 0. */
    index: number;
    units: 'mm' | 'inch';
    machine: MachineProfile;
    title: string;
    tools: Partial<ToolsSaid>;
  },
): OperationFile {
  const operation = program.setup.operations.find((o) => o.id === operationId);
  const lines = program.operations.find((o) => o.id === operationId);
  if (!operation || !lines) return { why: 'This operation has no code.' };
  const motion = motionProgram({ ...program.setup, operations: [operation] }, title, units, {
    index,
    apart: ALONE + (program.setup.operations.indexOf(operation) % ALONE_MANY),
    lines: [`only ${operation.tag} ${operation.label}: everything before it must be made`],
    notMade: [],
  });
  const { text } = writeProgram(motion, machine);
  const within = (line: number): boolean => line >= lines.firstLine && line <= lines.lastLine;
  const isCut = (m: Motion): boolean => m.kind !== 'rapid';
  const own = readProgram(text, machine, tools);
  const [cut, wanted] = [
    own.motions.filter(isCut),
    program.read.motions.filter((m) => isCut(m) && within(mainLine(m))),
  ];
  if (
    own.problems.some((p) => p.severity === 'error') ||
    firstDifference({ motions: wanted }, [{ motions: cut }])
  )
    return {
      why: `${operation.tag} ${operation.label} is otherwise in the program than it is planned, such as by an edit by hand. Send the whole program.`,
    };
  const plain = plainName(`${operation.tag} ${operation.label}`, 'operation');
  return { fileName: program.fileName.replace(/\.nc$/, `-only-${plain}.nc`), text };
}
