import { got, last as lastOf, first as firstOf } from '../lists.ts';
import type { Tool } from '../tools/schema.ts';

/** What is needed of an operation to put it in its place. */
export interface Ordered {
  tag: string;
  label: string;
  sizeKey: string;
  /** Place among the operations of its size: each needs those before it. */
  position: number;
  /** Sizes whose every operation must come before it. */
  after: readonly string[];
  rank: number;
  tool: Tool;
}

/** A stretch of a program that one tool runs. */
export interface Visit<T extends Ordered = Ordered> {
  /** The tool's id; a second visit of it is `id#2`. */
  key: string;
  tool: Tool;
  operations: T[];
}

/** Operations in the order in which they run: what is needed first, then as few tool changes as that allows, then by stage and tag. */
export function sequence<T extends Ordered>(
  operations: readonly T[],
  toolOrder: readonly string[] = [],
): T[] {
  const usual = usualOrder(operations);
  if (toolOrder.length === 0) return usual;
  const wanted = arrange(visitsOf(usual), toolOrder);
  return firstConflict(wanted) ? usual : wanted;
}

/** Consecutive operations of one tool. */
export function visitsOf<T extends Ordered>(operations: readonly T[]): Visit<T>[] {
  const seen = new Map<string, number>();
  const out: Visit<T>[] = [];
  for (const o of operations) {
    const last = out[out.length - 1];
    if (last?.tool.id === o.tool.id) {
      last.operations.push(o);
      continue;
    }
    const nth = (seen.get(o.tool.id) ?? 0) + 1;
    seen.set(o.tool.id, nth);
    out.push({ key: nth === 1 ? o.tool.id : `${o.tool.id}#${nth}`, tool: o.tool, operations: [o] });
  }
  return out;
}

/** Goes along the graph of what needs what: the tool in hand as long as it has something to do, then the one with the earliest stage. */
function usualOrder<T extends Ordered>(operations: readonly T[]): T[] {
  const left = new Set(operations);
  const bySize = new Map<string, T[]>();
  for (const o of operations) bySize.set(o.sizeKey, [...(bySize.get(o.sizeKey) ?? []), o]);
  const isReady = (o: T): boolean =>
    (bySize.get(o.sizeKey) ?? []).every((p) => p.position >= o.position || !left.has(p)) &&
    o.after.every((key) => (bySize.get(key) ?? []).every((p) => !left.has(p)));
  const out: T[] = [];
  let hand: Tool | null = null;
  while (left.size > 0) {
    let ready = [...left].filter(isReady);
    // Sizes that wait for each other: what is left runs by stage, and whoever planned it starts above the metal.
    if (ready.length === 0) ready = [...left];
    const held: string | undefined = hand?.id;
    const inHand: T[] = ready.filter((o) => o.tool.id === held);
    const now = inHand.length > 0 ? inHand : visitOf(nextTool(ready, left), ready);
    now.sort(byTag);
    for (const o of now) left.delete(o);
    out.push(...now);
    hand = lastOf(now).tool;
  }
  return out;
}

const visitOf = <T extends Ordered>(tool: Tool, ready: readonly T[]): T[] =>
  ready.filter((o) => o.tool.id === tool.id);

function nextTool<T extends Ordered>(ready: readonly T[], left: ReadonlySet<T>): Tool {
  const waiting = new Set([...left].filter((o) => !ready.includes(o)).map((o) => o.tool.id));
  const stage = (t: Tool): [number, number, number, number] => {
    const own = visitOf(t, ready);
    return [
      Math.min(...own.map((o) => o.rank)),
      // A tool that would have to come back later waits, where another of its stage need not.
      waiting.has(t.id) ? 1 : 0,
      Math.min(...own.map((o) => o.position)),
      t.number ?? 999,
    ];
  };
  const tools = [...new Map(ready.map((o) => [o.tool.id, o.tool])).values()];
  const ranked = tools
    .map((tool) => ({ tool, by: stage(tool) }))
    .sort((a, b) => a.by[0] - b.by[0] || a.by[1] - b.by[1] || a.by[2] - b.by[2] || a.by[3] - b.by[3]);
  return firstOf(ranked).tool;
}

const byTag = (a: Ordered, b: Ordered): number =>
  a.tag.length - b.tag.length || a.tag.localeCompare(b.tag) || a.position - b.position;

function arrange<T extends Ordered>(visits: readonly Visit<T>[], order: readonly string[]): T[] {
  const place = (v: Visit<T>): number => {
    const i = order.indexOf(v.key);
    return i < 0 ? order.length : i;
  };
  return [...visits].sort((a, b) => place(a) - place(b)).flatMap((v) => v.operations);
}

export interface OrderConflict {
  before: Ordered;
  after: Ordered;
  message: string;
}

/** The first operation that would run before one that it needs, or null. */
export function firstConflict(operations: readonly Ordered[]): OrderConflict | null {
  const place = new Map(operations.map((o, i) => [o, i]));
  const bySize = new Map<string, Ordered[]>();
  for (const o of operations) bySize.set(o.sizeKey, [...(bySize.get(o.sizeKey) ?? []), o]);
  for (const o of operations) {
    const needed = [
      ...(bySize.get(o.sizeKey) ?? []).filter((p) => p.position < o.position),
      ...o.after.flatMap((key) => bySize.get(key) ?? []),
    ];
    const late = needed.find((p) => got(place, p) > got(place, o));
    if (late)
      return {
        before: o,
        after: late,
        message: `${o.tag} ${o.label} (T${o.tool.number ?? '–'}) would run before ${late.tag} ${late.label} (T${late.tool.number ?? '–'}), which it needs done first.`,
      };
  }
  return null;
}

/** The order of visits after moving one to before another (null: to the end), or why that may not be. */
export function moveVisit(
  operations: readonly Ordered[],
  key: string,
  beforeKey: string | null,
): { order: string[] } | { conflict: OrderConflict } {
  const visits = visitsOf(operations);
  const order = visits.map((v) => v.key).filter((k) => k !== key);
  const at = beforeKey === null ? order.length : order.indexOf(beforeKey);
  order.splice(at < 0 ? order.length : at, 0, key);
  const conflict = firstConflict(arrange(visits, order));
  return conflict ? { conflict } : { order };
}
