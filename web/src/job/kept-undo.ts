import { planSchema, type Plan } from '@yellow-pin/core/plan/plan';
import type { DraftStore } from './autosave.ts';

/** Steps that are kept at most, and letters in all: a page's own storage is small. */
const MOST_STEPS = 40;
const MOST_LETTERS = 2_000_000;

/** What can be undone and done again, newest last and next first, as the plan's history has it. */
export interface Steps {
  past: Plan[];
  future: Plan[];
}

const keyOf = (id: string): string => `yellow-pin/undo/${id}`;
/** Two plans that say the same are the same text, in whatever order they were put together. */
const textOf = (plan: Plan): string => JSON.stringify(planSchema.parse(plan), sorted);

/** The database has its own order of names. */
const sorted = (_: string, value: unknown): unknown =>
  value !== null && typeof value === 'object' && !Array.isArray(value)
    ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0)))
    : value;

/** Whether two plans say the same. */
export const samePlan = (a: Plan, b: Plan): boolean => textOf(a) === textOf(b);

/** Keeps the steps for a reload of the page, with the plan that they lead to. The oldest go where there is no room. */
export function keepSteps(store: DraftStore, id: string, plan: Plan, { past, future }: Steps): void {
  try {
    const current = textOf(plan);
    const kept: Steps = { past: past.slice(-MOST_STEPS), future: future.slice(0, MOST_STEPS) };
    for (;;) {
      const text = JSON.stringify({ current, ...kept });
      if (text.length <= MOST_LETTERS) return store.setItem(keyOf(id), text);
      if (kept.past.length + kept.future.length === 0) return store.removeItem(keyOf(id));
      kept.past = kept.past.slice(Math.ceil(kept.past.length / 2));
      kept.future = kept.future.slice(0, Math.floor(kept.future.length / 2));
    }
  } catch {
    // The browser's storage is full or shut: undo works until the page is left.
  }
}

/** The steps that were kept, where they lead to just this plan; null where the plan was changed elsewhere since. */
export function keptSteps(store: DraftStore, id: string, plan: Plan): Steps | null {
  try {
    const kept = JSON.parse(store.getItem(keyOf(id)) ?? 'null') as {
      current?: unknown;
      past?: unknown;
      future?: unknown;
    } | null;
    if (!kept || kept.current !== textOf(plan)) return null;
    const read = (list: unknown): Plan[] => (Array.isArray(list) ? list.map((p) => planSchema.parse(p)) : []);
    return { past: read(kept.past), future: read(kept.future) };
  } catch {
    return null;
  }
}
