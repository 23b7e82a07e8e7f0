import { temporal } from 'zundo';
import { create } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import { correctionSchema, type Correction } from '@yellow-pin/core/corrections/schema';
import type { Plan, SizeDecision } from '@yellow-pin/core/plan/plan';
import type { Setup } from '@yellow-pin/core/setup/setup';
import type { Steps } from './kept-undo.ts';
import type { Tool } from '@yellow-pin/core/tools/schema';
import { newId } from '../kit/new-id.ts';

/** The plan being worked on, with undo; what is picked is kept apart and not undone. */
interface PlanState {
  plan: Plan | null;
  setPlan(plan: Plan | null): void;
}

export const usePlan = create<PlanState>()(
  temporal((set) => ({ plan: null, setPlan: (plan) => set({ plan }) }), {
    partialize: ({ plan }) => ({ plan }),
    equality: (a, b) => a.plan === b.plan,
    limit: 200,
  }),
);

/** Loads a plan as the new start: nothing before it can be undone to. */
export function loadPlan(plan: Plan | null): void {
  usePlan.getState().setPlan(plan);
  usePlan.temporal.getState().clear();
}

/** What can be undone and done again by now. */
export function stepsOf(): Steps {
  const { pastStates, futureStates } = usePlan.temporal.getState();
  const plans = (states: { plan?: Plan | null }[]): Plan[] => states.flatMap((s) => (s.plan ? [s.plan] : []));
  return { past: plans(pastStates), future: plans(futureStates) };
}

/** Takes up the steps of before a reload. */
export function takeSteps({ past, future }: Steps): void {
  usePlan.temporal.setState({
    pastStates: past.map((plan) => ({ plan })),
    futureStates: future.map((plan) => ({ plan })),
  });
}

export const undo = (): void => {
  if (usePlan.temporal.getState().pastStates.some((s) => s.plan)) usePlan.temporal.getState().undo();
};
export const redo = (): void => usePlan.temporal.getState().redo();

/**
 * One thing done with the hand, such as a drag: its first change is a step that can be undone, the others until {@link endGesture} belong
 * to it.
 */
let gesture: 'none' | 'begun' | 'recorded' = 'none';
export const beginGesture = (): void => void (gesture = 'begun');
export function endGesture(): void {
  gesture = 'none';
  usePlan.temporal.getState().resume();
}

function change(make: (plan: Plan) => Plan): void {
  const { plan, setPlan } = usePlan.getState();
  if (!plan) return;
  setPlan(make(plan));
  if (gesture !== 'begun') return;
  gesture = 'recorded';
  usePlan.temporal.getState().pause();
}

export const changePlan = (part: Partial<Plan>): void => change((p) => ({ ...p, ...part }));

export const changeSetup = (id: string, part: Partial<Setup>): void =>
  change((p) => ({ ...p, setups: p.setups.map((s) => (s.id === id ? { ...s, ...part } : s)) }));

/** The order of tools in one setup; those of the others stay. */
export const orderTools = (setupId: string, order: string[]): void =>
  change((p) => ({ ...p, toolOrders: { ...p.toolOrders, [setupId]: order } }));

/** Before which tools of a setup its program goes on in another file. */
export const splitFiles = (setupId: string, splits: string[]): void =>
  change((p) => {
    const { [setupId]: _, ...rest } = p.splits;
    return { ...p, splits: splits.length > 0 ? { ...rest, [setupId]: splits } : rest };
  });

export const decide = (key: string, part: Partial<SizeDecision>): void =>
  change((p) => ({ ...p, sizes: { ...p.sizes, [key]: { overrides: {}, ...p.sizes[key], ...part } } }));

/** Types a parameter of an operation; null lets the worked-out value come back. */
export function override(
  sizeKey: string,
  operationKey: string,
  parameter: string,
  value: number | string | null,
): void {
  change((p) => {
    const size = p.sizes[sizeKey] ?? { overrides: {} };
    const { [parameter]: _, ...rest } = size.overrides[operationKey] ?? {};
    const typed = value === null ? rest : { ...rest, [parameter]: value };
    return {
      ...p,
      sizes: { ...p.sizes, [sizeKey]: { ...size, overrides: { ...size.overrides, [operationKey]: typed } } },
    };
  });
}

/** Takes another tool for an operation; null: whichever is best. */
export function chooseTool(sizeKey: string, operationKey: string, toolId: string | null): void {
  change((p) => {
    const size = p.sizes[sizeKey] ?? { overrides: {} };
    const { [operationKey]: _, ...rest } = size.tools ?? {};
    const tools = toolId === null ? rest : { ...rest, [operationKey]: toolId };
    return { ...p, sizes: { ...p.sizes, [sizeKey]: { ...size, tools } } };
  });
}

/** A correction without its id, which it is given here. */
export type NewCorrection = Correction extends infer C
  ? C extends Correction
    ? Omit<C, 'id'>
    : never
  : never;

/** Adds a correction; where its numbers are outside what a correction takes, nothing changes and the answer says why. */
export function correct(c: NewCorrection): string | null {
  const whole = { ...c, id: `c-${newId()}` } as Correction;
  const checked = correctionSchema.safeParse(whole);
  if (!checked.success) {
    const issue = checked.error.issues[0]!;
    return `${issue.path.filter((p) => typeof p === 'string').join(' ')}: ${issue.message}.`;
  }
  change((p) => ({ ...p, corrections: [...p.corrections, whole] }));
  return null;
}

/** Takes one correction back and leaves the others. */
export const takeBack = (id: string): void =>
  change((p) => ({ ...p, corrections: p.corrections.filter((c) => c.id !== id) }));

/** A tool that this job has beside the shop's. */
export const addTool = (tool: Tool): void => change((p) => ({ ...p, tools: [...p.tools, tool] }));

/** The same decision for several sizes in one step. */
export const decideMany = (keys: string[], part: Partial<SizeDecision>): void =>
  change((p) => ({
    ...p,
    sizes: {
      ...p.sizes,
      ...Object.fromEntries(keys.map((k) => [k, { overrides: {}, ...p.sizes[k], ...part }])),
    },
  }));

/** What a click on the part is for. */
export type Picking =
  | { for: 'up' }
  | { for: 'up-points'; got: Vec3[] }
  | { for: 'x' }
  | { for: 'x-points'; got: Vec3[] }
  | { for: 'zero' }
  | { for: 'clamp' }
  | { for: 'hole' }
  | { for: 'edges'; got: number[] };

/** What is in hand on the bench, as the address has it. */
export interface InHand {
  setupId: string | null;
  tag: string | null;
  /** Key of the operation shown in the section. */
  operation: string | null;
  /** One hole's label, such as A3. */
  hole: string | null;
  /** A line of the program. */
  line: number | null;
}

/** What is in hand, and what is pointed at. */
interface PickState extends InHand {
  hover: string | null;
  /** Tags with holes in the face that was pointed at; null: every face. */
  onFace: string[] | null;
  /** More rows that are worked on together with the one in hand. */
  chosen: string[];
  picking: Picking | null;
  /** Why the last click did nothing. */
  pickSaid: string | null;
  /** The place of the finding that was clicked, in the part file's frame, mm. */
  place: Vec3 | null;
  pick(part: Partial<Omit<PickState, 'pick'>>): void;
}

/** Whether another thing is taken in hand: the place of what was in hand before is its own no longer. */
const isOther = (part: object): boolean => 'tag' in part || 'hole' in part || 'line' in part;

export const usePick = create<PickState>()((set) => ({
  setupId: null,
  tag: null,
  operation: null,
  hole: null,
  line: null,
  hover: null,
  onFace: null,
  chosen: [],
  picking: null,
  pickSaid: null,
  place: null,
  pick: (part) => set(isOther(part) ? { place: null, ...part } : part),
}));

/** Some of what is in hand; who uses it is drawn again when just that changes. */
export const usePicked = <K extends keyof PickState>(...names: K[]): Pick<PickState, K> =>
  usePick(useShallow((s) => Object.fromEntries(names.map((n) => [n, s[n]])) as Pick<PickState, K>));

/** Nothing in hand but the setup. */
export const NOTHING = { tag: null, hole: null, operation: null, line: null } as const;

/** Begins to pick something on the part, or gives it up where that is being picked already. */
export function togglePicking(next: Picking): void {
  const { picking, pick } = usePick.getState();
  pick({ picking: picking?.for === next.for ? null : next, pickSaid: null });
}
