import { decisionFromCallout } from '../job/print.ts';
import { produceJob, proveText, type ProduceInput } from '../job/produce.ts';
import { featureSizes } from '../features/sets.ts';
import type { MachineProfile } from '../code/profiles/schema.ts';
import type { BossFeature } from '../features/boss/schema.ts';
import { leadOf, type Thread } from '../threads/thread.ts';
import type { Check } from '../proof/checks/check.ts';
import type { Tool } from '../tools/schema.ts';
import type { Plan } from '../plan/plan.ts';
import { BOUNDS, hole, LIBRARY, plan, usual } from './fixtures.ts';

/** A blind hole with a flat floor. */
export const blind = (diameter: number, depth: number): ReturnType<typeof hole> =>
  hole({ depth, bottom: { shape: 'flat' }, stack: [{ shape: 'cylinder', diameter, length: depth }] });

/** A thread mill of one row, partial profile. */
export const oneRow = (number: number, diameter: number, part: Partial<Tool> = {}): Tool =>
  usual('thread-mill', number, diameter, {
    fluteLength: 3,
    neckDiameter: 7,
    neckLength: 40,
    teeth: 3,
    threadForm: { pitch: 1, pitchTo: 3, angleDeg: 60, rows: 1, tapered: false },
    ...part,
  });

/** A thread mill of many rows, full profile. */
export const manyRows = (number: number, diameter: number, pitch: number, rows: number): Tool =>
  usual('thread-mill', number, diameter, {
    neckDiameter: 10,
    neckLength: 30,
    fluteLength: pitch * rows,
    teeth: 4,
    threadForm: { pitch, angleDeg: 60, rows, tapered: false },
  });

export const CUTTERS = [usual('drill', 61, 21), usual('drill', 62, 22), usual('end-mill', 63, 12)];

/** A job of one hole with a thread that is milled. */
export function threadJob(
  callout: string,
  diameter: number,
  depth: number,
  tools: Tool[],
  typed: Plan['sizes'][string]['overrides'] = {},
  { units = 'mm', machine = {} }: { units?: 'mm' | 'inch'; machine?: Partial<MachineProfile> } = {},
): ProduceInput {
  const features = [blind(diameter, depth)];
  const p = plan(units);
  for (const s of featureSizes(features))
    p.sizes[s.key] = {
      ...decisionFromCallout(callout, 'mm'),
      method: 'thread-milled',
      overrides: typed,
    };
  const drill = usual('drill', 70, diameter);
  const library = {
    ...LIBRARY,
    tools: [...LIBRARY.tools, drill, ...CUTTERS, ...tools],
    machines: LIBRARY.machines.map((m) => ({ ...m, ...machine })),
  };
  return { features, bounds: BOUNDS, plan: p, library, name: 'thread' };
}

/** A round boss on the top face, as high as its thread needs. */
export const boss = (diameter: number, height: number): BossFeature => ({
  id: 'Z1',
  solid: 0,
  faces: [1],
  family: 'boss',
  reachableFrom: [[0, 0, 1]],
  axis: [0, 0, 1],
  entry: [10, -5, 0],
  diameter,
  height,
  chamfer: null,
  bottom: 'shoulder',
});

/** A job of one boss with a thread that is three leads long. */
export function bossJob(
  thread: Thread,
  tool: Tool,
  typed: Record<string, number | string>,
  { units = 'mm', machine = {} }: { units?: 'mm' | 'inch'; machine?: Partial<MachineProfile> } = {},
): ProduceInput {
  const features = [boss(thread.majorDiameter, 6 * leadOf(thread) + tool.fluteLength)];
  const p = plan(units);
  for (const s of featureSizes(features))
    p.sizes[s.key] = { thread, threadDepth: 3 * leadOf(thread), overrides: { 'outside-thread-mill': typed } };
  const library = {
    ...LIBRARY,
    tools: [...LIBRARY.tools, tool],
    machines: LIBRARY.machines.map((m) => ({ ...m, ...machine })),
  };
  return { features, bounds: BOUNDS, plan: p, library, name: 'boss' };
}

/** Rules of the errors in a job's text, changed by hand first. */
export function wrongs(input: ProduceInput, change: (t: string) => string = (t) => t): string[] {
  return found(input, change)
    .filter((c) => c.severity === 'error')
    .map((c) => c.rule);
}

/** All that is found in a job's text, changed by hand first. */
export const found = (input: ProduceInput, change: (t: string) => string = (t) => t): Check[] =>
  proveText(input, 's1', change(produceJob(input).programs[0]!.text)).checks;
