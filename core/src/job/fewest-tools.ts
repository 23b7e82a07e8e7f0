import { first } from '../lists.ts';
import type { PlannedOperation, Row } from './row.ts';

/**
 * Setup id → the fewest tools that do all its work where operations leave a choice: first those that are needed anyhow, then the tool that
 * serves most, each time. Setups where the first choice is as few already are not named.
 */
export function fewestTools(rows: readonly Row[]): Map<string, string[]> {
  const bySetup = new Map<string, PlannedOperation[]>();
  for (const o of rows.flatMap((r) => r.operations))
    bySetup.set(o.setupId, [...(bySetup.get(o.setupId) ?? []), o]);
  const out = new Map<string, string[]>();
  for (const [setup, operations] of bySetup) {
    const free = operations.filter((o) => (o.alternatives?.length ?? 0) > 0);
    const needed = new Set(operations.filter((o) => !free.includes(o)).map((o) => o.tool.id));
    const chosen = cover(free, needed);
    const isFewer = new Set([...needed, ...chosen]).size < new Set(operations.map((o) => o.tool.id)).size;
    if (isFewer) out.set(setup, chosen);
  }
  return out;
}

function cover(operations: readonly PlannedOperation[], needed: ReadonlySet<string>): string[] {
  let left = [...operations];
  const chosen: string[] = [];
  while (left.length > 0) {
    const serves = new Map<string, number>();
    for (const o of left) for (const id of o.alternatives ?? []) serves.set(id, (serves.get(id) ?? 0) + 1);
    // Of equals the one that was chosen for more of them, then by name: the same answer each time.
    const taken = (id: string): number => left.filter((o) => o.tool.id === id).length;
    const ranked = [...serves].sort(
      (a, b) =>
        Number(needed.has(b[0])) - Number(needed.has(a[0])) ||
        b[1] - a[1] ||
        taken(b[0]) - taken(a[0]) ||
        a[0].localeCompare(b[0]),
    );
    const [best] = first(ranked);
    chosen.push(best);
    left = left.filter((o) => !o.alternatives?.includes(best));
  }
  return chosen;
}
