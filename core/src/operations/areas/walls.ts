import { wallRuns, type WallRun } from '../../features/area/rings.ts';
import type { AreaShape } from '../../features/area/shape.ts';
import { extendedPath, parallelPath } from '../../geometry/parallel.ts';
import { reversePath, tangentAt, type Segment, type Vec2 } from '../../geometry/path.ts';
import { first, last } from '../../lists.ts';
import { alongChain, lineTo, type Fed } from '../../motion/grooves/chain.ts';
import { begunOnLongest } from '../../motion/grooves/loops.ts';
import { quarter, roundWall, type Quarter } from '../../motion/grooves/walls.ts';
import type { PastMetal } from '../../motion/areas/past-metal.ts';
import type { BesideWalls } from '../../motion/areas/towards.ts';
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
  /** Whether the cutter's centre may be at a place, with nothing left on the walls. */
  mayStand(place: Vec2): boolean;
  /** How far past its end an open wall is followed; null: off it at once, as a closed one. */
  past: PastMetal | null;
}

/** The walls of an area, with the area on their left. */
export const wallsOf = ({ rings }: AreaShape): WallRun[] => rings.flatMap(wallRuns);

/** Moves along all walls of an area; null where a cutter cannot be led along one: its bends are too tight. */
export function finishWalls(shape: AreaShape, cut: WallCut): Pass[] | null {
  const ways: BesideWalls[] = [];
  for (const { walls, closed } of wallsOf(shape)) {
    const path = parallelPath(walls, cut.diameter / 2, closed);
    if (!path) return null;
    ways.push({ path: cut.isClimb ? path : reversePath(path), closed });
  }
  return finishWays(ways, cut);
}

/** Moves along ways beside walls, on every level: with the wall on the right to climb, else on the left. */
export const finishWays = (ways: readonly BesideWalls[], cut: WallCut): Pass[] =>
  ways.flatMap(({ path, closed }) =>
    cut.levels.flatMap((z) => (closed ? roundAt(path, z, cut) : alongAt(path, z, cut))),
  );

const fedOf = ({ diameter, isClimb }: WallCut): Fed & { side: 'left' | 'right' } => ({
  feed: 'finish',
  cutter: diameter,
  side: isClimb ? 'right' : 'left',
});

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
  return cut.mayStand(outer) && cut.mayStand(bow);
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
  const { side } = fedOf(cut);
  const lead = leadOf(cut, [
    [first(way), 'from'],
    [last(way), 'to'],
  ]);
  if (lead === 0) return [...way];
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
