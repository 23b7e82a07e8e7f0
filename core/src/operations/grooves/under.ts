import { first } from '../../lists.ts';
import { bottomOf, topOf } from '../../features/groove-shape.ts';
import { parallelPath } from '../../geometry/parallel.ts';
import type { Segment } from '../../geometry/path.ts';
import { runOf, type Middle } from '../../motion/grooves/loops.ts';
import type { Work } from '../../motion/work.ts';
import type { Tool } from '../../tools/schema.ts';
import type { GrooveView } from '../groove-view.ts';
import type { KindContext, Missing } from '../kind.ts';
import { whyUnder } from './fit.ts';
import { grooveWork } from './planned.ts';
import { outsideBy, pastEnds } from './reach.ts';
import { underPass, type UnderCut } from './under-passes.ts';

/** The middle line of what lies under a mouth, with how far a cutter goes past its ends; and by which it may come and go. */
function underMiddle(
  c: KindContext,
  view: GrooveView,
  tool: Tool,
): { middle: Middle; isFromStart: boolean } | { missing: string } {
  const { shape } = view;
  // Beyond the ends it stands in the air: its part above the mouth is what may be in the way there.
  const past = pastEnds(c, view, shape.path, tool, topOf(shape));
  const reach = pastOutside(c, view, tool);
  const free = [past[0].isFree && reach[0], past[1].isFree && reach[1]];
  if (!free[0] && !free[1])
    return {
      missing: `${view.label} has no open end that ${tool.description} can come in by: it is wider than the mouth.`,
    };
  const blocked = ([0, 1] as const).find((k) => shape.ends[k].open && !free[k]);
  if (blocked !== undefined)
    return {
      missing: `${view.label}: past one of its open ends there is no room for ${tool.description} to run out.`,
    };
  return {
    middle: { path: shape.path, closed: false, past: [past[0].by, past[1].by] },
    isFromStart: free[0] === true,
  };
}

/** Whether a cutter stands clear of the part with its whole outline where it has left by each end. */
function pastOutside(c: KindContext, { shape }: GrooveView, tool: Tool): [boolean, boolean] {
  const z = bottomOf(shape);
  const isClear = (k: 0 | 1): boolean => {
    const end = shape.ends[k];
    if (!end.open) return false;
    const by = outsideBy(end, tool.diameter / 2);
    const run = runOf({ path: shape.path, closed: false, past: k === 0 ? [by, null] : [null, by] });
    const s = k === 0 ? first(run) : run[run.length - 1];
    const p = k === 0 ? s?.from : s?.to;
    return p !== undefined && c.space.partAt(c.discs(tool), p[0], p[1], z, null) === null;
  };
  return [isClear(0), isClear(1)];
}

/** Why a cutter does not do under a mouth as far as `off` from the middle with its tip at each of some levels; null where it does. */
export function whyNotUnder(
  c: KindContext,
  view: GrooveView,
  tool: Tool,
  off: number,
  tips: readonly number[],
): string | null {
  const { shape } = view;
  const way = underMiddle(c, view, tool);
  if ('missing' in way) return way.missing;
  const sides = [parallelPath(shape.path, off, false), parallelPath(shape.path, -off, false)];
  if (sides.some((s) => s === null)) return `${view.label}: its bends are too tight for ${tool.description}.`;
  for (const z of tips) {
    const why = whyUnder(c, tool, view.label, shape, sides as Segment[][], z);
    if (why) return why;
  }
  return null;
}

/** The work of each groove, or why one cannot be made so. */
export function underWork(
  c: KindContext,
  tool: Tool,
  levelsOf: (view: GrooveView) => UnderCut['levels'],
  { stepover, isClimb }: Pick<UnderCut, 'stepover' | 'isClimb'>,
): Work[] | Missing {
  const out: Work[] = [];
  for (const v of c.grooves) {
    const way = underMiddle(c, v, tool);
    if ('missing' in way) return { missing: way.missing, holes: [v.label] };
    const r = Math.max(v.entryZ, v.metalZ) + c.setup.retract;
    const levels = levelsOf(v);
    const pass = underPass({ ...way, diameter: tool.diameter, r, levels, stepover, isClimb });
    if (!pass)
      return {
        missing: `${v.label}: its bends are too tight to lead a cutter round them.`,
        holes: [v.label],
      };
    out.push(grooveWork(v, [pass], r, Math.min(...levels.map((l) => l.z))));
  }
  return out;
}
