import { boxOf, grown, isIn, piecesOf, type Region } from '../../geometry/region.ts';
import { length2, pathMiddle, type Vec2 } from '../../geometry/path.ts';
import { at, first, last } from '../../lists.ts';
import { alongChain, lineFrom, lineTo, type Fed } from '../grooves/chain.ts';
import { levelsDown } from '../grooves/ramp.ts';
import type { Move, Pass } from '../work.ts';
import { waysTowards, type BesideWalls, type OpenCut } from './towards.ts';

/** What a way between two others may lie nearer to a wall than they do, mm. */
const SLACK = 0.02;

/** How corners are cleared: program coordinates, mm. */
export type CornerCut = Omit<OpenCut, 'area' | 'metal'> & {
  /** What a wider cutter has left, and no more. */
  rest: Region;
};

/**
 * Clears what a wider cutter has left, corner after corner, each layer by layer toward its walls. Between its ways in one corner the cutter
 * stays down: there it is on ground that the wide one has cleared.
 */
export function clearCorners(cut: CornerCut): Pass[] {
  const kept = grown(cut.walls, cut.diameter / 2 + cut.stock - SLACK);
  const isFree = (a: Vec2, b: Vec2): boolean =>
    [0.1, 0.3, 0.5, 0.7, 0.9].every((t) => !isIn(kept, [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])]));
  const fed: Fed = { feed: 'cut', cutter: cut.diameter, side: cut.isClimb ? 'right' : 'left' };
  const out: Pass[] = [];
  for (const ways of cornersOf(cut)) {
    let [moves, place, level]: [Move[] | null, Vec2, number] = [null, [0, 0], cut.r];
    for (const z of levelsDown(cut.top, cut.floor, cut.perLayer))
      for (const { path } of ways) {
        const from = first(path).from;
        if (!moves || !isFree(place, from)) {
          moves = [lineTo(from, z, 'lead')];
          out.push({ start: [from[0], from[1], cut.r], moves });
        } else {
          // Over to where the next begins, then down: both are air.
          moves.push(...lineFrom(place, from, level, 'lead'));
          if (z !== level) moves.push(lineTo(from, z, 'lead'));
        }
        moves.push(...alongChain(path, z, z, fed));
        [place, level] = [last(path).to, z];
      }
  }
  return out;
}

/** The ways over each corner, from the farthest from its walls to the one beside them. */
function cornersOf({ rest, ...cut }: CornerCut): BesideWalls[][] {
  const corners = piecesOf(rest).map((piece) => ({ box: boxOf(piece), ways: [] as BesideWalls[] }));
  if (corners.length === 0) return [];
  for (const distance of waysTowards({ ...cut, area: rest, metal: rest }))
    for (const way of distance) {
      const p = pathMiddle(way.path);
      const away = corners.map(({ box }) => (box ? beside(box, p) : Infinity));
      at(corners, away.indexOf(Math.min(...away))).ways.push(way);
    }
  return corners.map(({ ways }) => ways).filter((w) => w.length > 0);
}

/** How far a place is from a box, mm. */
const beside = ([x0, y0, x1, y1]: readonly [number, number, number, number], [x, y]: Vec2): number =>
  length2(Math.max(x0 - x, 0, x - x1), Math.max(y0 - y, 0, y - y1));
