import { toolKind } from './kinds/registry.ts';
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
  /** Of a corner-rounding cutter the radius that it leaves, mm. */
  profileRadius?: number;
  /** Of several sizes the widest is best; else the narrowest. */
  widest?: boolean;
  /** Depth below the hole's top that flutes or cutting edge must cover, mm. */
  reach?: number;
  /** Teeth that cut such a profile: of a thread mill. */
  threadForm?: { pitch: number; angleDeg: number; tapered: boolean };
  thread?: {
    designation: string;
    hand: 'right' | 'left';
    /** Not looked at: for making such a tap up. */
    pitch?: number;
    majorDiameter?: number;
    style?: 'cutting' | 'forming';
    /** Leads that will do, best first. */
    leads?: string[];
  };
}

/**
 * Tools of the right kind and size as they are preferred: the one that was chosen, favoured ones, then numbered ones, then the shortest. Never
 * a near size.
 */
export function sizedTools(
  tools: readonly Tool[],
  need: ToolNeed,
  say: (mm: number) => string,
  favour: readonly string[] = [],
  chosen?: string,
): { tools: Tool[] } | { missing: string; need: ToolNeed } {
  const sized = tools.filter((t) => fitsSize(t, need));
  if (sized.length === 0) return { missing: `No ${toolInWords(need, say)} in the tool list.`, need };
  const preferSmall = need.diameter === undefined;
  // Of sizes that count as one the nearest: #7 for 0.201 in, and 5.1 only where there is no #7.
  const off = (t: Tool): number => Math.round(500 * Math.abs(t.diameter - (need.diameter ?? 0)));
  const rank = (t: Tool): number => {
    const i = favour.indexOf(t.id);
    return i < 0 ? favour.length : i;
  };
  sized.sort(
    (a, b) =>
      Number(b.id === chosen) - Number(a.id === chosen) ||
      leadRank(a, need) - leadRank(b, need) ||
      rank(a) - rank(b) ||
      Number(a.number === null) - Number(b.number === null) ||
      (preferSmall ? (need.widest ? b.diameter - a.diameter : a.diameter - b.diameter) : off(a) - off(b)) ||
      a.fluteLength - b.fluteLength ||
      a.id.localeCompare(b.id),
  );
  return { tools: sized };
}

/** How deep a tool may go into what it cuts, mm: its flutes, or a neck behind them that is thinner than they are. */
export const reachOf = (t: Tool): number =>
  Math.max(t.fluteLength, (t.neckDiameter ?? Infinity) < t.diameter ? (t.neckLength ?? 0) : 0);

/** Why none of the tools is long enough. */
export function tooShort(tools: readonly Tool[], need: ToolNeed, say: (mm: number) => string): string {
  const longest = Math.max(...tools.map(reachOf));
  return `No ${toolInWords(need, say)} reaches ${say(need.reach ?? 0)} deep: the longest has ${say(longest)} of flute.`;
}

function fitsSize(t: Tool, n: ToolNeed): boolean {
  if (t.kind !== n.kind) return false;
  if (n.diameter !== undefined && Math.abs(t.diameter - n.diameter) > SIZE_MATCH) return false;
  if (n.minDiameter !== undefined && t.diameter < n.minDiameter - 1e-6) return false;
  if (n.maxDiameter !== undefined && t.diameter > n.maxDiameter + 1e-6) return false;
  if (n.angleDeg !== undefined && Math.abs((t.pointAngleDeg ?? 180) - n.angleDeg) > 0.5) return false;
  if (n.profileRadius !== undefined && Math.abs(roundingRadius(t) - n.profileRadius) > SAME_RADIUS)
    return false;
  if (n.threadForm && !cutsForm(t, n.threadForm)) return false;
  if (n.thread) {
    const th = t.thread;
    if (!th || th.designation !== n.thread.designation || th.hand !== n.thread.hand) return false;
    if (n.thread.style && th.style !== n.thread.style) return false;
    if (n.thread.leads && !n.thread.leads.includes(th.lead)) return false;
  }
  return true;
}

/** A cutter leaves a radius that differs by no more than this, mm. */
const SAME_RADIUS = 0.005;

/** The radius that a corner-rounding cutter leaves, mm. */
export const roundingRadius = (t: Tool): number => t.profileRadius ?? (t.diameter - t.tipDiameter) / 2;

/** A full profile cuts its own pitch, a partial one all from its least to its widest (mm). */
const SAME_PITCH = 0.005;

function cutsForm({ threadForm: f }: Tool, n: NonNullable<ToolNeed['threadForm']>): boolean {
  if (!f || f.angleDeg !== n.angleDeg) return false;
  // One row goes along a taper by itself.
  if (f.tapered !== n.tapered && (f.tapered || f.rows > 1)) return false;
  return n.pitch >= f.pitch - SAME_PITCH && n.pitch <= (f.pitchTo ?? f.pitch) + SAME_PITCH;
}

const leadRank = (t: Tool, n: ToolNeed): number =>
  n.thread?.leads && t.thread ? n.thread.leads.indexOf(t.thread.lead) : 0;

/** A tool that is looked for, as the trade says it: kind, size, angle or thread. */
export function toolInWords(n: ToolNeed, say: (mm: number) => string): string {
  const name = toolKind(n.kind).label;
  if (n.thread)
    return `${n.thread.hand === 'left' ? 'left-hand ' : ''}${n.thread.style ?? ''} tap ${n.thread.designation}`
      .replace(/\s+/g, ' ')
      .trim();
  if (n.threadForm) {
    const { pitch, angleDeg, tapered } = n.threadForm;
    return `${tapered ? 'tapered ' : ''}${name} P${say(pitch)} ${angleDeg}° up to ⌀${say(n.maxDiameter ?? 0)}`;
  }
  if (n.profileRadius !== undefined) return `${name} R${say(n.profileRadius)}`;
  const angle = n.angleDeg !== undefined ? ` ${Math.round(n.angleDeg)}°` : '';
  if (n.diameter !== undefined) return `${name} ⌀${say(n.diameter)}${angle}`;
  const from = n.minDiameter !== undefined ? ` from ⌀${say(n.minDiameter)}` : '';
  const to = n.maxDiameter !== undefined ? ` up to ⌀${say(n.maxDiameter)}` : '';
  return `${name}${angle}${from}${to}`;
}
