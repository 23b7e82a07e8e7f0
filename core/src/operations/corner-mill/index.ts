import { cornerRadius } from '../../features/area/rings.ts';
import { grown, isEmpty, within, without, type Region } from '../../geometry/region.ts';
import { first } from '../../lists.ts';
import { clearCorners } from '../../motion/areas/corners.ts';
import { waysTowards } from '../../motion/areas/towards.ts';
import { askDeep, chooseCutter } from '../areas/cutter.ts';
import { groundAt, restOf } from '../areas/ground.ts';
import { AREA_CHOICES, AREA_NUMBERS, sharpCorner, wallLevels } from '../areas/numbers.ts';
import { planFirst, planPasses, type AreaPasses, type AreaWay } from '../areas/planned.ts';
import { finishWays, standsBeside, wallsOf } from '../areas/walls.ts';
import type { AreaView } from '../area-view.ts';
import { Parameters, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';
import type { Tool } from '../../tools/schema.ts';

/** Beyond what is left, mm: there the wide cutter's own stock stands. */
const BEYOND = 0.3;
/** Cutters as wide as each other, mm. */
const SLACK = 0.01;

/** Clears, with a narrow cutter, only what a wide one before it has left in corners and narrow places (handbook, Pockets). */
export const cornerMillKind: OperationKind = {
  kind: 'corner-mill',
  cuts: ['areas'],
  label: 'corners',
  toolKinds: ['end-mill'],
  rank: -0.9,
  leavesFlat: true,
  numbers: AREA_NUMBERS,
  choices: AREA_CHOICES,
  plan: planCorners,
};

function planCorners(c: KindContext): PlanResult {
  const view = first(c.areas);
  const corner = cornerRadius(wallsOf(view.shape));
  const wide = c.opened / 2;
  const isClean = (v: AreaView): boolean =>
    isEmpty(restOf(v.shape, groundAt(c, v.shape, v.shape.floor), wide));
  if (corner === null || wide <= 0 || c.areas.every(isClean)) return { none: null };
  const ask = (): { parameters: Parameters; deep: number; beyond: number } => {
    const parameters = new Parameters(c);
    return { parameters, ...askDeep(view, parameters) };
  };
  const { deep, beyond } = ask();
  const found = chooseCutter(c, { deep, beyond, corner });
  if ('missing' in found) return found;
  // What is as wide as the one before makes nothing that is left: a sharp corner stays as that left it.
  if (found.tool.diameter >= c.opened - SLACK) return { none: null };
  return planFirst(c, found, (tools) => {
    const { parameters } = ask();
    const remarks = corner === 0 ? [sharpCorner(c, view.label, tools.tool)] : [];
    parameters.derived('before', 'opened before', c.opened, 'its radius stands in the corners');
    return planPasses(c, parameters, tools, (v, way) => passesOf(v, tools.tool, way), { remarks });
  });

  function passesOf(v: AreaView, tool: Tool, way: AreaWay): AreaPasses {
    // Never lower than the wide one went: it comes down where that has cleared the ground.
    const wanted = v.entryZ - deep - beyond - (v.shape.through ? (tool.cornerRadius ?? 0) : 0);
    const floor = Math.max(wanted, c.openedTo(v.label) ?? wanted);
    const ground = groundAt(c, v.shape, floor);
    const { walls, cleared, enclosed } = ground;
    const left = restOf(v.shape, ground, wide);
    // A wall all round is what stands beyond it.
    const about = enclosed ? without(grown(cleared, 3 * tool.diameter), cleared) : walls;
    const rest: Region = within(grown(left, way.stock + BEYOND), cleared);
    const { stepover, isClimb, r, perLayer, stock } = way;
    const cut = { walls: about, diameter: tool.diameter, stepover, isClimb, stock };
    const rough = clearCorners({ ...cut, rest, r, top: v.startZ, floor, perLayer });
    if (rough.length === 0) return { missing: `${tool.description} has no room in its corners.` };
    const beside = waysTowards({ ...cut, stock: 0, area: rest, metal: rest }).at(-1) ?? [];
    const finish = finishWays(beside, {
      diameter: tool.diameter,
      r,
      levels: wallLevels(Math.max(v.entryZ, v.metalZ), floor, tool),
      rounds: way.rounds,
      isClimb,
      mayStand: standsBeside(about, tool.diameter / 2),
      past: null,
      approach: way.approach,
    });
    return 'missing' in finish ? finish : { passes: [...rough, ...finish.passes], floor };
  }
}
