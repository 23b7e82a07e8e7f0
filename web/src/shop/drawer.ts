import { TOOL_KINDS } from '@yellow-pin/core/tools/kinds/registry';
import type { Tool } from '@yellow-pin/core/tools/schema';

/** Where a tool is to be looked for. */
export const PLACES = ['anywhere', 'in the magazine', 'in the drawer'] as const;
export type ToolPlace = (typeof PLACES)[number];

/** What the drawer is narrowed to. */
export interface DrawerFilter {
  search: string;
  /** Name of a kind; empty: all. */
  kind: string;
  place: ToolPlace;
  /** Diameters, mm. */
  from: number | null;
  to: number | null;
}

/** Tools that a filter leaves; words of the search stand anywhere in name, size, number, thread or holder. */
export function filterTools(tools: readonly Tool[], f: DrawerFilter): Tool[] {
  const words = f.search.toLowerCase().split(/\s+/).filter(Boolean);
  return tools.filter((t) => {
    if (f.kind !== '' && t.kind !== f.kind) return false;
    if (f.place === 'in the magazine' && t.number === null) return false;
    if (f.place === 'in the drawer' && t.number !== null) return false;
    if (f.from !== null && t.diameter < f.from - 1e-6) return false;
    if (f.to !== null && t.diameter > f.to + 1e-6) return false;
    const text = [
      t.description,
      t.sizeName,
      t.number === null ? '' : `t${t.number}`,
      t.thread?.designation ?? '',
    ]
      .join(' ')
      .toLowerCase();
    return words.every((w) => text.includes(w));
  });
}

/** A row of the drawer. */
export interface DrawerRow {
  name: string;
  tools: Tool[];
}

/** Rows by kind, each from thin to thick; the magazine is one row in the order of its places. */
export function drawerRows(tools: readonly Tool[], place: ToolPlace): DrawerRow[] {
  if (place === 'in the magazine')
    return [{ name: 'magazine', tools: [...tools].sort((a, b) => (a.number ?? 0) - (b.number ?? 0)) }];
  return TOOL_KINDS.flatMap(({ kind, label }) => {
    const own = tools.filter((t) => t.kind === kind);
    own.sort((a, b) => a.diameter - b.diameter || a.fluteLength - b.fluteLength);
    return own.length > 0 ? [{ name: `${label}s`, tools: own }] : [];
  });
}

/** Runs of free places in a magazine, as they are said: `45–60`. */
export function freePlaces(tools: readonly Tool[], size: number): string {
  const taken = new Set(tools.map((t) => t.number));
  const runs: [number, number][] = [];
  for (let n = 1; n <= size; n++) {
    if (taken.has(n)) continue;
    const last = runs[runs.length - 1];
    if (last?.[1] === n - 1) last[1] = n;
    else runs.push([n, n]);
  }
  return runs.map(([a, b]) => (a === b ? `${a}` : `${a}–${b}`)).join(', ');
}
