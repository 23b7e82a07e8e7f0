import type { MachineProfile } from '../code/profiles/schema.ts';
import { arcSweep } from '../geometry/arc.ts';
import { mainLine, type Motion, type ReadProgram } from '../code/read/motion.ts';

/** Time of a move of length s (mm) at speed v (mm/s) with acceleration a (mm/s²), trapezoid speed: s. */
export function moveTime(s: number, v: number, a: number): number {
  if (s <= 0) return 0;
  return s >= (v * v) / a ? s / v + v / a : 2 * Math.sqrt(s / a);
}

export interface ProgramTime {
  total: number;
  /** Seconds of each line of the main program; a call has those of its subprogram. */
  byLine: Map<number, number>;
  byTool: Map<number, number>;
}

/** Running time from what was read: motion, dwells, tool changes and spindle starts. Unknown heights count as nothing. */
export function programTime(read: ReadProgram, profile: MachineProfile): ProgramTime {
  const byLine = new Map<number, number>();
  const byTool = new Map<number, number>();
  const ends = motionTimes(read, profile);
  for (const [n, m] of read.motions.entries()) {
    const t = (ends[n] ?? 0) - (ends[n - 1] ?? 0);
    const line = mainLine(m);
    byLine.set(line, (byLine.get(line) ?? 0) + t);
    byTool.set(m.tool, (byTool.get(m.tool) ?? 0) + t);
  }
  return { total: ends[ends.length - 1] ?? 0, byLine, byTool };
}

/** When each motion of a program ends, s from its start; a tool change counts with the tool's first motion. */
export function motionTimes(read: Pick<ReadProgram, 'motions'>, profile: MachineProfile): Float64Array {
  const ends = new Float64Array(read.motions.length);
  let total = 0;
  let tool = -1;
  for (const [n, m] of read.motions.entries()) {
    total += motionTime(m, profile);
    if (m.tool !== tool) {
      // Tool 0 is none: nothing was changed in yet.
      if (m.tool !== 0) total += profile.toolChangeSeconds + profile.spindleStartSeconds;
      tool = m.tool;
    }
    ends[n] = total;
  }
  return ends;
}

/** What a program's time goes into. */
export const TIME_PARTS = ['cutting', 'rapid', 'pecks', 'dwell', 'tool change', 'speeding up'] as const;
export type TimePart = (typeof TIME_PARTS)[number];

/** One tool's time by what it goes into, s. */
export interface ToolTime {
  tool: number;
  parts: Record<TimePart, number>;
}

/**
 * Where a program's time goes, tool by tool in the order of their first use: fed ways at their feed, rapid ways, the ways out and in of
 * pecks, dwells, tool changes with the spindle's start, and what speeding up and slowing down adds to all moves.
 */
export function timeShares(read: Pick<ReadProgram, 'motions'>, profile: MachineProfile): ToolTime[] {
  const out = new Map<number, ToolTime>();
  let last = -1;
  for (const m of read.motions) {
    let own = out.get(m.tool);
    if (!own) {
      const none = Object.fromEntries(TIME_PARTS.map((p) => [p, 0])) as Record<TimePart, number>;
      out.set(m.tool, (own = { tool: m.tool, parts: none }));
    }
    if (m.tool !== last && m.tool !== 0)
      own.parts['tool change'] += profile.toolChangeSeconds + profile.spindleStartSeconds;
    last = m.tool;
    if (m.kind === 'dwell') {
      own.parts.dwell += m.seconds ?? 0;
      continue;
    }
    const speed = (m.kind === 'rapid' ? profile.rapid : m.feed) / 60;
    if (speed <= 0) continue;
    const even = lengthOf(m) / speed;
    const isPeck = m.kind === 'rapid' && pecks(m.how) && m.from[0] === m.to[0] && m.from[1] === m.to[1];
    own.parts[m.kind !== 'rapid' ? 'cutting' : isPeck ? 'pecks' : 'rapid'] += even;
    own.parts['speeding up'] += motionTime(m, profile) - even;
  }
  return [...out.values()].filter((t) => TIME_PARTS.some((p) => t.parts[p] > 1e-9));
}

/** Whether a cycle goes down in pecks. */
function pecks(how: Motion['how']): boolean {
  return how === 'full-retract' || how === 'chip-break';
}

const lengthOf = (m: Motion): number => (m.kind === 'arc' ? arcLength(m) : straightLength(m));

function motionTime(m: Motion, profile: MachineProfile): number {
  if (m.kind === 'dwell') return m.seconds ?? 0;
  const length = lengthOf(m);
  const speed = (m.kind === 'rapid' ? profile.rapid : m.feed) / 60;
  return speed > 0 ? moveTime(length, speed, profile.acceleration) : 0;
}

function straightLength(m: Motion): number {
  return Math.hypot(...m.from.map((v, i) => (v === null || m.to[i] === null ? 0 : (m.to[i] ?? v) - v)));
}

function arcLength(m: Motion): number {
  const [x0, y0, z0] = m.from as [number, number, number];
  const [x1, y1, z1] = m.to as [number, number, number];
  if (!m.centre) return straightLength(m);
  const [cx, cy] = m.centre;
  const r = Math.hypot(x0 - cx, y0 - cy);
  const [start, end] = [Math.atan2(y0 - cy, x0 - cx), Math.atan2(y1 - cy, x1 - cx)];
  const turn = arcSweep(start, end, m.clockwise === true, m.turns ?? 0);
  return Math.hypot(r * turn, z1 - z0);
}
