import type { Plan } from './plan.ts';

/** What comes of two plans that were changed from one: both their changes, and what both changed otherwise. */
export interface Merged {
  plan: Plan;
  /** What both have changed, each in another way; there `theirs` stands. */
  conflicts: Conflict[];
}

/** A place of the plan: a field, and within it the size, setup or tool. */
export interface Conflict {
  field: keyof Plan;
  key: string | null;
}

type Records = { [K in keyof Plan]: Plan[K] extends Record<string, unknown> ? K : never }[keyof Plan];
/** Fields whose entries are decided one by one. */
const BY_KEY = [
  'sizes',
  'toolOrders',
  'splits',
  'loaded',
  'handEdits',
  'codeOptions',
] as const satisfies readonly Records[];
/** Lists whose entries have a name of their own. */
const BY_ID = {
  setups: (s: Plan['setups'][number]) => s.id,
  corrections: (c: Plan['corrections'][number]) => c.id,
  tools: (t: Plan['tools'][number]) => t.id,
  accepted: (a: Plan['accepted'][number]) => JSON.stringify([a.rule, a.setupId, a.message]),
};

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** A merge of three: what either changed of `base` is taken, and what both changed otherwise is named. */
export function mergePlans(base: Plan, mine: Plan, theirs: Plan): Merged {
  const conflicts: Conflict[] = [];
  const plan: Record<string, unknown> = {};
  for (const field of Object.keys({ ...theirs, ...mine }) as (keyof Plan)[]) {
    const at = (key: string | null) => (): void => void conflicts.push({ field, key });
    if (isByKey(field)) plan[field] = byKey(base[field], mine[field], theirs[field], at);
    else if (field in BY_ID) plan[field] = byId(field as keyof typeof BY_ID, { base, mine, theirs }, at);
    else plan[field] = one(base[field], mine[field], theirs[field], at(null));
  }
  return { plan: plan as Plan, conflicts };
}

const isByKey = (field: keyof Plan): field is (typeof BY_KEY)[number] =>
  (BY_KEY as readonly string[]).includes(field);

function one<T>(base: T, mine: T, theirs: T, clash: () => void): T {
  if (same(mine, base) || same(mine, theirs)) return theirs;
  if (!same(theirs, base)) {
    clash();
    return theirs;
  }
  return mine;
}

function byKey(
  base: Record<string, unknown>,
  mine: Record<string, unknown>,
  theirs: Record<string, unknown>,
  at: (key: string) => () => void,
): Record<string, unknown> {
  const out: Record<string, unknown> = {};
  for (const key of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
    const value = one(base[key], mine[key], theirs[key], at(key));
    if (value !== undefined) out[key] = value;
  }
  return out;
}

/** Entries by their names: theirs in their order, then those that only mine has. */
function byId<F extends keyof typeof BY_ID>(
  field: F,
  { base, mine, theirs }: Record<'base' | 'mine' | 'theirs', Plan>,
  at: (key: string) => () => void,
): unknown[] {
  const nameOf = BY_ID[field] as (entry: unknown) => string;
  const named = (list: readonly unknown[]) => new Map(list.map((e) => [nameOf(e), e]));
  const [was, own, other] = [named(base[field]), named(mine[field]), named(theirs[field])];
  return [...new Set([...other.keys(), ...own.keys()])].flatMap((key) => {
    const entry = one(was.get(key), own.get(key), other.get(key), at(key));
    return entry === undefined ? [] : [entry];
  });
}
