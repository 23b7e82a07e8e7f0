import type { ToolKind, Tool } from './schema.ts';

/** Two sizes this near are the same size, mm: letter and number drills against their tables. */
export const SIZE_MATCH = 0.011;

export interface ToolNeed {
  kind: ToolKind;
  /** Exact diameter, mm. */
  diameter?: number;
  /** At least and at most, mm. */
  minDiameter?: number;
  maxDiameter?: number;
  angleDeg?: number;
  /** Depth below the hole's top that flutes or cutting edge must cover, mm. */
  reach?: number;
  thread?: { designation: string; hand: 'right' | 'left'; style?: 'cutting' | 'forming'; leads?: string[] };
}

export type Found = { tool: Tool } | { missing: string };

/** The shop's tool for a need: right size, long enough; a numbered one first, then the shortest. Never a near size. */
export function findTool(tools: readonly Tool[], need: ToolNeed, say: (mm: number) => string): Found {
  const sized = tools.filter((t) => fitsSize(t, need));
  if (sized.length === 0) return { missing: `No ${describe(need, say)} in the tool list.` };
  const long = sized.filter((t) => need.reach === undefined || t.fluteLength >= need.reach - 1e-6);
  if (long.length === 0) {
    const longest = Math.max(...sized.map((t) => t.fluteLength));
    return { missing: `No ${describe(need, say)} reaches ${say(need.reach!)} deep: the longest has ${say(longest)} of flute.` };
  }
  const preferSmall = need.diameter === undefined;
  long.sort(
    (a, b) =>
      leadRank(a, need) - leadRank(b, need) ||
      Number(a.number === null) - Number(b.number === null) ||
      (preferSmall ? a.diameter - b.diameter : 0) ||
      a.fluteLength - b.fluteLength ||
      a.id.localeCompare(b.id),
  );
  return { tool: long[0]! };
}

function fitsSize(t: Tool, n: ToolNeed): boolean {
  if (t.kind !== n.kind) return false;
  if (n.diameter !== undefined && Math.abs(t.diameter - n.diameter) > SIZE_MATCH) return false;
  if (n.minDiameter !== undefined && t.diameter < n.minDiameter - 1e-6) return false;
  if (n.maxDiameter !== undefined && t.diameter > n.maxDiameter + 1e-6) return false;
  if (n.angleDeg !== undefined && Math.abs((t.pointAngleDeg ?? 180) - n.angleDeg) > 0.5) return false;
  if (n.thread) {
    const th = t.thread;
    if (!th || th.designation !== n.thread.designation || th.hand !== n.thread.hand) return false;
    if (n.thread.style && th.style !== n.thread.style) return false;
    if (n.thread.leads && !n.thread.leads.includes(th.lead)) return false;
  }
  return true;
}

const leadRank = (t: Tool, n: ToolNeed): number => (n.thread?.leads && t.thread ? n.thread.leads.indexOf(t.thread.lead) : 0);

function describe(n: ToolNeed, say: (mm: number) => string): string {
  const name = n.kind.replace('-', ' ');
  if (n.thread) return `${n.thread.hand === 'left' ? 'left-hand ' : ''}${n.thread.style ?? ''} tap ${n.thread.designation}`.replace(/\s+/g, ' ').trim();
  const angle = n.angleDeg !== undefined ? ` ${Math.round(n.angleDeg)}°` : '';
  if (n.diameter !== undefined) return `${name} ⌀${say(n.diameter)}${angle}`;
  const from = n.minDiameter !== undefined ? ` from ⌀${say(n.minDiameter)}` : '';
  const to = n.maxDiameter !== undefined ? ` up to ⌀${say(n.maxDiameter)}` : '';
  return `${name}${angle}${from}${to}`;
}
