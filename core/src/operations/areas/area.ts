import { cornerRadius } from '../../features/area/rings.ts';
import { bordersOf, grown, isEmpty, without, type Region } from '../../geometry/region.ts';
import { reversePath, type Vec2 } from '../../geometry/path.ts';
import { first, got } from '../../lists.ts';
import { clearClosed } from '../../motion/areas/clear.ts';
import { clearInFronts } from '../../motion/areas/fronts.ts';
import { pastMetal } from '../../motion/areas/past-metal.ts';
import { cutTowards, waysTowards } from '../../motion/areas/towards.ts';
import { fallAt } from '../../motion/grooves/ramp.ts';
import { areaRegion, metalAbout } from '../../space/areas.ts';
import type { Tool } from '../../tools/schema.ts';
import type { AreaView } from '../area-view.ts';
import { chooseAmong, shortOf, type Chosen } from '../choose-tool.ts';
import { Parameters, type KindContext, type PlanResult, type Remark } from '../kind.ts';
import { entryPlace, groundAt, roomOver } from './ground.ts';
import {
  ABOVE,
  BREAK_THROUGH,
  CORNERS,
  cutterFor,
  ENTRIES,
  ROUGHING,
  sharpCorner,
  USUAL_RAMP,
  wallLevels,
} from './numbers.ts';
import { planFirst, planPasses, type AreaPasses, type AreaWay, type Found } from './planned.ts';
import { reachesAll, roomIn } from './room.ts';
import { finishWalls, finishWays, standsBeside, standsWithin, wallsOf, type WallCut } from './walls.ts';
import { widerThan } from './wider.ts';

/** Corners of a cutter and a floor that count as one, mm. */
const SAME_CORNER = 0.02;
/** Levels that are one, and what a section's fitted border may be off, mm. */
const SAME_LEVEL = 0.001;
const SLACK = 0.01;
/** More turns than this down a way are no way down. */
const MOST_TURNS = 80;
/** From one way to the next, of what a cutter cuts level: else ridges stay between them. */
const MOST_STEP = 0.95;

/** How deep areas of a size go, and the smallest of their corners. */
export interface Asked {
  deep: number;
  beyond: number;
  corner: number | null;
}

interface AreaAsked extends Asked {
  isHelix: boolean;
  isNarrow: boolean;
}

/** How a closed area is gone into; by the hole that is drilled before there is nothing to choose. */
function askEntry(c: KindContext, parameters: Parameters): (typeof ENTRIES)[number] {
  if (c.opened === 0) return parameters.choice('entry', 'goes down', ENTRIES, first(ENTRIES), 'method');
  parameters.shown('entry', 'goes down', `in the hole of ⌀${c.say(c.opened)}`);
  return first(ENTRIES);
}

/** The hole in which a cutter goes straight down: it cuts nothing there. */
function holeFor(c: KindContext, v: AreaView, tool: Tool): { at: Vec2; to: number } | null {
  const to = c.opened >= tool.diameter - SLACK ? c.openedTo(v.label) : null;
  const entry = to === null ? null : entryPlace(c, v);
  return entry && to !== null ? { at: entry.at, to } : null;
}

/** Asks how deep areas of a size are cut. mm. */
export function askDeep(view: AreaView, parameters: Parameters): Pick<Asked, 'deep' | 'beyond'> {
  if (view.shape.through)
    return {
      deep: view.depth,
      beyond: parameters.length(
        'breakThrough',
        'break-through',
        BREAK_THROUGH,
        'method',
        'cutter below exit',
      ),
    };
  const deep = parameters.length('depth', 'floor below top', view.depth, 'model', 'below the top');
  return { deep, beyond: 0 };
}

/** Plans the clearing of pockets and steps, layer by layer, and the finish of their walls. */
export function planArea(c: KindContext): PlanResult {
  const view = first(c.areas);
  const corner = cornerRadius(wallsOf(view.shape));
  const isClosed = view.shape.side === 'closed';
  const ask = (): { parameters: Parameters; asked: AreaAsked; isAll: boolean } => {
    const parameters = new Parameters(c);
    const deep = askDeep(view, parameters);
    const isNarrow =
      isClosed &&
      parameters.choice('rough', 'roughing', ROUGHING, first(ROUGHING), 'method') !== first(ROUGHING);
    const isHelix = isNarrow || (isClosed && askEntry(c, parameters) === 'helix');
    const asked = { ...deep, corner, isHelix, isNarrow };
    if (corner === null) return { parameters, asked, isAll: true };
    parameters.derived('corner', 'smallest corner', corner, 'in the model', 'model');
    const by = parameters.choice('corners', 'corners', CORNERS, first(CORNERS), 'method');
    return { parameters, asked, isAll: by !== first(CORNERS) };
  };
  const { asked, isAll } = ask();
  const found = chooseCutter(c, asked);
  if ('missing' in found) return found;
  const wider = isAll ? null : widerThan(c, found.tool, asked);
  const withTools = (tools: Found, isWide: boolean): PlanResult => {
    const remarks: Remark[] = corner === 0 && !isWide ? [sharpCorner(c, view.label, tools.tool)] : [];
    const done: Cleared[] = [];
    const made = planPasses(
      c,
      ask().parameters,
      tools,
      (v, way) => passesOf(c, v, tools.tool, asked, way, done),
      { remarks, isNarrow: asked.isNarrow },
    );
    // All of it stands open down to where this went, whatever hole there was before.
    return 'tool' in made ? { ...made, opens: Math.max(tools.tool.diameter, c.opened) } : made;
  };
  if (wider) {
    const made = planFirst(c, wider, (tools) => withTools(tools, true));
    if ('tool' in made) return made;
  }
  return planFirst(c, found, (tools) => withTools(tools, false));
}

/** The cutter that makes areas whole: by their smallest corner, and the radius at the foot of their walls. */
export function chooseCutter(c: KindContext, { deep, beyond, corner }: Asked): Chosen {
  const { shape } = first(c.areas);
  const foot = shape.floorRadius;
  const isCornered = (t: Tool): boolean =>
    foot > 0
      ? Math.abs((t.cornerRadius ?? 0) - foot) <= SAME_CORNER
      : shape.through || (t.cornerRadius ?? 0) <= SAME_CORNER;
  const mills = { ...c, tools: c.tools.filter((t) => t.kind !== 'end-mill' || isCornered(t)) };
  const rooms = new Map(c.areas.map((v) => [v.label, roomsOf(c, v, deep)]));
  const deepIn = (v: AreaView): number => v.metalZ - v.entryZ + deep + beyond;
  return chooseAmong(mills, cutterFor(corner), c.areas, {
    inMetal: (_, v) => deepIn(v),
    whyNot: (t, v) => {
      const short = shortOf(c, t, v.label, deepIn(v), v.metalZ - v.entryZ);
      if (short) return short;
      const radius = t.diameter / 2;
      const { own, roomFor } = got(rooms, v.label);
      return reachesAll(own, roomFor(radius), radius, corner === 0)
        ? null
        : `${v.label}: ${t.description} does not get everywhere in it: it is too narrow somewhere. Add a narrower one.`;
    },
  });
}

/** An area, and where a cutter's centre may be over it when its walls are touched. */
function roomsOf(
  c: KindContext,
  { shape, entryZ }: AreaView,
  deep: number,
): { own: Region; roomFor(radius: number): Region } {
  const ground = groundAt(c, shape, entryZ - deep);
  return { own: areaRegion(shape), roomFor: (radius) => roomOver(shape, ground, radius) };
}

/** What is cleared down to a level already. */
interface Cleared {
  region: Region;
  floor: number;
}

function passesOf(
  c: KindContext,
  v: AreaView,
  tool: Tool,
  { deep, beyond, corner, isHelix, isNarrow }: AreaAsked,
  way: AreaWay,
  done: Cleared[],
): AreaPasses {
  const { shape } = v;
  const radius = tool.diameter / 2;
  const floor = v.entryZ - deep - beyond - (shape.through ? (tool.cornerRadius ?? 0) : 0);
  const { stock, stepover, isClimb, r, rounds, perLayer } = way;
  const flat = tool.diameter - 2 * (tool.cornerRadius ?? 0);
  const common = {
    diameter: tool.diameter,
    flat,
    stepover: Math.min(stepover, MOST_STEP * flat),
    r,
    top: v.startZ,
    floor,
    perLayer,
    isClimb,
  };
  const own = areaRegion(shape);
  const { enclosed, walls, cleared } = groundAt(c, shape, floor);
  const metal = enclosed || v.isOutlineMade ? cleared : metalAbout(c.space, cleared, walls);
  const isDone =
    v.startZ <= floor + SAME_LEVEL ||
    done.some(
      (d) => Math.abs(d.floor - floor) < SAME_LEVEL && isEmpty(grown(without(own, d.region), -2 * SLACK)),
    );
  done.push({ region: cleared, floor });
  const ramp = Math.min(tool.rampAngleDeg ?? USUAL_RAMP, 89);
  const hole = enclosed ? holeFor(c, v, tool) : null;
  const shortest = Math.PI * tool.diameter;
  if (enclosed && !isDone && !hole && (v.startZ - floor) / fallAt(ramp, shortest) > MOST_TURNS)
    return {
      missing: `${tool.description} goes into metal at ${ramp}° at most: too little to go down in it. Drill a hole to go in by first.`,
    };
  const towards = { ...common, walls, area: cleared, metal };
  const closed = { ...common, room: roomIn(cleared, radius, stock), above: ABOVE, ramp, isHelix, hole };
  const rough = isDone
    ? []
    : enclosed
      ? isNarrow
        ? clearInFronts(closed)
        : clearClosed(closed)
      : cutTowards({ ...towards, stock });
  if (!rough)
    return {
      missing: `${tool.description} has no room to go down on a circle in it. Clear it in layers, or take a narrower cutter.`,
    };
  if (rough.length === 0 && !isDone) return { missing: `${tool.description} has no room in it.` };
  const cut: WallCut = {
    diameter: tool.diameter,
    r,
    levels: wallLevels(Math.max(v.entryZ, v.metalZ), floor, tool),
    // What another has cleared is followed along its walls at least.
    rounds: isDone ? Math.max(1, rounds) : rounds,
    isClimb,
    mayStand: enclosed ? standsWithin(roomIn(cleared, radius, 0)) : standsBeside(walls, radius),
    past: enclosed ? null : pastMetal(metal, radius),
    approach: way.approach,
  };
  if (cut.rounds === 0) return { passes: rough, floor };
  // A cutter wider than its corners is led along what it can of the walls: the corners are another's.
  const isWide = corner !== null && corner > 0 && radius > corner + SAME_CORNER;
  const finish = !isWide
    ? finishWalls(shape, cut)
    : enclosed
      ? finishWays(
          bordersOf(roomIn(cleared, radius, 0)).map((path) => ({
            path: isClimb ? path : reversePath(path),
            closed: true,
          })),
          cut,
        )
      : finishWays(waysTowards({ ...towards, stock: 0 }).at(-1) ?? [], { ...cut, past: null });
  return 'missing' in finish ? finish : { passes: [...rough, ...finish.passes], floor };
}
