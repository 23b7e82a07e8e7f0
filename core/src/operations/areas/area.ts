import { cornerRadius } from '../../features/area/rings.ts';
import type { AreaShape } from '../../features/area/shape.ts';
import { grown, isEmpty, without, type Region } from '../../geometry/region.ts';
import { first, got } from '../../lists.ts';
import { clearClosed } from '../../motion/areas/clear.ts';
import { pastMetal } from '../../motion/areas/past-metal.ts';
import { cutTowards } from '../../motion/areas/towards.ts';
import type { Pass } from '../../motion/work.ts';
import { areaRegion, groundOf, metalAbout, type Ground } from '../../space/areas.ts';
import type { Tool } from '../../tools/schema.ts';
import type { AreaView } from '../area-view.ts';
import { chooseAmong, shortOf, type Chosen } from '../choose-tool.ts';
import { Parameters, type KindContext, type PlanResult, type Remark } from '../kind.ts';
import { ABOVE, BREAK_THROUGH, sharpCorner, USUAL_RAMP, wallLevels, cutterFor } from './numbers.ts';
import { planPasses, type AreaPasses, type AreaWay } from './planned.ts';
import { reachesAll, roomIn } from './room.ts';
import { finishWalls, wallsOf } from './walls.ts';

/** Corners of a cutter and a floor that count as one, mm. */
const SAME_CORNER = 0.02;
/** Levels that are one, and what a section's fitted border may be off, mm. */
const SAME_LEVEL = 0.001;
const SLACK = 0.01;

/** How deep areas of a size go, and the smallest of their corners. */
interface Asked {
  deep: number;
  beyond: number;
  corner: number | null;
}

/** Plans the clearing of pockets and steps, layer by layer, and the finish of their walls. */
export function planArea(c: KindContext): PlanResult {
  const view = first(c.areas);
  const parameters = new Parameters(c);
  const remarks: Remark[] = [];
  const { shape } = view;
  const corner = cornerRadius(wallsOf(shape));
  const deep = shape.through
    ? view.depth
    : parameters.length('depth', 'floor below top', view.depth, 'model', 'below the top');
  const beyond = shape.through
    ? parameters.length('breakThrough', 'break-through', BREAK_THROUGH, 'method', 'cutter below exit')
    : 0;
  if (corner !== null) parameters.derived('corner', 'smallest corner', corner, 'in the model', 'model');
  const asked: Asked = { deep, beyond, corner };
  const found = chooseCutter(c, asked);
  if ('missing' in found) return found;
  if (corner === 0) remarks.push(sharpCorner(c, view.label, found.tool));
  const done: Cleared[] = [];
  return planPasses(c, parameters, found, (v, way) => passesOf(c, v, found.tool, asked, way, done), {
    remarks,
  });
}

function chooseCutter(c: KindContext, { deep, beyond, corner }: Asked): Chosen {
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
  const own = areaRegion(shape);
  if (shape.side === 'closed') return { own, roomFor: (radius) => roomIn(own, radius, 0) };
  const { enclosed, walls, cleared } = groundAt(c, shape, entryZ - deep);
  return {
    own,
    roomFor: (radius) =>
      enclosed ? roomIn(cleared, radius, 0) : without(grown(own, radius), grown(walls, radius)),
  };
}

const groundAt = (c: KindContext, shape: AreaShape, floor: number): Ground =>
  groundOf(c.space, shape, (z) => c.space.sectionAt(z), floor);

/** What is cleared down to a level already. */
interface Cleared {
  region: Region;
  floor: number;
}

function passesOf(
  c: KindContext,
  v: AreaView,
  tool: Tool,
  { deep, beyond }: Asked,
  way: AreaWay,
  done: Cleared[],
): AreaPasses {
  const { shape } = v;
  const radius = tool.diameter / 2;
  const floor = v.entryZ - deep - beyond - (shape.through ? (tool.cornerRadius ?? 0) : 0);
  const { stock, stepover, isClimb, r, rounds, perLayer } = way;
  const common = { diameter: tool.diameter, stepover, r, top: v.startZ, floor, perLayer, isClimb };
  const own = areaRegion(shape);
  const { enclosed, walls, cleared } = groundAt(c, shape, floor);
  const metal = enclosed || v.isOutlineMade ? cleared : metalAbout(c.space, cleared, walls);
  const isDone =
    v.startZ <= floor + SAME_LEVEL ||
    done.some(
      (d) => Math.abs(d.floor - floor) < SAME_LEVEL && isEmpty(grown(without(own, d.region), -2 * SLACK)),
    );
  done.push({ region: cleared, floor });
  const rough: Pass[] = isDone
    ? []
    : enclosed
      ? clearClosed({
          ...common,
          room: roomIn(cleared, radius, stock),
          above: ABOVE,
          ramp: Math.min(tool.rampAngleDeg ?? USUAL_RAMP, 89),
        })
      : cutTowards({ ...common, walls, area: cleared, metal, stock });
  if (rough.length === 0 && !isDone) return { missing: `${tool.description} has no room in it.` };
  // What another has cleared is followed along its walls at least.
  const times = isDone ? Math.max(1, rounds) : rounds;
  const finish =
    times === 0
      ? []
      : finishWalls(shape, {
          diameter: tool.diameter,
          r,
          levels: wallLevels(Math.max(v.entryZ, v.metalZ), floor, tool),
          rounds: times,
          isClimb,
          room: enclosed ? grown(roomIn(cleared, radius, 0), SLACK) : null,
          past: enclosed ? null : pastMetal(metal, radius),
        });
  if (!finish) return { missing: `its bends are too tight to lead ${tool.description} along its walls.` };
  return { passes: [...rough, ...finish], floor };
}
