import type { PlannedOperation } from './derive.ts';

/** Operations in the order in which they run: by stage, all of one tool together, then by tag. */
export function sequence(operations: PlannedOperation[], toolOrder: string[] = []): PlannedOperation[] {
  const usual = groupByTool(operations);
  if (toolOrder.length === 0) return usual.flat();
  const wanted = applyOrder(usual, toolOrder);
  return (firstConflict(wanted.flat()) ? usual : wanted).flat();
}

function groupByTool(operations: PlannedOperation[]): PlannedOperation[][] {
  // A tool used at two stages of one size (two drills of a step) is two visits: the key holds the stage.
  const visits = new Map<string, PlannedOperation[]>();
  for (const o of operations) {
    const key = `${o.rank}/${o.tool.id}`;
    const list = visits.get(key);
    if (list) list.push(o);
    else visits.set(key, [o]);
  }
  const groups = [...visits.values()];
  for (const g of groups) g.sort((a, b) => a.tag.length - b.tag.length || a.tag.localeCompare(b.tag) || a.position - b.position);
  const place = (g: PlannedOperation[]) => Math.min(...g.map((o) => o.position));
  return groups.sort((a, b) => a[0]!.rank - b[0]!.rank || place(a) - place(b) || (a[0]!.tool.number ?? 999) - (b[0]!.tool.number ?? 999));
}

function applyOrder(groups: PlannedOperation[][], toolOrder: string[]): PlannedOperation[][] {
  const rank = (g: PlannedOperation[]) => {
    const i = toolOrder.indexOf(g[0]!.tool.id);
    return i < 0 ? Infinity : i;
  };
  const named = groups.filter((g) => rank(g) < Infinity).sort((a, b) => rank(a) - rank(b));
  const rest = groups.filter((g) => rank(g) === Infinity);
  return [...named, ...rest];
}

export interface OrderConflict {
  before: PlannedOperation;
  after: PlannedOperation;
  message: string;
}

/** The first operation that would run before one of the same size that it depends on, or null. */
export function firstConflict(operations: PlannedOperation[]): OrderConflict | null {
  const reached = new Map<string, PlannedOperation>();
  for (const o of operations) {
    const last = reached.get(o.sizeKey);
    if (last && last.position > o.position) {
      return {
        before: last,
        after: o,
        message: `${last.tag} ${last.label} (T${last.tool.number ?? '–'}) would run before ${o.tag} ${o.label} (T${o.tool.number ?? '–'}), which it needs done first.`,
      };
    }
    reached.set(o.sizeKey, o);
  }
  return null;
}

/** Tool ids in the order of a program's visits. */
export const toolsInOrder = (operations: PlannedOperation[]): string[] => [...new Set(operations.map((o) => o.tool.id))];

/** The tool order after moving `toolId` to before `beforeId` (null: to the end), or why that may not be. */
export function moveTool(operations: PlannedOperation[], toolId: string, beforeId: string | null): { order: string[] } | { conflict: OrderConflict } {
  const order = toolsInOrder(operations).filter((id) => id !== toolId);
  const at = beforeId === null ? order.length : order.indexOf(beforeId);
  order.splice(at < 0 ? order.length : at, 0, toolId);
  const moved = applyOrder(groupByTool(operations), order).flat();
  const conflict = firstConflict(moved);
  return conflict ? { conflict } : { order };
}
