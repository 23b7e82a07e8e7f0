import type { ReadProgram } from '../../code/read/motion.ts';
import type { DerivedJob, DerivedSetup } from '../../job/derive.ts';
import { labelOf } from '../../job/placed.ts';
import type { Row } from '../../job/row.ts';
import { offMiddle, pastEnd, type GrooveShape } from '../../features/groove-shape.ts';
import { beyondWalls } from '../../operations/grooves/fit.ts';
import { besidePath } from '../../geometry/parallel.ts';
import { segmentPoint, type Vec2 } from '../../geometry/path.ts';
import { BoxGrid } from '../../geometry/box-grid.ts';
import { viewGroove, type GrooveView } from '../../operations/groove-view.ts';
import { toolKind } from '../../tools/kinds/registry.ts';
import type { ProfilePoint } from '../../tools/profile.ts';
import type { Tool } from '../../tools/schema.ts';
import { chordsOf, type KnownMotion } from '../chords.ts';
import { goesUnder } from './undercut.ts';

/** Farthest that a cutter may reach beyond a groove's wall and still be meant for it, mm. */
const BESIDE = 0.3;
/** How far past an open end it may be, beyond its own radius, mm. */
const PAST = 5;
const CELL = 10;

/** A slot, groove or channel as a setup sees it. */
export interface SeenGroove {
  view: GrooveView;
  row: Row;
}

/** All that a setup reaches. */
export const seenGrooves = (job: DerivedJob, setup: DerivedSetup): SeenGroove[] =>
  job.rows.flatMap((row) =>
    row.size.features.flatMap((f, i): SeenGroove[] => {
      const view = viewGroove(f, labelOf(row.size, i), setup.frame.frame);
      return view ? [{ view, row }] : [];
    }),
  );

/** Fed, and able to cut on its side. */
export const isMilling = (m: { kind: string; how?: unknown }, tool: Tool): boolean =>
  (m.kind === 'feed' || m.kind === 'arc') &&
  m.how === undefined &&
  !toolKind(tool.kind).onlyPlunges &&
  !toolKind(tool.kind).cutsThreads &&
  !toolKind(tool.kind).onRims;

/** Finds the groove that a mill's motion stays in. */
export class GrooveFinder {
  private readonly grid = new BoxGrid<SeenGroove>(CELL);

  constructor(
    readonly grooves: readonly SeenGroove[],
    /** A tool's whole outline. */
    private readonly outline: (tool: Tool) => readonly ProfilePoint[],
  ) {
    for (const g of grooves) {
      const { shape } = g.view;
      const half = Math.max(...shape.levels.flatMap((l) => [l.halfTop, l.halfBottom])) + 30;
      const points = shape.path.flatMap((s) => [0, 0.25, 0.5, 0.75, 1].map((t) => segmentPoint(s, t)));
      const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
      this.grid.add(g, [
        Math.min(...xs) - half,
        Math.min(...ys) - half,
        Math.max(...xs) + half,
        Math.max(...ys) + half,
      ]);
    }
  }

  /** Null for a motion that stays in none: beside them all, above them, or beyond their walls. */
  at(m: KnownMotion, tool: Tool): SeenGroove | null {
    if (!isMilling(m, tool)) return null;
    const [x, y] = m.to;
    let best: { groove: SeenGroove; by: number } | null = null;
    for (const g of this.grid.near(x, y, 0)) {
      const by = this.beyond(g, m, tool);
      if (by !== null && by <= BESIDE && (!best || by < best.by)) best = { groove: g, by };
    }
    return best?.groove ?? null;
  }

  /** The groove whose middle lies within its own width of a place. */
  over(x: number, y: number): SeenGroove | null {
    const isOver = ({ view: { shape } }: SeenGroove): boolean =>
      !shape.isOneSided &&
      shape.bore === undefined &&
      offMiddle(shape, [x, y]) <= Math.max(...shape.levels.map((l) => l.halfTop));
    return this.grid.near(x, y, 0).find(isOver) ?? null;
  }

  private beyond({ view: { shape } }: SeenGroove, m: KnownMotion, tool: Tool): number | null {
    // What only passes by in the bore, or in the air before a wall, is not in its groove.
    if ((shape.isOneSided || shape.bore !== undefined) && !goesUnder(shape, tool, m)) return null;
    // By what cuts it is told where a cutter is; what stands too wide above that is judged.
    const profile = this.outline(tool).filter((p) => p.part === 'cutting');
    let worst: number | null = null;
    // Straight up or down it is in the groove where either end is: the other may be above it, or in its ceiling.
    const isUpright = m.kind !== 'arc' && m.from[0] === m.to[0] && m.from[1] === m.to[1];
    for (const c of chordsOf(m))
      for (const p of [c.from, c.to]) {
        const own = beyondWalls(shape, profile, p);
        if (!own) continue;
        if (!isNear(shape, [p[0], p[1]], tool.diameter / 2)) return null;
        worst = worst === null ? own.by : isUpright ? Math.min(worst, own.by) : Math.max(worst, own.by);
      }
    return worst;
  }
}

/** Whether a place is in a groove, or past its open end no farther than it takes to leave it. */
function isNear(shape: GrooveShape, p: Vec2, radius: number): boolean {
  const { off, beyond } = besidePath(shape.path, p);
  if (shape.isOneSided) return off < radius + PAST;
  if (beyond === null) return true;
  const end = beyond === 'start' ? shape.ends[0] : shape.ends[1];
  return !end.open || pastEnd(shape.path, p, beyond) <= radius + end.beyond + PAST;
}

/** What a mill did in a groove. */
export interface MilledGroove {
  groove: SeenGroove;
  tool: Tool;
  /** Lowest place of its tip, and the line in which it went there. */
  low: number;
  line: number;
  /** Fastest feed, mm/min, and highest speed, rpm. */
  feed: number;
  speed: number;
}

/** Grooves that were milled, one entry for each tool, from what was read. */
export function milledGrooves(
  read: ReadProgram,
  finder: GrooveFinder,
  toolOf: (number: number) => Tool | null,
): MilledGroove[] {
  const out = new Map<string, MilledGroove>();
  if (finder.grooves.length === 0) return [];
  for (const m of read.motions) {
    const tool = m.kind === 'feed' || m.kind === 'arc' ? toolOf(m.tool) : null;
    if (!tool || [...m.from, ...m.to].some((v) => v === null)) continue;
    const own = m as KnownMotion;
    const groove = finder.at(own, tool);
    if (!groove) continue;
    const key = `${groove.view.label}/${tool.id}`;
    let g = out.get(key);
    if (!g) out.set(key, (g = { groove, tool, low: Infinity, line: m.line, feed: 0, speed: 0 }));
    if (own.to[2] < g.low) [g.low, g.line] = [own.to[2], m.line];
    g.feed = Math.max(g.feed, m.feed);
    g.speed = Math.max(g.speed, m.speed);
  }
  return [...out.values()];
}
