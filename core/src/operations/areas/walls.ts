import { wallRuns, type WallRun } from '../../features/area/rings.ts';
import type { AreaShape } from '../../features/area/shape.ts';
import { extendedPath, parallelPath } from '../../geometry/parallel.ts';
import { reversePath, tangentAt, type Segment, type Vec2 } from '../../geometry/path.ts';
import { grown, isIn, type Region } from '../../geometry/region.ts';
import { first, last } from '../../lists.ts';
import { alongChain, lineTo, type Fed } from '../../motion/grooves/chain.ts';
import { begunOnLongest, overlapOf } from '../../motion/grooves/loops.ts';
import { OVERLAP, quarter, roundWall, type Quarter } from '../../motion/grooves/walls.ts';
import type { PastMetal } from '../../motion/areas/past-metal.ts';
import type { BesideWalls } from '../../motion/areas/towards.ts';
import { approachOf, toldWall } from '../../motion/areas/told-wall.ts';
import type { Pass } from '../../motion/work.ts';

/** Radii of the way onto a wall that are tried, of the cutter's. */
const LEADS = [0.6, 0.3, 0.12];

/** How walls are finished: program coordinates, mm. */
export interface WallCut {
  diameter: number;
  r: number;
  /** Levels, from the highest down to the floor. */
  levels: readonly number[];
  /** Times along each wall: once, and once more for each spring pass. */
  rounds: number;
  isClimb: boolean;
  /** Whether the cutter's centre may be at a place, with nothing left on the walls: beside one that it is cutting, or clear of all. */
  mayStand: Standing;
  /** How far past its end an open wall is followed; null: off it at once, as a closed one. */
  past: PastMetal | null;
  /** The control compensates for the cutter's radius: how long the straight ways are on which it takes it up and gives it up; null: it is computed. */
  approach: number | null;
}

type Standing = (place: Vec2, how: 'beside' | 'clear') => boolean;

/** What a way on or off a wall may be nearer to it, and how far a cutter that comes down stays from other walls, mm. */
const SLACK = 0.01;
const CLEAR = 0.2;

/** Within a room in which a cutter's centre touches the walls. */
export function standsWithin(room: Region): Standing {
  const rooms = { beside: grown(room, SLACK), clear: grown(room, -CLEAR) };
  return (p, how) => isIn(rooms[how], p);
}

/** Outside of what stands there, for a cutter of a radius. */
export function standsBeside(walls: Region, radius: number): Standing {
  const kept = { beside: grown(walls, radius - SLACK), clear: grown(walls, radius + CLEAR) };
  return (p, how) => !isIn(kept[how], p);
}

/** The walls of an area, with the area on their left. */
export const wallsOf = ({ rings }: AreaShape): WallRun[] => rings.flatMap(wallRuns);

/** Moves along walls, or why a cutter cannot be led along one. */
export type Finish = { passes: Pass[] } | { missing: string };

/** Moves along all walls of an area. */
export function finishWalls(shape: AreaShape, cut: WallCut): Finish {
  const ways: BesideWalls[] = [];
  for (const { walls, closed } of wallsOf(shape)) {
    const path = parallelPath(walls, cut.diameter / 2, closed);
    if (!path) return { missing: 'its bends are too tight to lead the cutter along its walls.' };
    ways.push({ path: cut.isClimb ? path : reversePath(path), closed });
  }
  return finishWays(ways, cut);
}

/** Moves along ways beside walls, on every level: with the wall on the right to climb, else on the left. */
export function finishWays(ways: readonly BesideWalls[], cut: WallCut): Finish {
  const passes: Pass[] = [];
  for (const { path, closed } of ways)
    for (const z of cut.levels) {
      const own =
        cut.approach === null ? computed(path, closed, z, cut) : told(path, closed, z, cut, cut.approach);
      if (!own)
        return {
          missing:
            'beside its walls there is no room for the straight ways on which the control takes the radius up. Let the radius be computed.',
        };
      passes.push(...own);
    }
  return { passes };
}

const fedOf = ({ diameter, isClimb }: WallCut): Fed & { side: 'left' | 'right' } => ({
  feed: 'finish',
  cutter: diameter,
  side: isClimb ? 'right' : 'left',
});

const computed = (path: readonly Segment[], closed: boolean, z: number, cut: WallCut): Pass[] =>
  closed ? roundAt(path, z, cut) : alongAt(path, z, cut);

/** The same where the control compensates for the cutter's radius; null where there is no room for it. */
function told(
  path: readonly Segment[],
  closed: boolean,
  z: number,
  cut: WallCut,
  approach: number,
): Pass[] | null {
  const fed = fedOf(cut);
  const loop = closed ? begunOnLongest(path) : [...path];
  const laps = closed ? Array.from({ length: cut.rounds }, () => loop).flat() : loop;
  const way = [...laps, ...(closed ? overlapOf(loop, OVERLAP) : [])];
  const run = !closed && cut.past ? ledPast(way, cut.past) : onAndOff(way, cut, approach);
  const pass = run && toldWall(run, { r: cut.r, z, approach }, fed);
  return pass && Array.from({ length: closed ? 1 : cut.rounds }, () => pass);
}

/** By quarter circles that have straight ways before and after them, too. */
function onAndOff(way: readonly Segment[], cut: WallCut, approach: number): Segment[] | null {
  for (const share of LEADS) {
    const run = withLeads(way, (share * cut.diameter) / 2, cut);
    const { start, end } = approachOf(run, approach);
    if (cut.mayStand(start, 'clear') && cut.mayStand(end, 'clear')) return run;
  }
  return null;
}

/** Round a closed wall, on and off by quarter circles where there is room for them. */
function roundAt(ring: readonly Segment[], z: number, cut: WallCut): Pass[] {
  const loop = begunOnLongest(ring);
  const fed = fedOf(cut);
  const lead = leadOf(cut, [
    [first(loop), 'from'],
    [last(loop), 'to'],
  ]);
  const start = lead > 0 ? quarter(first(loop), 'from', lead, fed.side).outer : first(loop).from;
  const { moves } = roundWall(loop, start, z, lead, cut.rounds, fed);
  return [{ start: [start[0], start[1], cut.r], moves: [lineTo(start, z, 'lead'), ...moves] }];
}

/** The widest quarter circle that has room at the ends of a way; 0: none has. */
const leadOf = (cut: WallCut, ends: readonly (readonly [Segment, 'from' | 'to'])[]): number =>
  LEADS.map((share) => (share * cut.diameter) / 2).find((lead) =>
    ends.every(([s, end]) => hasRoom(quarter(s, end, lead, fedOf(cut).side), lead, cut)),
  ) ?? 0;

function hasRoom({ outer, centre, at: on }: Quarter, lead: number, cut: WallCut): boolean {
  // Half-way round, too: a point of the arc.
  const middle: Vec2 = [(outer[0] + on[0]) / 2 - centre[0], (outer[1] + on[1]) / 2 - centre[1]];
  const l = Math.hypot(...middle) || 1;
  const bow: Vec2 = [centre[0] + (middle[0] * lead) / l, centre[1] + (middle[1] * lead) / l];
  return cut.mayStand(outer, lead > CLEAR ? 'clear' : 'beside') && cut.mayStand(bow, 'beside');
}

/** Along a wall with two ends, from the air before it to the air behind. */
function alongAt(way: readonly Segment[], z: number, cut: WallCut): Pass[] {
  const run = cut.past ? ledPast(way, cut.past) : ledOff(way, cut);
  const start = first(run).from;
  return Array.from({ length: cut.rounds }, () => ({
    start: [start[0], start[1], cut.r],
    moves: [lineTo(start, z, 'lead'), ...alongChain(run, z, z, fedOf(cut))],
  }));
}

function ledPast(way: readonly Segment[], past: PastMetal): Segment[] {
  const [a, b] = [first(way), last(way)];
  const back = tangentAt(a, 'from');
  return extendedPath(way, past(a.from, [-back[0], -back[1]]), past(b.to, tangentAt(b, 'to')));
}

/** On and off by quarter circles in the room that has been cleared. */
function ledOff(way: readonly Segment[], cut: WallCut): Segment[] {
  const lead = leadOf(cut, [
    [first(way), 'from'],
    [last(way), 'to'],
  ]);
  return lead === 0 ? [...way] : withLeads(way, lead, cut);
}

/** A way with quarter circles onto it and off it, on its side away from the wall. */
function withLeads(way: readonly Segment[], lead: number, cut: WallCut): Segment[] {
  const { side } = fedOf(cut);
  const [on, off] = [quarter(first(way), 'from', lead, side), quarter(last(way), 'to', lead, side)];
  const turn = ((side === 'left' ? -1 : 1) * Math.PI) / 2;
  const arc = (from: Vec2, to: Vec2, centre: Vec2): Segment => ({
    kind: 'arc',
    from,
    to,
    centre,
    radius: lead,
    turn,
  });
  return [arc(on.outer, on.at, on.centre), ...way, arc(off.at, off.outer, off.centre)];
}
