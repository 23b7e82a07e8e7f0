import type { ReadProgram } from '../../code/read/motion.ts';
import { BoxGrid } from '../../geometry/box-grid.ts';
import { distance } from '../../geometry/vec.ts';
import type { DerivedSetup } from '../../job/derive.ts';
import type { PlannedOperation } from '../../job/row.ts';
import type { WantedRise, Work } from '../../motion/work.ts';
import { ballAt, besideLine, isBall } from '../../operations/edges/ball.ts';
import type { Tool } from '../../tools/schema.ts';
import { chordsOf, isKnown, type KnownMotion } from '../chords.ts';

/** mm. */
const CELL = 5;
/** A ball is on an edge that its surface comes this near to, mm. */
const NEAR = 0.3;

/** An edge that rises and falls and is to be broken in a setup, with the work that is planned for it. */
export interface SeenRise {
  rise: WantedRise;
  work: Work;
  operation: PlannedOperation;
}

/** How far balls stayed from it at each of its points, less what they are to: mm, and in which lines. */
export interface MilledRise extends SeenRise {
  tool: Tool;
  /** Infinity where nothing came by. */
  off: number[];
  lines: number[];
  feed: number;
  speed: number;
}

/** Finds the edges that rise and fall along which a ball goes. */
export class RiseFinder {
  private readonly grid = new BoxGrid<{ seen: SeenRise; i: number }>(CELL);
  readonly rises: readonly SeenRise[];

  constructor({ operations }: DerivedSetup) {
    this.rises = operations.flatMap((operation) =>
      operation.work.flatMap((work) => (work.rises ?? []).map((rise) => ({ rise, work, operation }))),
    );
    for (const seen of this.rises)
      seen.rise.run.forEach(({ at: [x, y] }, i) => this.grid.add({ seen, i }, [x, y, x, y]));
  }

  /** The points of edges that a ball on a straight stretch comes by, with how far its middle stays from each, mm. */
  by(m: KnownMotion, tool: Tool): { seen: SeenRise; i: number; stays: number }[] {
    if (this.rises.length === 0 || m.kind === 'rapid' || !isBall(tool)) return [];
    const radius = tool.diameter / 2;
    const up = ([x, y, z]: KnownMotion['to']): KnownMotion['to'] => [x, y, z + radius];
    const [a, b] = [up(m.from), up(m.to)];
    const half = Math.hypot(b[0] - a[0], b[1] - a[1]) / 2;
    return this.grid
      .near((a[0] + b[0]) / 2, (a[1] + b[1]) / 2, half + radius + NEAR)
      .flatMap(({ seen, i }) => {
        const p = seen.rise.run[i];
        const stays = p ? besideLine(p.at, a, b) : Infinity;
        return stays <= radius + NEAR ? [{ seen, i, stays }] : [];
      });
  }

  /** Whether a motion comes by any of them. */
  isOn(m: KnownMotion, tool: Tool): boolean {
    return chordsOf(m).some((c) => this.by(c, tool).length > 0);
  }
}

/** What was cut along the edges that rise and fall, from what was read. */
export function milledRises(
  read: ReadProgram,
  finder: RiseFinder,
  toolOf: (number: number) => Tool | null,
): MilledRise[] {
  const out = new Map<SeenRise, MilledRise & { stays: number[] }>();
  if (finder.rises.length === 0) return [];
  for (const m of read.motions) {
    const tool = m.kind === 'feed' || m.kind === 'arc' ? toolOf(m.tool) : null;
    if (!tool || !isKnown(m)) continue;
    for (const c of chordsOf(m))
      for (const { seen, i, stays } of finder.by(c, tool)) {
        let g = out.get(seen);
        const empty = (v: number): number[] => seen.rise.run.map(() => v);
        if (!g)
          out.set(
            seen,
            (g = { ...seen, tool, off: [], stays: empty(Infinity), lines: empty(0), feed: 0, speed: 0 }),
          );
        g.feed = Math.max(g.feed, m.feed);
        g.speed = Math.max(g.speed, m.speed);
        if (stays < (g.stays[i] ?? Infinity)) [g.stays[i], g.lines[i]] = [stays, m.line];
      }
  }
  return [...out.values()].map(({ stays, ...g }) => ({
    ...g,
    off: g.rise.run.map((p, i) => {
      const middle = ballAt(p, g.rise.width, g.tool.diameter / 2);
      return middle ? (stays[i] ?? Infinity) - distance(middle, p.at) : Infinity;
    }),
  }));
}
