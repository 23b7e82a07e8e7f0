import { grown, isEmpty, NOWHERE, without, type Region } from '../../geometry/region.ts';
import { first } from '../../lists.ts';
import { clearClosed } from '../../motion/areas/clear.ts';
import { zigzag } from '../../motion/areas/zigzag.ts';
import { ABOVE, USUAL_RAMP } from '../areas/numbers.ts';
import { planFirst, planPasses } from '../areas/planned.ts';
import { metalRound } from '../areas/room.ts';
import { areaRegion, standingAbove } from '../../space/areas.ts';
import type { Tool } from '../../tools/schema.ts';
import type { AreaView } from '../area-view.ts';
import { chooseAmong, shortOf } from '../choose-tool.ts';
import { Parameters, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';

/** From one way to the next, of the cutter; and down a layer, mm. */
const OVERLAP = 0.3;
const MOST_DOWN = 3;
/** The highest plane of a part lies no lower, mm. */
const HIGHEST = 0.01;
/** From what stands higher, mm. */
const BESIDE_WALLS = 0.3;
const WAYS = ['both ways', 'one way'] as const;

/** Mills what stands upon a level, from edge to edge (handbook, N4). */
export const faceMillKind: OperationKind = {
  kind: 'face-mill',
  cuts: ['areas'],
  label: 'face',
  toolKinds: ['end-mill'],
  rank: -4,
  makesAreas: ['top'],
  numbers: { perPass: 'down a layer', overlap: 'ways overlap by, of the cutter' },
  choices: { ways: WAYS },
  plan: planFace,
};

function planFace(c: KindContext): PlanResult {
  const view = first(c.areas);
  const { part, body } = c.space.setup;
  // What stands higher beside it is kept clear of; upon the highest of all there is nothing but stock.
  const isHighest = view.entryZ >= part.max[2] - HIGHEST;
  const walls = isHighest ? NOWHERE : standingAbove((z) => c.space.sectionAt(z), view.entryZ);
  /** What the highest of all is milled over. */
  const levelOf = (v: AreaView): Region => (body.standsProud ? metalRound(c) : areaRegion(v.shape));
  const roomOf = (t: Tool, v: AreaView): Region =>
    without(grown(areaRegion(v.shape), t.diameter / 4), grown(walls, t.diameter / 2 + BESIDE_WALLS));
  const found = chooseAmong(c, { kind: 'end-mill', widest: true }, c.areas, {
    inMetal: (_, v) => v.metalZ - v.entryZ,
    whyNot: (t, v) => {
      if ((t.cornerRadius ?? 0) > 0.02) return `${v.label}: ${t.description} has round corners.`;
      const short = shortOf(c, t, v.label, v.metalZ - v.entryZ, v.metalZ - v.entryZ);
      if (short || isHighest) return short;
      return isEmpty(without(areaRegion(v.shape), grown(roomOf(t, v), t.diameter / 2 + 0.01)))
        ? null
        : `${v.label}: what stands beside it is too near for ${t.description}. Add a narrower one.`;
    },
  });
  if ('missing' in found) return found;
  return planFirst(c, found, (tools) => {
    const { tool } = tools;
    const parameters = new Parameters(c);
    const asked = parameters.number('overlap', 'ways overlap by, of the cutter', OVERLAP, 'method');
    const overlap = Math.min(0.95, Math.max(0, asked));
    const isOneWay =
      isHighest && parameters.choice('ways', 'ways', WAYS, 'both ways', 'method') === 'one way';
    return planPasses(
      c,
      parameters,
      tools,
      (v, { r, perLayer }) => {
        const floor = v.entryZ;
        const cut = {
          r,
          top: isHighest ? v.metalZ : v.startZ,
          floor,
          perLayer,
          diameter: tool.diameter,
          stepover: (1 - overlap) * tool.diameter,
        };
        const passes = isHighest
          ? zigzag({ ...cut, metal: levelOf(v), isOneWay })
          : clearClosed({
              ...cut,
              room: roomOf(tool, v),
              above: ABOVE,
              isClimb: true,
              ramp: Math.min(tool.rampAngleDeg ?? USUAL_RAMP, 89),
            });
        return { passes, floor };
      },
      { hasWalls: false, mostDown: MOST_DOWN },
    );
  });
}
