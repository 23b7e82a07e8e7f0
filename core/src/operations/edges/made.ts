import { distance2, segmentLength, tangentAt, type Segment, type Vec2 } from '../../geometry/path.ts';
import { leftOf, move2 } from '../../geometry/parallel.ts';
import type { Vec3 } from '../../geometry/vec.ts';
import { first, last } from '../../lists.ts';
import { alongEdge, leadPlace, type Lead } from '../../motion/edges/run.ts';
import { placesAlong, reachOver, shortStretches, type Stretch } from '../../motion/edges/reach.ts';
import { stretchesOf } from '../../motion/stretches.ts';
import type { Pass, WantedEdge, Work } from '../../motion/work.ts';
import type { Hit } from '../../space/space.ts';
import type { Disc } from '../../tools/profile.ts';
import type { Tool } from '../../tools/schema.ts';
import { hitInWords } from '../choose-tool.ts';
import type { EdgeView } from '../edge-view.ts';
import type { KindContext } from '../kind.ts';
import { stretches } from '../grooves/reach.ts';
import { endOf, type Meets } from './ends.ts';
import type { Contact } from './flank.ts';
import { discsOnEdge, meetsPart, type OnEdge } from './room.ts';
import { hasInsideCorners, wayBeside, withEnds } from './way.ts';

/** Radii of the quarter circle onto an edge that are tried, of the cutter's at the edge; and no less than that, mm. */
const LEADS = [1, 0.5, 0.25];
const LEAST_LEAD = 0.25;
/** How far above its edge a cutter is when it begins to come down along it, mm. */
const ABOVE = 0.3;
/** How far a chord of its way may lie inside the arc: less than what counts as touching, mm. */
const SAGITTA = 0.005;
/** An edge of which no more than this would be cut is left alone, mm. */
const LEAST_CUT = 0.5;
/** Room round a cutter where it comes straight down beside an edge, mm. */
const CLEAR = 0.1;
/** Past the end of an open run, beyond where the cutter leaves it, mm. */
const PAST = 0.5;
/** Where it is looked whether the part goes on beyond an open run's end, mm. */
const AHEAD = 0.3;
/** A place is reached where it is cut to within that of what is wanted, mm. */
export const REACHED = 0.008;
/** Rims of no larger radius are cut straight down where the cutter is wide enough: nothing is quicker, mm. */
const MOST_STRAIGHT = 5;
/** The wide part of a hole's rim is not led round on less than that: the cutter comes straight down, mm. */
const LEAST_ORBIT = 0.3;

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
      lead: Lead['kind'];
      /** What made an open run stop before its end. */
      stop: Hit | null;
    }
  | { missing: string };

/** Leads an edge's cutter along it with its whole outline clear of what is to stay. */
export function makeEdge(c: KindContext, tool: Tool, v: EdgeView, form: FormCut, ask: EdgeAsk): EdgeMade {
  const contact = last(form.contacts);
  const { shape } = v;
  const tip = shape.top - contact.deep;
  const own: OnEdge = {
    top: shape.top,
    tip,
    inset: form.inset,
    // Down the wall there is metal to be cut as far as the chamfer goes, which a leaning wall makes higher.
    slope: form.inset / Math.max(form.drop, 1e-9),
    isBehind: shape.isBehind,
  };
  const whole = discsOnEdge(c.outline(tool), contact.deep);
  const discs = form.discs ?? whole;
  const r = Math.max(c.space.setup.top, v.entryZ, v.metalZ) + c.setup.retract;
  const wanted: WantedEdge = {
    path: [...shape.path],
    closed: shape.closed,
    top: shape.top,
    inset: form.inset,
    slope: form.slope,
    drop: form.drop,
    left: [],
    ...(shape.isBehind ? { behind: true as const } : {}),
    feature: v.feature.id,
    ...('holeId' in v.feature && v.feature.holeId !== undefined ? { hole: v.feature.holeId } : {}),
  };
  const base = {
    feature: v.feature.id,
    label: v.label,
    r,
    z: tip,
    entryZ: v.entryZ,
    metalZ: v.metalZ,
  };
  if (v.rim !== null && (v.rim <= MOST_STRAIGHT || v.rim - contact.offset < LEAST_ORBIT)) {
    const down = straightDown(v.rim);
    if (!('missing' in down) || v.rim - contact.offset < LEAST_ORBIT) return down;
  }
  const isRolled = ask.isRolled && form.inset > 0 && shape.lean < 0.5;
  const beside = wayBeside(shape, contact.offset, { isClimb: ask.isClimb, isRolled });
  if (!beside)
    return {
      missing: `its bends are too tight for ${tool.description}, which is ⌀${c.say(2 * contact.radius)} at the edge.`,
    };
  const side = ask.isClimb ? 'right' : 'left';
  // The air is on the left of the way to climb, else on its right.
  const outOf = ([x, y]: Vec2): Vec2 => (ask.isClimb ? [-y, x] : [y, -x]);
  const meets: Meets = (a, b, along) => meetsPart(c.space, discs, [a, b], own, outOf(along));
  const hasCorners = hasInsideCorners(shape);
  const onWay = (way: readonly Segment[]): Hit | null => {
    for (const [a, b] of stretches(way)) {
      const l = distance2(a, b);
      if (l < 1e-9) continue;
      const out = hasCorners ? null : outOf([(b[0] - a[0]) / l, (b[1] - a[1]) / l]);
      const hit = meetsPart(
        c.space,
        discs,
        [
          [...a, tip],
          [...b, tip],
        ],
        own,
        out,
      );
      if (hit) return hit;
    }
    return null;
  };
  let stop: Hit | null = null;
  const way = shape.closed ? beside : endsOf(beside);
  if ('missing' in way) return way;
  const hit = onWay(way);
  if (hit) return { missing: hitInWords(c, tool, hit) };
  const leads = shape.closed ? [leadAt(way, 'from'), leadAt(way, 'to')] : [openLead('from'), openLead('to')];
  const [on, off] = [first(leads), last(leads)];
  if (shape.isBehind && [on, off].some((l) => l.kind === 'along'))
    return {
      missing: `there is no room beside it for the head of ${tool.description} to come down and go up.`,
    };
  const passes = form.contacts.map((p): Pass =>
    alongEdge({
      way,
      closed: shape.closed,
      z: shape.top - p.deep,
      above: Math.max(shape.top, shape.top - p.deep) + ABOVE,
      r,
      on,
      off,
      fed: { feed: 'cut', cutter: 2 * contact.offset, side },
    }),
  );
  const start = first(passes).start;
  const work: Work = { ...base, x: start[0], y: start[1], motion: { kind: 'path', passes } };
  for (const [a, b] of stretchesOf(work, SAGITTA)) {
    const met = meetsPart(c.space, discs, [a, b], { ...own, tip: Math.min(a[2], b[2]) });
    if (met) return { missing: hitInWords(c, tool, met) };
  }
  const left = leftOver(wanted, stretchesOf({ ...work, motion: lastPass(passes) }, SAGITTA), contact, tip);
  const length = shape.path.reduce((sum, s) => sum + segmentLength(s), 0);
  const stays = left.reduce((sum, [from, to]) => sum + to - from, 0);
  if (stays > length - LEAST_CUT)
    return {
      missing: `it would not be cut anywhere along it${stop ? `: ${hitInWords(c, tool, stop)}` : '.'}`,
    };
  return { work: { ...work, edges: [{ ...wanted, left }] }, left, lead: on.kind, stop };

  function straightDown(rim: number): EdgeMade {
    const arc = first(shape.path);
    const deep = form.straight?.(rim) ?? `${tool.description} is too wide to be led round in it.`;
    if (arc.kind !== 'arc' || typeof deep === 'string') return { missing: String(deep) };
    const z = shape.top - deep;
    const at: Vec3 = [arc.centre[0], arc.centre[1], z];
    const met = meetsPart(c.space, discs, [at, at], { ...own, tip: z });
    if (met) return { missing: hitInWords(c, tool, met) };
    return {
      work: {
        ...base,
        z,
        x: at[0],
        y: at[1],
        motion: { kind: 'cycle', how: { how: 'dwell', seconds: 0.2 } },
        edges: [wanted],
      },
      left: [],
      lead: 'past',
      stop: null,
    };
  }

  /** Whether the face above goes on beyond an end of the edge: then nothing of it is to be cut there. */
  function goesOn(end: 'start' | 'end'): boolean {
    if (form.inset === 0 || !c.space.heights) return false;
    // The way may run against the edge.
    const isFirst = (end === 'start') !== ask.isClimb;
    const s = isFirst ? first(shape.path) : last(shape.path);
    const t = tangentAt(s, isFirst ? 'from' : 'to');
    const ahead = move2(isFirst ? s.from : s.to, t, isFirst ? -AHEAD : AHEAD);
    const p = move2(ahead, leftOf(t), 0.5 * form.inset);
    return c.space.heights.column(p[0], p[1], 0.01) > shape.top - 0.05;
  }

  function endsOf(beside: Segment[]): Segment[] | { missing: string } {
    const clear = Math.sqrt(Math.max(0, contact.radius ** 2 - contact.offset ** 2)) + PAST;
    const ends = (['start', 'end'] as const).map((end, i) => {
      const past = ask.past[i] ?? clear;
      if (past < 0) return { by: past, hit: null };
      const continues = goesOn(end);
      const found = endOf(beside, end, tip, past, meets, continues);
      return found.by !== null && continues ? { ...found, by: Math.min(found.by, PAST - clear) } : found;
    });
    const [start, end] = [first(ends), last(ends)];
    const moved = start.by === null || end.by === null ? null : withEnds(beside, start.by, end.by);
    const hit = start.hit ?? end.hit;
    stop = hit;
    return (
      moved ?? {
        missing: `it has no room anywhere along it: ${hit ? hitInWords(c, tool, hit) : `${tool.description} is wider than it is long.`}`,
      }
    );
  }

  function leadAt(path: readonly Segment[], end: 'from' | 'to'): Lead {
    for (const share of LEADS) {
      const radius = share * contact.radius;
      if (radius < LEAST_LEAD) break;
      const lead: Lead = { kind: 'arc', radius };
      const p = leadPlace(path, end, lead, side);
      const s = end === 'from' ? first(path) : last(path);
      const at: Vec3 = [p[0], p[1], tip];
      const on: Vec3 = [s[end][0], s[end][1], tip];
      // Clear of the edge as well: it comes straight down there.
      const isFree = !c.space.partAlong(whole, at, at, CLEAR) && !meetsPart(c.space, discs, [at, on], own);
      if (isFree && !c.space.holdingAlong(discs, at, on)) return lead;
    }
    return { kind: 'along' };
  }

  function openLead(end: 'from' | 'to'): Lead {
    if ('missing' in way) return { kind: 'along' };
    const p = leadPlace(way, end, { kind: 'past' }, side);
    const at: Vec3 = [p[0], p[1], tip];
    return !c.space.partAlong(whole, at, at, 0) ? { kind: 'past' } : leadAt(way, end);
  }
}

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
  const reach = places.map((p) => own.reduce((most, s) => Math.max(most, reachOver(s, p)), -Infinity));
  return shortStretches(places, reach, wanted.inset - REACHED);
}
