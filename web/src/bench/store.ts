import { temporal } from 'zundo';
import { create } from 'zustand';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import type { Correction } from '@yellow-pin/core/corrections/schema';
import type { Plan, SizeDecision } from '@yellow-pin/core/job/plan';
import type { Setup } from '@yellow-pin/core/job/setup';

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

export const undo = (): void => {
  if (usePlan.temporal.getState().pastStates.some((s) => s.plan)) usePlan.temporal.getState().undo();
};
export const redo = (): void => usePlan.temporal.getState().redo();

function change(make: (plan: Plan) => Plan): void {
  const { plan, setPlan } = usePlan.getState();
  if (plan) setPlan(make(plan));
}

export const changePlan = (part: Partial<Plan>): void => change((p) => ({ ...p, ...part }));

export const changeSetup = (id: string, part: Partial<Setup>): void => change((p) => ({ ...p, setups: p.setups.map((s) => (s.id === id ? { ...s, ...part } : s)) }));

export const decide = (key: string, part: Partial<SizeDecision>): void => change((p) => ({ ...p, sizes: { ...p.sizes, [key]: { overrides: {}, ...p.sizes[key], ...part } } }));

/** Types a parameter of an operation; null lets the worked-out value come back. */
export function override(sizeKey: string, operationKey: string, parameter: string, value: number | string | null): void {
  change((p) => {
    const size = p.sizes[sizeKey] ?? { overrides: {} };
    const { [parameter]: _, ...rest } = size.overrides[operationKey] ?? {};
    const typed = value === null ? rest : { ...rest, [parameter]: value };
    return { ...p, sizes: { ...p.sizes, [sizeKey]: { ...size, overrides: { ...size.overrides, [operationKey]: typed } } } };
  });
}

/** A correction without its id, which it is given here. */
export type NewCorrection = Correction extends infer C ? (C extends Correction ? Omit<C, 'id'> : never) : never;

export const correct = (c: NewCorrection): void => change((p) => ({ ...p, corrections: [...p.corrections, { ...c, id: `c-${crypto.randomUUID().slice(0, 12)}` } as Correction] }));

/** Takes one correction back and leaves the others. */
export const takeBack = (id: string): void => change((p) => ({ ...p, corrections: p.corrections.filter((c) => c.id !== id) }));

/** The same decision for several sizes in one step. */
export const decideMany = (keys: string[], part: Partial<SizeDecision>): void =>
  change((p) => ({ ...p, sizes: { ...p.sizes, ...Object.fromEntries(keys.map((k) => [k, { overrides: {}, ...p.sizes[k], ...part }])) } }));

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

/** What is in hand on the bench. */
interface PickState {
  setupId: string | null;
  tag: string | null;
  /** Key of the operation shown in the section. */
  operation: string | null;
  /** One hole's label, such as A3. */
  hole: string | null;
  line: number | null;
  hover: string | null;
  /** Tags with holes in the face that was pointed at; null: every face. */
  onFace: string[] | null;
  /** More rows that are worked on together with the one in hand. */
  chosen: string[];
  picking: Picking | null;
  /** Why the last click did nothing. */
  pickSaid: string | null;
  pick(part: Partial<Omit<PickState, 'pick'>>): void;
}

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
  pick: (part) => set(part),
}));
