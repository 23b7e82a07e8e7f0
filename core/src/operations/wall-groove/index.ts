import { first, last } from '../../lists.ts';
import { bottomOf, type GrooveShape } from '../../features/groove-shape.ts';
import { extendedPath, move2, parallelPath } from '../../geometry/parallel.ts';
import { lineDirection, reversePath, segmentLength, type Segment, type Vec2 } from '../../geometry/path.ts';
import { alongChain, lineFrom, lineTo } from '../../motion/grooves/chain.ts';
import { begunOnLongest, ringsOut } from '../../motion/grooves/loops.ts';
import { roundWall } from '../../motion/grooves/walls.ts';
import type { Move, Pass, Work } from '../../motion/work.ts';
import type { Tool } from '../../tools/schema.ts';
import { chooseAmong } from '../choose-tool.ts';
import { whyUnder } from '../grooves/fit.ts';
import { outsideBy } from '../grooves/reach.ts';
import { levelTips } from '../grooves/levels.ts';
import { levelParameters, tallest, SIDE_CHOICES, SIDE_NUMBERS } from '../grooves/side.ts';
import { grooveWork, sideCut } from '../grooves/planned.ts';
import type { GrooveView } from '../groove-view.ts';
import { Parameters, type KindContext, type Missing, type OperationKind, type PlanResult } from '../kind.ts';

/** Room between a wall and a cutter in the air before it, and past the ends of a groove, mm. */
const CLEAR = 1;
const NECK_ROOM = 0.2;
/** How much higher than the groove a cutter may be measured to be, mm. */
const HIGHER = 0.005;
/** Radii of a cutter and of the arc in which a groove runs out that count as one, mm. */
const SAME_RADIUS = 0.02;

/** Cuts a groove into an outside or pocket wall: from the air before it or past its ends, along the wall at each level (handbook, N73). */
export const wallGrooveKind: OperationKind = {
  kind: 'wall-groove',
  cuts: ['grooves'],
  label: 'wall groove',
  toolKinds: ['t-cutter'],
  rank: 5.5,
  makes: ['side groove'],
  numbers: SIDE_NUMBERS,
  choices: SIDE_CHOICES,
  plan,
};

function plan(c: KindContext): PlanResult {
  const view = first(c.grooves);
  const { shape } = view;
  const level = first(shape.levels);
  if (!shape.isOneSided) return { missing: `${view.label} is in no wall.` };
  const height = level.top - level.bottom;
  const inWall = level.halfTop;
  const parameters = new Parameters(c);
  parameters.derived('inWall', 'into the wall', inWall, 'in the model', 'model');
  parameters.derived('width', 'width', height, 'in the model', 'model');
  const found = chooseAmong(c, { kind: 't-cutter', minDiameter: 2 * inWall, widest: true }, c.grooves, {
    inMetal: () => 0,
    whyNot: (t, v) => whyNot(c, t, v),
  });
  if ('missing' in found) return found;
  const tool = tallest(c, found, height);
  const how = levelParameters(parameters, view, tool, { inWall, height });
  const deep = [
    ...ringsOut(inWall - how.stock, how.stepover).map((d) => ({ deep: d, feed: 'cut' as const })),
    ...Array.from({ length: how.rounds }, () => ({ deep: inWall, feed: 'finish' as const })),
  ];
  const work: Work[] = [];
  for (const v of c.grooves) {
    const own = first(v.shape.levels);
    const r = c.space.setup.top + c.setup.retract;
    const tips = levelTips(own.top, own.bottom, tool.fluteLength, how.overlap, how.order);
    const pass = wallPass(v, tool, { tips, deep, r, isClimb: how.isClimb });
    if ('missing' in pass) return pass;
    work.push(grooveWork(v, [pass], r, Math.min(...tips)));
  }
  return sideCut(c, parameters, { tool, others: [found.tool, ...found.others] }, work);
}

/** The way of a cutter's centre so deep in a wall, run to climb or against it, ends lengthened; null where it has none. */
function wayAt({ shape }: GrooveView, tool: Tool, deep: number, isClimb: boolean): Segment[] | null {
  const base = shape.closed ? begunOnLongest(shape.path) : shape.path;
  const radius = tool.diameter / 2;
  const way = parallelPath(base, radius - deep, shape.closed);
  if (!way) return null;
  const past = (k: 0 | 1): number => (shape.ends[k].open ? outsideBy(shape.ends[k], radius) : 0);
  const cut = (k: 0 | 1): number => (shape.ends[k].open ? 0 : runOutBy(shape, radius));
  const run = shape.closed ? way : shortened(extendedPath(way, past(0), past(1)), cut(0), cut(1));
  if (!run) return null;
  return isClimb ? run : reversePath(run);
}

/** How far before the end of the wall's edge the centre of a cutter stops, so that its own arc makes the run-out there, mm. */
const runOutBy = ({ levels }: GrooveShape, radius: number): number =>
  Math.sqrt(Math.max(0, radius ** 2 - (radius - first(levels).halfTop) ** 2));

/** A chain less so much at its start and its end; null where those are not straight, or too short. */
function shortened(path: readonly Segment[], start: number, end: number): Segment[] | null {
  const out = [...path];
  if (start > 0) {
    const s = first(out);
    if (s.kind !== 'line' || segmentLength(s) < start - SAME_RADIUS) return null;
    out[0] = { ...s, from: move2(s.from, lineDirection(s), Math.min(start, segmentLength(s))) };
  }
  if (end > 0) {
    const s = last(out);
    if (s.kind !== 'line') return null;
    // One disc's plunge: both ends are one place.
    const by = Math.min(end, segmentLength(s));
    if (by < end - SAME_RADIUS) return null;
    out[out.length - 1] = { ...s, to: move2(s.to, lineDirection(s), -by) };
  }
  return out;
}

/** Radius of the tightest bend that the wall's back makes round the cutter, mm. */
const tightest = ({ path, levels }: GrooveShape): number =>
  Math.min(
    ...path.flatMap((s) => (s.kind === 'arc' && s.turn > 0 ? [s.radius + first(levels).halfTop] : [])),
  );

interface WallCut {
  tips: readonly number[];
  deep: readonly { deep: number; feed: 'cut' | 'finish' }[];
  r: number;
  isClimb: boolean;
}

/** All levels of one groove: down in the air before the wall, along it ever deeper, back through the air. */
function wallPass(v: GrooveView, tool: Tool, { tips, deep, r, isClimb }: WallCut): Pass | Missing {
  const ways = deep.map((d) => wayAt(v, tool, d.deep, isClimb));
  const outer = wayAt(v, tool, -CLEAR, isClimb);
  if (!outer || ways.some((w) => w === null))
    return { missing: `${v.label}: its bends are too tight to lead a cutter round them.`, holes: [v.label] };
  const wall = isClimb ? 'right' : 'left';
  const start = first(outer).from;
  const moves: Move[] = [];
  for (const z of tips) {
    moves.push(lineTo(start, z, 'lead'));
    let at: Vec2 = start;
    ways.forEach((way, i) => {
      const step = deep[i];
      if (!way || !step) return;
      const fed = { feed: step.feed, cutter: tool.diameter, side: wall } as const;
      if (v.shape.closed) {
        const lead = CLEAR + step.deep;
        const round = roundWall(way, at, z, lead, 1, fed);
        moves.push(...round.moves);
        at = round.at;
        return;
      }
      // Where it runs out in the wall it goes in there as well.
      const isFromAir = v.shape.ends[isClimb ? 0 : 1].open;
      moves.push(
        ...lineFrom(at, first(way).from, z, isFromAir ? 'lead' : step.feed),
        ...alongChain(way, z, z, fed),
      );
      // Off the wall, and back before it through the air.
      const back = reversePath(outer);
      moves.push(
        ...lineFrom(last(way).to, first(back).from, z, 'lead'),
        ...alongChain(back, z, z, { ...fed, feed: 'lead' }),
      );
      at = last(back).to;
    });
    moves.push(...lineFrom(at, start, z, 'lead'));
  }
  return { start: [start[0], start[1], r], moves };
}

function whyNot(c: KindContext, tool: Tool, view: GrooveView): string | null {
  const { shape, label } = view;
  const { top, bottom, halfTop: inWall } = first(shape.levels);
  const radius = tool.diameter / 2;
  if (tool.fluteLength > top - bottom + HIGHER)
    return `${label}: ${tool.description} is ${c.say(tool.fluteLength)} high, and the groove ${c.say(top - bottom)}.`;
  const neck = (tool.neckDiameter ?? tool.shankDiameter) / 2;
  if (radius - neck < inWall + NECK_ROOM)
    return `${label}: ${tool.description} reaches ${c.say(radius - neck)} beside its neck, and the groove is ${c.say(inWall)} deep. Take a wider cutter or a slimmer neck.`;
  if (shape.runOut !== undefined && Math.abs(shape.runOut - radius) > SAME_RADIUS)
    return `${label}: it runs out in an arc of R${c.say(shape.runOut)}: a cutter of \u2300${c.say(2 * shape.runOut)} makes it, and ${tool.description} does not.`;
  const [deepest, outer] = [wayAt(view, tool, inWall, true), wayAt(view, tool, -CLEAR, true)];
  // A bend that is tighter than the cutter would stay uncut in its corner.
  if (!deepest || !outer || radius > tightest(shape) + SAME_RADIUS)
    return `${label}: a bend in the wall is tighter than ${tool.description}: \u2300${c.say(2 * tightest(shape))} is the widest that gets round it.`;
  const why = whyUnder(c, tool, label, shape, [deepest], bottomOf(shape));
  if (why) return why;
  const [x, y] = first(outer).from;
  if (c.space.stockOver(x, y, radius) > bottomOf(shape))
    return `${label}: stock stands in the air before its wall, where the cutter comes down. Mill the wall first, or begin with prepared stock.`;
  const hit = c.space.partAt(c.discs(tool), x, y, bottomOf(shape), null);
  return hit
    ? `${label}: ${tool.description} has no room in the air before the wall: the part stands to Z ${c.say(hit.height)} there.`
    : null;
}
