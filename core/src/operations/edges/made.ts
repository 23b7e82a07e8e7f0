import { pathLength } from '../../geometry/path.ts';
import type { Vec3 } from '../../geometry/vec.ts';
import { first, last } from '../../lists.ts';
import { alongEdge } from '../../motion/edges/run.ts';
import { placesAlong, reachAlong, shortStretches, type Stretch } from '../../motion/edges/reach.ts';
import { stretchesOf } from '../../motion/stretches.ts';
import type { Pass, WantedEdge, Work } from '../../motion/work.ts';
import type { Hit } from '../../space/space.ts';
import type { Disc } from '../../tools/profile.ts';
import type { Tool } from '../../tools/schema.ts';
import { hitInWords } from '../choose-tool.ts';
import type { EdgeView } from '../edge-view.ts';
import type { KindContext } from '../kind.ts';
import { BesideEdge, foundEnds } from './beside.ts';
import type { Contact } from './flank.ts';
import { discsOnEdge, meetsPart, type OnEdge } from './room.ts';
import { wayBeside, withEnds } from './way.ts';

/** How far above its edge a cutter is when it begins to come down along it, mm. */
const ABOVE = 0.3;
/** How far a chord of its way may lie inside the arc: less than what counts as touching, mm. */
const SAGITTA = 0.005;
/** An edge of which no more than this would be cut is left alone, mm. */
const LEAST_CUT = 0.5;
/** A place is reached where it is cut to within that of what is wanted, mm. */
const REACHED = 0.008;
/** Rims of no larger radius are cut straight down where the cutter is wide enough: nothing is quicker, mm. */
const MOST_STRAIGHT = 5;
/** A cutter is not led round on less than that: it comes straight down, mm. */
const LEAST_ORBIT = 0.3;
/** A wall that leans less counts as upright, degrees. */
const UPRIGHT = 0.5;
/** How long it stands at the bottom of a rim that is cut straight down, s. */
const DWELL = 0.2;

/** How a cutter's form stands on an edge, for each of the passes: the last leaves the edge as it is wanted. */
export interface FormCut {
  /** From the highest pass down. */
  contacts: readonly Contact[];
  /** Cut into the face above; 0 where the model has the edge's form. mm. */
  inset: number;
  drop: number;
  /** By how much less is cut into it with each mm down. */
  slope: number;
  /** How deep below a round rim its tip goes where the cutter comes straight down on it, mm, or why it cannot; null: it is always led round. */
  straight: ((rim: number) => number | string) | null;
  /** What of the cutter is beside the part while it cuts, where that is not all of it: the head behind an edge is not. */
  discs?: readonly Disc[];
}

/** What is asked of the way along an edge. */
export interface EdgeAsk {
  isClimb: boolean;
  /** Outside corners are gone round, as far as that leaves the same edge. */
  isRolled: boolean;
  /** Past the ends of an open run, mm; null: as far as the cutter needs to be clear of it. */
  past: readonly [number | null, number | null];
}

/** What is cut at one edge, and what of it stays as it is, mm along it; or why it cannot be cut. */
export type EdgeMade =
  | {
      work: Work;
      left: [number, number][];
      /** What made an open run stop before its end. */
      stop: Hit | null;
    }
  | { missing: string };

/** Leads an edge's cutter along it with its whole outline clear of what is to stay. */
export function makeEdge(c: KindContext, tool: Tool, v: EdgeView, form: FormCut, ask: EdgeAsk): EdgeMade {
  const contact = last(form.contacts);
  if (v.rim === null || (v.rim > MOST_STRAIGHT && v.rim - contact.offset >= LEAST_ORBIT))
    return ledAlong(c, tool, v, form, ask);
  const down = straightDown(c, tool, v, form, v.rim);
  return 'missing' in down && v.rim - contact.offset >= LEAST_ORBIT ? ledAlong(c, tool, v, form, ask) : down;
}

/** What of an edge's corner a form cuts, with its tip at a depth. */
const cornerOf = ({ shape }: EdgeView, { inset, drop }: FormCut, deep: number): OnEdge => ({
  top: shape.top,
  tip: shape.top - deep,
  inset,
  // Down the wall there is metal to be cut as far as the chamfer goes, which a leaning wall makes higher.
  slope: inset / Math.max(drop, 1e-9),
  isBehind: shape.isBehind,
});

const wantedOf = ({ shape, feature }: EdgeView, { inset, slope, drop }: FormCut): WantedEdge => ({
  feature: feature.id,
  ...('holeId' in feature && feature.holeId !== undefined ? { hole: feature.holeId } : {}),
  path: [...shape.path],
  closed: shape.closed,
  top: shape.top,
  inset,
  slope,
  drop,
  ...(shape.isBehind ? { behind: true as const } : {}),
  left: [],
});

/** What all that is done at an edge has in common. */
const workBase = (c: KindContext, v: EdgeView) => ({
  feature: v.feature.id,
  label: v.label,
  r: Math.max(c.space.setup.top, v.entryZ, v.metalZ) + c.setup.retract,
  entryZ: v.entryZ,
  metalZ: v.metalZ,
});

/** A round rim, cut with the axis on the hole's own. */
function straightDown(c: KindContext, tool: Tool, v: EdgeView, form: FormCut, rim: number): EdgeMade {
  const arc = first(v.shape.path);
  const deep = form.straight?.(rim) ?? `${tool.description} is too wide to be led round in it.`;
  if (arc.kind !== 'arc' || typeof deep === 'string') return { missing: String(deep) };
  const edge = cornerOf(v, form, deep);
  const at: Vec3 = [arc.centre[0], arc.centre[1], edge.tip];
  const met = meetsPart(c.space, discsOnEdge(c.outline(tool), deep), [at, at], edge);
  if (met) return { missing: hitInWords(c, tool, met) };
  const work: Work = {
    ...workBase(c, v),
    x: at[0],
    y: at[1],
    z: edge.tip,
    motion: { kind: 'cycle', how: { how: 'dwell', seconds: DWELL } },
    edges: [wantedOf(v, form)],
  };
  return { work, left: [], stop: null };
}

/** Along the edge, in as many passes as the form stands on it. */
function ledAlong(c: KindContext, tool: Tool, v: EdgeView, form: FormCut, ask: EdgeAsk): EdgeMade {
  const { shape } = v;
  const contact = last(form.contacts);
  const edge = cornerOf(v, form, contact.deep);
  const whole = discsOnEdge(c.outline(tool), contact.deep);
  const discs = form.discs ?? whole;
  const isRolled = ask.isRolled && form.inset > 0 && shape.lean < UPRIGHT;
  const beside = wayBeside(shape, contact.offset, { isClimb: ask.isClimb, isRolled });
  if (!beside)
    return {
      missing: `its bends are too tight for ${tool.description}, which is \u2300${c.say(2 * contact.radius)} at the edge.`,
    };
  const room = new BesideEdge({ space: c.space, shape, contact, edge, whole, discs, isClimb: ask.isClimb });
  const ends = shape.closed ? null : room.ends(beside, ask.past);
  const stop = ends ? (ends[0].hit ?? ends[1].hit) : null;
  const moved = ends && foundEnds(ends);
  const way = ends ? moved && withEnds(beside, ...moved) : beside;
  if (!way)
    return {
      missing: `it has no room anywhere along it: ${stop ? hitInWords(c, tool, stop) : `${tool.description} is wider than it is long.`}`,
    };
  const hit = room.along(way);
  if (hit) return { missing: hitInWords(c, tool, hit) };
  const [on, off] = [room.lead(way, 'from'), room.lead(way, 'to')];
  if (shape.isBehind && [on, off].some((l) => l.kind === 'along'))
    return {
      missing: `there is no room beside it for the head of ${tool.description} to come down and go up.`,
    };
  const base = workBase(c, v);
  const passes = form.contacts.map((p): Pass =>
    alongEdge({
      way,
      closed: shape.closed,
      z: shape.top - p.deep,
      above: shape.top + ABOVE,
      r: base.r,
      on,
      off,
      fed: { feed: 'cut', cutter: 2 * contact.offset, side: room.side },
    }),
  );
  const { start } = first(passes);
  const work: Work = { ...base, x: start[0], y: start[1], z: edge.tip, motion: { kind: 'path', passes } };
  for (const [a, b] of stretchesOf(work, SAGITTA)) {
    const met = meetsPart(c.space, discs, [a, b], { ...edge, tip: Math.min(a[2], b[2]) });
    if (met) return { missing: hitInWords(c, tool, met) };
  }
  const wanted = wantedOf(v, form);
  const left = leftOver(
    wanted,
    stretchesOf({ ...work, motion: lastPass(passes) }, SAGITTA),
    contact,
    edge.tip,
  );
  if (lengthOf(left) > pathLength([...shape.path]) - LEAST_CUT)
    return {
      missing: `it would not be cut anywhere along it${stop ? `: ${hitInWords(c, tool, stop)}` : '.'}`,
    };
  return { work: { ...work, edges: [{ ...wanted, left }] }, left, stop };
}

/** How much of an edge some stretches are, mm. */
export const lengthOf = (left: readonly (readonly [number, number])[]): number =>
  left.reduce((sum, [from, to]) => sum + to - from, 0);

const lastPass = (passes: readonly Pass[]): Extract<Work['motion'], { kind: 'path' }> => ({
  kind: 'path',
  passes: [last(passes)],
});

/** What of an edge a cutter that goes along stretches does not reach, mm along it. */
function leftOver(
  wanted: WantedEdge,
  way: readonly (readonly [Vec3, Vec3])[],
  contact: Contact,
  tip: number,
): [number, number][] {
  const own = way.map(([a, b]): Stretch => {
    // On its way down the flank is less wide at the edge.
    const radius = (z: number): number => contact.radius - (z - tip) * wanted.slope;
    return { from: [a[0], a[1]], to: [b[0], b[1]], radii: [radius(a[2]), radius(b[2])] };
  });
  const places = placesAlong(wanted.path);
  return shortStretches(places, reachAlong(places, own), wanted.inset - REACHED);
}
