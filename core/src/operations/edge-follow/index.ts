import { distance, type Vec3 } from '../../geometry/vec.ts';
import { at, first, last } from '../../lists.ts';
import type { Move, Work } from '../../motion/work.ts';
import type { RisePoint } from '../../features/edge/shape.ts';
import { ballAt, hollowOf, isBall, thinned } from '../edges/ball.ts';
import { chooseAmong, hitInWords } from '../choose-tool.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import type { EdgeView } from '../edge-view.ts';
import { EDGE_CHOICES, notThere, USUAL_WIDTH } from '../edges/planned.ts';
import { LEAD_SHARE } from '../grooves/planned.ts';
import { Parameters, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';
import type { Tool } from '../../tools/schema.ts';

/** How far the straight moves of its way may lie off it, mm. */
const TOLERANCE = 0.004;
/** Gone over twice where a closed edge joins, and how far outside it the cutter comes down, of its radius. */
const OVERLAP = 1;
const OUTSIDE = 0.6;
/** Room for chords of round walls, mm. */
const BESIDE = -0.03;

/** Follows an edge that rises and falls with a ball, its axis upright (N84): what it leaves is a hollow, whose depth is said. */
export const edgeFollowKind: OperationKind = {
  kind: 'edge-follow',
  cuts: ['edges'],
  label: 'edge break by a ball',
  toolKinds: ['end-mill', 'lollipop'],
  rank: 9,
  makesEdges: ['rising'],
  numbers: { width: 'width' },
  choices: { cutting: EDGE_CHOICES.cutting },
  plan: planFollow,
};

function planFollow(c: KindContext): PlanResult {
  const waiting = notThere(c);
  if (waiting) return waiting;
  const parameters = new Parameters(c);
  const width = parameters.length(
    'width',
    'width',
    c.edgeBreak ?? USUAL_WIDTH,
    'method',
    'on each of its faces',
  );
  const isClimb =
    parameters.choice('cutting', 'cutting', EDGE_CHOICES.cutting, 'climb', 'method') === 'climb';
  const balls = c.tools.filter(isBall);
  const [ball] = balls;
  if (!ball)
    return { missing: 'No ball mill and no lollipop cutter in the tool list.', need: { kind: 'lollipop' } };
  const known = new Map<string, Work | string>();
  const made = (t: Tool, v: EdgeView): Work | string => {
    const key = `${t.id}/${v.label}`;
    const have = known.get(key) ?? follow(c, t, v, width, isClimb);
    known.set(key, have);
    return have;
  };
  // A mill is stiffer than a cutter on a neck, and the wider the ball the flatter its hollow.
  const kind = balls.some((t) => t.kind === 'end-mill') ? 'end-mill' : ball.kind;
  const found = chooseAmong({ ...c, tools: balls }, { kind, widest: true }, c.edges, {
    inMetal: () => 0,
    whyNot: (t, v) => {
      const own = made(t, v);
      return typeof own === 'string' ? `${v.label}: ${own}` : null;
    },
  });
  if ('missing' in found) return found;
  const { tool, others } = found;
  const work = c.edges.map((v) => made(tool, v)).filter((w) => typeof w !== 'string');
  const hollow = Math.max(...work.flatMap((w) => (w.rises ?? []).map((r) => r.hollow)));
  parameters.derived('hollow', 'hollow', hollow, 'deeper than a flat, in its middle');
  const numbers = cuttingNumbers(c, parameters, tool, tool.stickOut);
  return {
    tool,
    speed: numbers.speed,
    feed: numbers.feed,
    feeds: { cut: numbers.feed, lead: Math.min(c.machine.maxFeed, LEAD_SHARE * numbers.feed) },
    work,
    parameters: parameters.list,
    remarks: [
      ...numbers.remarks,
      {
        rule: 'hollow-edge',
        severity: 'note',
        message: `A ball leaves no flat but a hollow, ${c.say(hollow)} deep in its middle.`,
      },
    ],
    alternatives: [tool, ...others].map((t) => t.id),
  };
}

/** The ball's way along an edge, or why it has no room. */
function follow(c: KindContext, tool: Tool, v: EdgeView, width: number, isClimb: boolean): Work | string {
  const run = v.shape.rise;
  const radius = tool.diameter / 2;
  if (!run) return 'it does not rise.';
  const centres = run.map((p) => ballAt(p, width, radius));
  const tips = centres.flatMap((p): Vec3[] => (p ? [[p[0], p[1], p[2] - radius]] : []));
  if (tips.length < run.length)
    return `the ball of ${tool.description} is too small for a break of ${c.say(width)}. Take a larger one.`;
  const way = thinned(isClimb ? [...tips].reverse() : tips, TOLERANCE);
  const hit = meets(c, tool, way, width);
  if (hit) return hit;
  const [start, end] = [first(way), last(way)];
  const points = v.shape.closed ? [...way, ...firstOf(way, OVERLAP)] : way;
  const on = outside(c, tool, run, isClimb ? last(run) : first(run), start, radius);
  const off = v.shape.closed ? on : outside(c, tool, run, isClimb ? first(run) : last(run), end, radius);
  const r = Math.max(c.space.setup.top, v.entryZ, v.metalZ) + c.setup.retract;
  const line = (to: Vec3, feed: 'cut' | 'lead'): Move => ({ kind: 'line', to, feed });
  const moves: Move[] = [
    line(on, 'lead'),
    // It is at the metal before it is at the edge's first point.
    ...points.map((p) => line(p, 'cut')),
    line([off[0], off[1], Math.max(off[2], last(points)[2])], 'lead'),
  ];
  return {
    feature: v.feature.id,
    label: v.label,
    x: on[0],
    y: on[1],
    r,
    z: Math.min(...way.map((p) => p[2])),
    entryZ: v.entryZ,
    metalZ: v.metalZ,
    rises: [
      {
        feature: v.feature.id,
        run,
        width,
        hollow: Math.max(...run.map((p) => hollowOf(p, width, radius))),
      },
    ],
    motion: { kind: 'path', passes: [{ start: [on[0], on[1], r], moves }] },
  };
}

/** What of the tool would stand in what is to stay; the corner that the ball cuts is left out. */
function meets(c: KindContext, tool: Tool, way: readonly Vec3[], width: number): string | null {
  const discs = c.discs(tool).map((d) => (d.part === 'cutting' ? { ...d, r: d.r - 1.5 * width } : d));
  for (let i = 1; i < way.length; i++) {
    const hit = c.space.partAlong(discs, at(way, i - 1), at(way, i), BESIDE);
    if (hit) return hitInWords(c, tool, hit);
  }
  return null;
}

/** A place outside an end of the edge and above it, where the cutter comes down or goes up: over the end itself where there is no room. */
function outside(
  c: KindContext,
  tool: Tool,
  run: readonly RisePoint[],
  p: RisePoint,
  tip: Vec3,
  radius: number,
): Vec3 {
  const l = Math.hypot(p.out[0], p.out[1]) || 1;
  const by = OUTSIDE * radius;
  const beside: Vec3 = [tip[0] + (by * p.out[0]) / l, tip[1] + (by * p.out[1]) / l, tip[2] + 0.5 * by];
  if (run.length > 1 && !c.space.partAlong(c.discs(tool), beside, beside, 0)) return beside;
  return [tip[0], tip[1], tip[2] + radius];
}

/** The first stretch of a chain of points, mm along it. */
function firstOf(way: readonly Vec3[], length: number): Vec3[] {
  const out: Vec3[] = [];
  let rest = length;
  for (let i = 0; i < way.length; i++) {
    const p = at(way, i);
    const before = i === 0 ? null : at(way, i - 1);
    const l = before ? distance(p, before) : 0;
    if (before && l >= rest) {
      const t = rest / l;
      return [...out, [0, 1, 2].map((k) => at(before, k) + t * (at(p, k) - at(before, k))) as Vec3];
    }
    rest -= l;
    out.push(p);
  }
  return out;
}
