import { bordersOf, grown, isEmpty, without, type Region } from '../../geometry/region.ts';
import { reversePath, type Vec2 } from '../../geometry/path.ts';
import { clearClosed } from '../../motion/areas/clear.ts';
import { clearInFronts } from '../../motion/areas/fronts.ts';
import { pastMetal } from '../../motion/areas/past-metal.ts';
import { cutTowards, waysTowards, type OpenCut } from '../../motion/areas/towards.ts';
import { fallAt } from '../../motion/grooves/ramp.ts';
import type { Pass } from '../../motion/work.ts';
import { areaRegion, metalAbout, type Ground } from '../../space/areas.ts';
import type { Tool } from '../../tools/schema.ts';
import type { AreaView } from '../area-view.ts';
import type { KindContext } from '../kind.ts';
import type { Asked } from './cutter.ts';
import { entryPlace, groundAt } from './ground.ts';
import { ABOVE, SAME_CORNER, USUAL_RAMP, wallLevels } from './numbers.ts';
import type { AreaPasses, AreaWay } from './planned.ts';
import { roomIn } from './room.ts';
import { finishWalls, finishWays, standsBeside, standsWithin, type Finish, type WallCut } from './walls.ts';

/** Levels that are one, and what a section's fitted border may be off, mm. */
const SAME_LEVEL = 0.001;
const SLACK = 0.01;
/** More turns than this down a way are no way down. */
const MOST_TURNS = 80;
/** From one way to the next, of what a cutter cuts level: else ridges stay between them. */
const MOST_STEP = 0.95;

/** How areas of a size are cleared, as far as it is one for all of them. */
export interface AreaAsked extends Asked {
  isHelix: boolean;
  isNarrow: boolean;
}

/** What is cleared down to a level already. */
export interface Cleared {
  region: Region;
  floor: number;
}

/** One area as it is cleared: how it lies in the part, and all that its ways have in common. */
interface Clearing {
  c: KindContext;
  v: AreaView;
  tool: Tool;
  asked: AreaAsked;
  way: AreaWay;
  ground: Ground;
  towards: OpenCut;
}

/** Clears an area and finishes its walls; what is cleared by it is added to `done`. */
export function clearArea(
  c: KindContext,
  v: AreaView,
  tool: Tool,
  asked: AreaAsked,
  way: AreaWay,
  done: Cleared[],
): AreaPasses {
  const { shape } = v;
  const floor = v.entryZ - asked.deep - asked.beyond - (shape.through ? (tool.cornerRadius ?? 0) : 0);
  const ground = groundAt(c, shape, floor);
  const { enclosed, walls, cleared } = ground;
  const metal = enclosed || v.isOutlineMade ? cleared : metalAbout(c.space, cleared, walls);
  const flat = tool.diameter - 2 * (tool.cornerRadius ?? 0);
  const { stock, isClimb, r, perLayer } = way;
  const stepover = Math.min(way.stepover, MOST_STEP * flat);
  const cut = { diameter: tool.diameter, flat, stepover, stock, r, top: v.startZ, floor, perLayer, isClimb };
  const clearing: Clearing = {
    c,
    v,
    tool,
    asked,
    way,
    ground,
    towards: { ...cut, walls, area: cleared, metal },
  };
  const isDone = v.startZ <= floor + SAME_LEVEL || done.some((d) => isCleared(v, floor, d));
  done.push({ region: cleared, floor });
  const rough = isDone ? { passes: [] } : roughOf(clearing);
  if ('missing' in rough) return rough;
  // What another has cleared is followed along its walls at least.
  const rounds = isDone ? Math.max(1, way.rounds) : way.rounds;
  const finish = rounds === 0 ? { passes: [] } : finishOf(clearing, rounds);
  return 'missing' in finish ? finish : { passes: [...rough.passes, ...finish.passes], floor };
}

const isCleared = ({ shape }: AreaView, floor: number, done: Cleared): boolean =>
  Math.abs(done.floor - floor) < SAME_LEVEL &&
  isEmpty(grown(without(areaRegion(shape), done.region), -2 * SLACK));

/** Its ways, layer by layer; at least one, or why there is none. */
function roughOf(clearing: Clearing): { passes: Pass[] } | { missing: string } {
  const { tool, ground, towards } = clearing;
  const passes = ground.enclosed ? enclosedOf(clearing) : cutTowards(towards);
  if ('missing' in passes) return passes;
  return passes.length > 0 ? { passes } : { missing: `${tool.description} has no room in it.` };
}

function enclosedOf({ c, v, tool, asked, ground, towards }: Clearing): Pass[] | { missing: string } {
  const ramp = Math.min(tool.rampAngleDeg ?? USUAL_RAMP, 89);
  const hole = holeFor(c, v, tool);
  if (!hole && (v.startZ - towards.floor) / fallAt(ramp, Math.PI * tool.diameter) > MOST_TURNS)
    return {
      missing: `${tool.description} goes into metal at ${ramp}° at most: too little to go down in it. Drill a hole to go in by first.`,
    };
  const room = roomIn(ground.cleared, tool.diameter / 2, towards.stock);
  const cut = { ...towards, room, above: ABOVE, ramp, isHelix: asked.isHelix, hole };
  if (!asked.isNarrow) return clearClosed(cut);
  return (
    clearInFronts(cut) ?? {
      missing: `${tool.description} has no room to go down on a circle in it. Clear it in layers, or take a narrower cutter.`,
    }
  );
}

/** Along its walls; a cutter wider than its corners is led along what it can of them: the corners are another's. */
function finishOf({ v, tool, asked, way, ground, towards }: Clearing, rounds: number): Finish {
  const radius = tool.diameter / 2;
  const { enclosed, cleared, walls } = ground;
  const cut: WallCut = {
    diameter: tool.diameter,
    r: way.r,
    levels: wallLevels(Math.max(v.entryZ, v.metalZ), towards.floor, tool),
    rounds,
    isClimb: way.isClimb,
    mayStand: enclosed ? standsWithin(roomIn(cleared, radius, 0)) : standsBeside(walls, radius),
    past: enclosed ? null : pastMetal(towards.metal, radius),
    approach: way.approach,
  };
  const { corner } = asked;
  if (corner === null || corner === 0 || radius <= corner + SAME_CORNER) return finishWalls(v.shape, cut);
  if (!enclosed)
    return finishWays(waysTowards({ ...towards, stock: 0 }).at(-1) ?? [], { ...cut, past: null });
  const borders = bordersOf(roomIn(cleared, radius, 0));
  return finishWays(
    borders.map((path) => ({ path: way.isClimb ? path : reversePath(path), closed: true })),
    cut,
  );
}

/** The hole in which a cutter goes straight down: it cuts nothing there. */
function holeFor(c: KindContext, v: AreaView, tool: Tool): { at: Vec2; to: number } | null {
  const to = c.opened >= tool.diameter - SLACK ? c.openedTo(v.label) : null;
  const entry = to === null ? null : entryPlace(c, v);
  return entry && to !== null ? { at: entry.at, to } : null;
}
