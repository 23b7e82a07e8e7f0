import { cornerRadius } from '../../features/area/rings.ts';
import { without } from '../../geometry/region.ts';
import { first } from '../../lists.ts';
import { cutTowards } from '../../motion/areas/towards.ts';
import {
  AREA_CHOICES,
  AREA_NUMBERS,
  ABOVE,
  BREAK_THROUGH,
  FLUTE_SHARE,
  sharpCorner,
  wallLevels,
  cutterFor,
} from '../areas/numbers.ts';
import { metalRound, standing } from '../areas/room.ts';
import { planPasses, type AreaPasses, type AreaWay } from '../areas/planned.ts';
import type { AreaView } from '../area-view.ts';
import { finishWalls, wallsOf } from '../areas/walls.ts';
import { chooseAmong, shortOf } from '../choose-tool.ts';
import { Parameters, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';

/** Runs round the part's outline: what stands outside it first, then its wall (handbook, N74). */
export const wallMillKind: OperationKind = {
  kind: 'wall-mill',
  label: 'outline',
  toolKinds: ['end-mill'],
  rank: -3,
  makesAreas: ['outside'],
  numbers: AREA_NUMBERS,
  choices: AREA_CHOICES,
  plan: planOutline,
};

function planOutline(c: KindContext): PlanResult {
  const view = first(c.areas);
  const parameters = new Parameters(c);
  const corner = cornerRadius(wallsOf(view.shape));
  const deep = parameters.length('depth', 'floor below top', view.depth, 'model', 'below the top');
  const beyond = parameters.length(
    'breakThrough',
    'break-through',
    BREAK_THROUGH,
    'method',
    'cutter below the wall',
  );
  if (corner !== null) parameters.derived('corner', 'smallest corner', corner, 'in the model', 'model');
  const above = view.metalZ - view.entryZ;
  const found = chooseAmong(c, cutterFor(corner), c.areas, {
    inMetal: (_, v) => v.metalZ - v.entryZ + deep + beyond,
    whyNot: (t, v) => shortOf(c, t, v.label, above + deep + beyond, above),
  });
  if ('missing' in found) return found;
  const { tool } = found;
  const remarks = corner === 0 ? [sharpCorner(c, view.label, tool)] : [];
  return planPasses(c, parameters, found, passes, { remarks });

  function passes(v: AreaView, way: AreaWay): AreaPasses {
    const { shape } = v;
    const walls = standing(shape);
    const metal = metalRound(c);
    const top = Math.max(v.entryZ, v.metalZ);
    const floor = v.entryZ - deep - beyond - (tool.cornerRadius ?? 0);
    const { r, stock, isClimb, stepover } = way;
    const rough = cutTowards({
      walls,
      metal,
      area: without(metal, walls),
      diameter: tool.diameter,
      stepover,
      stock,
      isClimb,
      r,
      top,
      floor,
      perLayer: Math.min(way.perLayer, FLUTE_SHARE * tool.fluteLength),
      above: ABOVE,
    });
    const finish =
      way.rounds === 0
        ? []
        : finishWalls(shape, {
            diameter: tool.diameter,
            r,
            levels: wallLevels(top, floor, tool),
            rounds: way.rounds,
            isClimb,
            room: null,
            pastEnd: () => 0,
          });
    if (!finish) return { missing: `its bends are too tight to lead ${tool.description} round it.` };
    return { passes: [...rough, ...finish], floor };
  }
}
