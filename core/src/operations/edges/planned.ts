import { first, last } from '../../lists.ts';
import type { Tool } from '../../tools/schema.ts';
import type { ToolNeed } from '../../tools/find.ts';
import { partName } from '../../space/space.ts';
import { chooseAmong } from '../choose-tool.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import type { EdgeView } from '../edge-view.ts';
import { LEAD_SHARE } from '../grooves/planned.ts';
import { Parameters, type KindContext, type PlanResult, type Remark } from '../kind.ts';
import { clearOf } from './beside.ts';
import { lengthOf, makeEdge, type EdgeAsk, type EdgeMade, type FormCut } from './made.ts';

export const EDGE_CHOICES = {
  cutting: ['climb', 'conventional'],
  corners: ['rolled round', 'sharp'],
} as const;
/** Of the feed, on a way down along an edge. */
const RAMP_SHARE = 0.7;
/** Straight down it is fed at this share of what it may sideways. */
const PLUNGE_SHARE = 0.4;
/** What stays of an edge is not said where it is shorter, mm. */
const LEAST_SAID = 0.05;

/** Width of a broken edge where nothing else is said, mm. */
export const USUAL_WIDTH = 0.3;
/** Passes at the most: nobody means more. */
const MOST_PASSES = 20;

/** Shares of an edge's size after each of its passes: each takes as much metal, which grows with the square of the size. mm. */
export function passShares(size: number, perPass: number): number[] {
  const n = Math.min(MOST_PASSES, Math.max(1, Math.ceil(size / perPass - 1e-9)));
  return Array.from({ length: n }, (_, i) => Math.sqrt((i + 1) / n));
}

/** Why some of the edges are not there yet; null where all are. */
export function notThere({ edges }: Pick<KindContext, 'edges'>): PlanResult | null {
  const waiting = edges.filter((v) => v.metalFrom !== null);
  const [one] = waiting;
  return one ? { missing: `${one.label}: ${one.metalFrom ?? ''}`, holes: waiting.map((v) => v.label) } : null;
}

/** What a kind of operation knows of the edges that it cuts. */
export interface EdgeForm {
  /** Asks for its numbers; called again for the tool that is taken, so that they are shown once. */
  ask(parameters: Parameters): EdgeCuts;
  /** Shown beside the numbers that were asked for. */
  show?(parameters: Parameters, tool: Tool, form: FormCut): void;
  /** Whether outside corners may be gone round. */
  mayRoll: boolean;
  /** What the operator must know of the tool that is taken. */
  remarks?(tool: Tool, form: FormCut): Remark[];
}

/** The cutter that does, and the ways in which one may stand on an edge, best first; or why it cannot. */
export interface EdgeCuts {
  need: ToolNeed;
  cutsOf(tool: Tool, view: EdgeView): readonly FormCut[] | { missing: string };
}

/** Plans the edges of a size with the shop's tool that gets along all of them, or says of each why it cannot be cut. */
export function planEdges(c: KindContext, form: EdgeForm): PlanResult {
  const waiting = notThere(c);
  if (waiting) return waiting;
  const known = new Map<string, { made: EdgeMade; form: FormCut | null }>();
  const tryOut = new Parameters(c);
  const { need, cutsOf } = form.ask(tryOut);
  const ask = askWay(tryOut, c, form.mayRoll);
  const made = (tool: Tool, v: EdgeView): { made: EdgeMade; form: FormCut | null } => {
    const key = `${tool.id}/${v.label}`;
    const have = known.get(key) ?? firstThatFits(c, tool, v, cutsOf(tool, v), ask);
    known.set(key, have);
    return have;
  };
  const found = chooseAmong(c, need, c.edges, {
    inMetal: () => 0,
    whyNot: (t, v) => {
      const own = made(t, v).made;
      return 'missing' in own ? `${v.label}: ${own.missing}` : null;
    },
  });
  if ('missing' in found) return found;
  /** What stays of all edges with a tool, mm. */
  const leftBy = (t: Tool): number =>
    c.edges.reduce((sum, v) => {
      const own = made(t, v).made;
      return sum + ('missing' in own ? 0 : lengthOf(own.left));
    }, 0);
  const { tool, others } = leastLeft(c, found, leftBy);
  const view = first(c.edges);
  const parameters = new Parameters(c);
  form.ask(parameters);
  askWay(parameters, c, form.mayRoll);
  const own = c.edges.map((v) => ({ v, ...made(tool, v) }));
  const shown = made(tool, view).form;
  if (shown) {
    form.show?.(parameters, tool, shown);
    showEnds(parameters, c, shown);
  }
  const isStraight = own.some(({ made: m }) => 'work' in m && m.work.motion.kind === 'cycle');
  const numbers = cuttingNumbers(c, parameters, tool, tool.stickOut, isStraight ? PLUNGE_SHARE : 1);
  return {
    tool,
    speed: numbers.speed,
    feed: numbers.feed,
    feeds: {
      cut: numbers.feed,
      ramp: RAMP_SHARE * numbers.feed,
      lead: Math.min(c.machine.maxFeed, LEAD_SHARE * numbers.feed),
    },
    work: own.flatMap((o) => ('work' in o.made ? [o.made.work] : [])),
    parameters: parameters.list,
    remarks: [
      ...numbers.remarks,
      ...(shown ? (form.remarks?.(tool, shown) ?? []) : []),
      ...own.flatMap((o) => staysSharp(c, tool, o.v, o.made)),
    ],
    alternatives: [tool, ...others].map((t) => t.id),
  };
}

/** A tool of those that do which leaves clearly less than the first of them, mm. */
const CLEARLY_LESS = 0.5;

/** Of the tools that do, the one that gets nearest to walls and into corners; what somebody chose is not put aside. */
function leastLeft(
  c: KindContext,
  { tool, others }: { tool: Tool; others: Tool[] },
  leftBy: (t: Tool) => number,
): { tool: Tool; others: Tool[] } {
  if (c.chosen === tool.id) return { tool, others };
  const all = [tool, ...others];
  const least = Math.min(...all.map(leftBy));
  const good = all.filter((t) => leftBy(t) <= least + CLEARLY_LESS);
  const taken = good[0] ?? tool;
  return { tool: taken, others: good.filter((t) => t !== taken) };
}

const leftOf = (made: EdgeMade): number => ('missing' in made ? Infinity : lengthOf(made.left));

/** The first of several ways to stand on an edge that reaches all of it, else the one that leaves the least; else why the first has no room. */
function firstThatFits(
  c: KindContext,
  tool: Tool,
  v: EdgeView,
  cuts: readonly FormCut[] | { missing: string },
  ask: EdgeAsk,
): { made: EdgeMade; form: FormCut | null } {
  if ('missing' in cuts) return { made: cuts, form: null };
  let best: { made: EdgeMade; form: FormCut | null } = { made: { missing: 'nothing fits.' }, form: null };
  for (const form of cuts) {
    const made = makeEdge(c, tool, v, form, ask);
    if (leftOf(made) < leftOf(best.made) - LEAST_SAID || best.form === null) best = { made, form };
    if (leftOf(best.made) < LEAST_SAID) break;
  }
  return best;
}

/** A length that is typed, or that a method gives, mm; null where neither says one. */
export function saidLength(c: KindContext, key: string): number | null {
  const said = new Parameters(c).length(key, key, NaN, 'method');
  return Number.isNaN(said) ? null : said;
}

function askWay(parameters: Parameters, c: KindContext, mayRoll: boolean): EdgeAsk {
  const cutting = parameters.choice('cutting', 'cutting', EDGE_CHOICES.cutting, 'climb', 'method');
  const corners = mayRoll
    ? parameters.choice('corners', 'outside corners', EDGE_CHOICES.corners, 'rolled round', 'method')
    : 'sharp';
  return {
    isClimb: cutting === 'climb',
    isRolled: corners === 'rolled round',
    past: [saidLength(c, 'pastStart'), saidLength(c, 'pastEnd')],
  };
}

/** How far open runs go past their ends, where there is room: each end its own. */
function showEnds(parameters: Parameters, c: KindContext, form: FormCut): void {
  if (c.edges.every((v) => v.shape.closed)) return;
  const clear = clearOf(last(form.contacts));
  parameters.length('pastStart', 'past its start', clear, 'method', 'clear of it');
  parameters.length('pastEnd', 'past its end', clear, 'method', 'clear of it');
}

/** What it is of the tool that keeps it from an end. */
const reasonOf = (c: KindContext, tool: Tool, { stop }: Extract<EdgeMade, { work: unknown }>): string =>
  stop && stop.part !== 'cutting'
    ? `: the ${partName(stop.part)} of ${tool.description} (⌀${c.say(stop.diameter)}) would stand in what rises there`
    : '';

/** What of an edge the cutter does not reach is said in numbers. */
function staysSharp(c: KindContext, tool: Tool, v: EdgeView, made: EdgeMade): Remark[] {
  if ('missing' in made) return [];
  const length = lengthOf(made.left);
  if (length < LEAST_SAID) return [];
  return [
    {
      rule: 'edge-left',
      severity: 'warning',
      message: `${v.label}: ${tool.description} does not reach ${c.say(length)} of it, ${made.left.length === 1 ? 'in one place' : `in ${made.left.length} places`} in inside corners or before a wall${reasonOf(c, tool, made)}. Break that by hand, or take a smaller or longer cutter.`,
      onSheet: `break by hand: ${v.label}, ${c.say(length)}`,
    },
  ];
}
