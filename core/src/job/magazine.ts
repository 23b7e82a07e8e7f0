import type { Plan } from '../plan/plan.ts';
import { withJobTools, type Library } from '../plan/library.ts';
import { freeNumber } from '../tools/usual.ts';
import type { Tool } from '../tools/schema.ts';
import { deriveJob, type DerivedJob, type DeriveInput } from './derive.ts';

/** Tools that a job's operations use, each once, in the order in which they are first used. */
export const usedTools = (job: Pick<DerivedJob, 'setups'>): Tool[] => [
  ...new Map(job.setups.flatMap((s) => s.operations.map((o) => [o.tool.id, o.tool] as const))).values(),
];

/** Tools that a job needs and that have no place in the magazine. */
export const fromDrawer = (job: Pick<DerivedJob, 'setups'>): Tool[] =>
  usedTools(job).filter((t) => t.number === null);

/** What giving tools numbers came to: the plan's tools, and those for which the magazine has no place left. */
export interface Loaded {
  change: Pick<Plan, 'tools' | 'loaded'>;
  left: Tool[];
}

/**
 * Gives tools from the drawer the lowest numbers that are free in a magazine of so many places. A job's own tool keeps its number in its own
 * entry; the shop's list stays as it is.
 */
export function loadTools(
  plan: Pick<Plan, 'tools' | 'loaded'>,
  library: Library,
  wanted: readonly Tool[],
  places: number,
): Loaded {
  let change: Loaded['change'] = { tools: plan.tools, loaded: plan.loaded };
  const left: Tool[] = [];
  for (const tool of wanted) {
    const number = freeNumber(withJobTools(library, change).tools);
    if (number > places) left.push(tool);
    else if (change.tools.some((t) => t.id === tool.id))
      change = { ...change, tools: change.tools.map((t) => (t.id === tool.id ? { ...t, number } : t)) };
    else change = { ...change, loaded: { ...change.loaded, [tool.id]: number } };
  }
  return { change, left };
}

/** The same input with every tool that it needs from the drawer on a free number, as far as there are places: nobody is there to be asked. */
export function withDrawerLoaded<T extends DeriveInput>(input: T): T {
  const job = deriveJob(input);
  const wanted = fromDrawer(job);
  if (wanted.length === 0) return input;
  const { change } = loadTools(input.plan, input.library, wanted, job.machine.magazineSize);
  return { ...input, plan: { ...input.plan, ...change } };
}

/** Tools that are put into the magazine for a job, or are its own, and that none of its operations uses. */
export function idleTools(plan: Pick<Plan, 'tools' | 'loaded'>, library: Library, job: DerivedJob): Tool[] {
  const used = new Set(usedTools(job).map((t) => t.id));
  const own = new Set([...plan.tools.map((t) => t.id), ...Object.keys(plan.loaded)]);
  return withJobTools(library, plan).tools.filter((t) => own.has(t.id) && !used.has(t.id));
}

/** The plan's tools without those: the shop's go back into the drawer, the job's own are taken off its list. */
export function dropTools(plan: Pick<Plan, 'tools' | 'loaded'>, tools: readonly Tool[]): Loaded['change'] {
  const out = new Set(tools.map((t) => t.id));
  return {
    tools: plan.tools.filter((t) => !out.has(t.id)),
    loaded: Object.fromEntries(Object.entries(plan.loaded).filter(([id]) => !out.has(id))),
  };
}
