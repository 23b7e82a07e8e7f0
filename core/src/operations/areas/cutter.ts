import type { Region } from '../../geometry/region.ts';
import { first, got } from '../../lists.ts';
import { areaRegion } from '../../space/areas.ts';
import type { Tool } from '../../tools/schema.ts';
import type { AreaView } from '../area-view.ts';
import { chooseAmong, shortOf, type Chosen } from '../choose-tool.ts';
import type { KindContext, Parameters } from '../kind.ts';
import { groundAt, roomOver } from './ground.ts';
import { BREAK_THROUGH, cutterFor, SAME_CORNER } from './numbers.ts';
import { reachesAll } from './room.ts';

/** Of its diameter, what a cutter has of flat end at the least to clear a level floor. */
const LEAST_FLAT = 0.15;

/** How deep areas of a size go, and the smallest of their corners. */
export interface Asked {
  deep: number;
  beyond: number;
  corner: number | null;
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
      if (t.diameter - 2 * (t.cornerRadius ?? 0) < LEAST_FLAT * t.diameter)
        return `${v.label}: ${t.description} is all but a ball, which leaves ridges on a level floor. Add one of the same corner that is wider.`;
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
