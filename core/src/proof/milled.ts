import { length2 } from '../geometry/path.ts';
import { mainLine, type Motion, type ReadProgram } from '../code/read/motion.ts';
import { widestStep } from '../tools/kinds/kind.ts';
import { toolKind } from '../tools/kinds/registry.ts';
import type { Tool } from '../tools/schema.ts';
import type { PlacedStep } from '../operations/hole-view.ts';
import type { SeenHole } from './checks/check.ts';

/** Farthest that a path may reach beyond a hole's wall and still be meant for it, mm: what goes farther is judged as what it meets. */
const BESIDE = 0.3;
const SAME_AXIS = 0.02;
/** A thread that nobody confirmed is looked for up to this many times as wide as its hole. */
const UNSAID = 1.2;

type At = readonly [number, number, number];

/** A motion of a mill inside a hole, seen from the hole's axis. */
export interface InHole {
  hole: SeenHole;
  /** Farthest place of the tool's axis from the hole's, mm. */
  orbit: number;
  /** Once round or more on the hole's own axis. */
  isRound: boolean;
  /** How far it reaches beyond the hole's widest wall, mm; less than none inside it. */
  beyond: number;
}

/** Finds the hole that a mill's motion stays in; of several on an axis the one at that height. */
export class HoleFinder {
  private readonly cells = new Map<string, SeenHole[]>();
  private readonly reach: number;

  constructor(holes: readonly SeenHole[]) {
    this.reach = Math.max(
      1,
      ...holes.map((h) => Math.max(widestStep(h.view), h.row.thread?.majorDiameter ?? 0) / 2),
    );
    for (const h of holes) {
      const key = this.cell(h.view.x, h.view.y).join();
      const list = this.cells.get(key);
      if (list) list.push(h);
      else this.cells.set(key, [h]);
    }
  }

  private cell(x: number, y: number): readonly [number, number] {
    return [Math.floor(x / this.reach), Math.floor(y / this.reach)];
  }

  /** Null for a motion that leaves every hole, or whose ends are not known. */
  at(m: Motion, tool: Tool): InHole | null {
    if ([...m.from, ...m.to].some((v) => v === null)) return null;
    const [from, to] = [m.from as At, m.to as At];
    const z = Math.min(from[2], to[2]);
    let best: (InHole & { off: number }) | null = null;
    // Neighbours are counted by cells: a step of one reach from a cell's own border may pass one over.
    const [column, row] = this.cell(to[0], to[1]);
    for (let i = -1; i <= 1; i++)
      for (let j = -1; j <= 1; j++)
        for (const hole of this.cells.get(`${column + i},${row + j}`) ?? []) {
          const { view } = hole;
          const orbit = farthest(m, from, to, view.x, view.y);
          // A cutter on a rim is wider there than the hole: of it only the tip must stay inside.
          const { onRims, cutsThreads } = toolKind(tool.kind);
          const inside = onRims ? tool.tipDiameter : tool.diameter;
          const thread = cutsThreads ? (hole.row.thread?.majorDiameter ?? UNSAID * widestStep(view)) : 0;
          const beyond = orbit + inside / 2 - Math.max(widestStep(view), thread) / 2;
          if (beyond > BESIDE) continue;
          // Of two cheeks on an axis, the one whose depth is nearest.
          const low = view.entryZ - view.depth;
          const off = z > view.entryZ ? z - view.entryZ : z < low ? low - z : 0;
          const isRound =
            m.kind === 'arc' &&
            ((m.turns ?? 0) >= 1 || m.round === true) &&
            m.centre !== undefined &&
            length2(m.centre[0] - view.x, m.centre[1] - view.y) <= SAME_AXIS;
          if (!best || off < best.off) best = { hole, orbit, isRound, beyond, off };
        }
    return best;
  }
}

/** Farthest place of a motion from an axis, mm; of an arc that is no full circle, at most that. */
function farthest(m: Motion, from: At, to: At, x: number, y: number): number {
  const ends = Math.max(length2(from[0] - x, from[1] - y), length2(to[0] - x, to[1] - y));
  if (m.kind !== 'arc' || !m.centre) return ends;
  const [cx, cy] = m.centre;
  return Math.max(ends, length2(cx - x, cy - y) + length2(from[0] - cx, from[1] - cy));
}

/**
 * How far below its entry a hole is at least `diameter` wide, mm; Infinity where it is so to an open end. `slack` is taken off the diameter:
 * a wall is touched, and code is rounded.
 */
export function wideTo(
  steps: readonly PlacedStep[],
  diameter: number,
  through: boolean,
  slack = 0.03,
): number {
  const wanted = diameter - slack;
  for (const s of steps) {
    if (s.shape === 'cylinder') {
      if (s.diameter < wanted) return s.top;
      continue;
    }
    const narrow = Math.min(s.startDiameter, s.endDiameter);
    if (narrow >= wanted) continue;
    if (s.startDiameter < wanted) return s.top;
    return s.top + ((s.startDiameter - wanted) / (s.startDiameter - s.endDiameter)) * s.length;
  }
  return through ? Infinity : (steps.at(-1)?.end ?? 0);
}

/** One diameter that a hole was cut to, and how deep it went. */
export interface Round {
  line: number;
  diameter: number;
  z: number;
}

/** A hole that a mill went round in. */
export interface MilledHole {
  hole: SeenHole;
  tool: Tool;
  /** From the narrowest to the widest. */
  rounds: Round[];
  /** The motions that went round, in the order of the text; of a thread cutter all that it was fed. */
  motions: Motion[];
  /** Fastest feed of its rounds, mm/min, and highest speed, rpm. */
  feed: number;
  speed: number;
}

/** Rounds of one diameter agree within this, mm. */
const SAME_ROUND = 0.005;

/** Holes that are milled, one entry for each tool, from what was read. */
export function milledHoles(
  read: Pick<ReadProgram, 'motions'>,
  finder: HoleFinder,
  toolOf: (number: number) => Tool | null,
): MilledHole[] {
  const out = new Map<string, MilledHole>();
  for (const m of read.motions) {
    if (m.kind !== 'arc' && m.kind !== 'feed') continue;
    const tool = toolOf(m.tool);
    if (!tool || toolKind(tool.kind).onlyPlunges) continue;
    // A thread may be cut in pieces of turns; all else is judged by whole circles.
    const isThread = toolKind(tool.kind).cutsThreads === true;
    if (m.kind === 'feed' && !isThread) continue;
    const inside = finder.at(m, tool);
    if (!inside || m.to[2] === null || !(inside.isRound || isThread)) continue;
    const key = `${inside.hole.view.label}/${tool.id}`;
    let hole = out.get(key);
    if (!hole) out.set(key, (hole = { hole: inside.hole, tool, rounds: [], motions: [], feed: 0, speed: 0 }));
    hole.motions.push(m);
    if (!inside.isRound) continue;
    const diameter = 2 * inside.orbit + tool.diameter;
    const z = m.to[2];
    const same = hole.rounds.find((r) => Math.abs(r.diameter - diameter) <= SAME_ROUND);
    if (!same) hole.rounds.push({ line: mainLine(m), diameter, z });
    else if (z < same.z) [same.z, same.line] = [z, mainLine(m)];
    hole.feed = Math.max(hole.feed, m.feed);
    hole.speed = Math.max(hole.speed, m.speed);
  }
  for (const { rounds } of out.values()) rounds.sort((a, b) => a.diameter - b.diameter);
  return [...out.values()];
}
