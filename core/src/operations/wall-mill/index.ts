import { cornerRadius } from '../../features/area/rings.ts';
import { without } from '../../geometry/region.ts';
import { at, first } from '../../lists.ts';
import { OUTSIDE } from '../../motion/areas/past-metal.ts';
import { cutTowards } from '../../motion/areas/towards.ts';
import {
  AREA_CHOICES,
  AREA_NUMBERS,
  BREAK_THROUGH,
  sharpCorner,
  wallLevels,
  cutterFor,
} from '../areas/numbers.ts';
import { metalRound, standing } from '../areas/room.ts';
import { planFirst, planPasses, type AreaPasses, type AreaWay } from '../areas/planned.ts';
import type { AreaView } from '../area-view.ts';
import { finishWalls, standsBeside, wallsOf, type Finish } from '../areas/walls.ts';
import type { Tool } from '../../tools/schema.ts';
import type { KeepOutBox } from '../../setup/setup-frame.ts';
import { KEEP_OUT_ROOM } from '../../space/keep-out.ts';
import { chooseAmong, shortOf, type Chosen } from '../choose-tool.ts';
import { Parameters, type KindContext, type OperationKind, type PlanResult, type Remark } from '../kind.ts';

/** Runs round the part's outline: what stands outside it first, then its wall (handbook, N74). */
export const wallMillKind: OperationKind = {
  kind: 'wall-mill',
  cuts: ['areas'],
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
  const corner = cornerRadius(wallsOf(view.shape));
  const ask = (): { parameters: Parameters; deep: number; beyond: number } => {
    const parameters = new Parameters(c);
    const deep = parameters.length('depth', 'floor below top', view.depth, 'model', 'below the top');
    const beyond = parameters.length(
      'breakThrough',
      'break-through',
      BREAK_THROUGH,
      'method',
      'cutter below the wall',
    );
    if (corner !== null) parameters.derived('corner', 'smallest corner', corner, 'in the model', 'model');
    return { parameters, deep, beyond };
  };
  const { deep, beyond } = ask();
  const wholeOf = (v: AreaView): number => v.until ?? v.entryZ - deep - beyond - edgeBelow(c, v);
  const choose = (floorOf: (v: AreaView) => number): Chosen =>
    chooseAmong(c, cutterFor(corner), c.areas, {
      inMetal: (_, v) => v.metalZ - floorOf(v),
      whyNot: (t, v) => shortOf(c, t, v.label, v.metalZ - floorOf(v), v.metalZ - v.entryZ),
    });
  // What no cutter is long enough for is milled half-way, and the rest from the other side.
  const halfOf = (v: AreaView): number => v.entryZ - deep / 2;
  const whole = choose(wholeOf);
  const isHalf = 'missing' in whole && c.areas.every((v) => v.hasOtherSide && v.until === null);
  const [found, floorOf] = isHalf ? [choose(halfOf), halfOf] : [whole, wholeOf];
  if ('missing' in found) return found;
  return planFirst(c, found, (tools) => {
    const { tool } = tools;
    const remarks = corner === 0 ? [sharpCorner(c, view.label, tool)] : [];
    const leaves = new Map<string, number>();
    const cut = (v: AreaView, way: AreaWay): AreaPasses => passes(v, way, tool, leaves);
    const planned = planPasses(c, ask().parameters, tools, cut, { remarks });
    return 'tool' in planned && leaves.size > 0 ? { ...planned, leaves } : planned;
  });

  function passes(v: AreaView, way: AreaWay, tool: Tool, leaves: Map<string, number>): AreaPasses {
    const { shape } = v;
    const walls = standing(shape);
    const metal = metalRound(c);
    const top = Math.max(v.entryZ, v.metalZ);
    const wanted = floorOf(v) - (tool.cornerRadius ?? 0);
    const jaws = jawsOver(c, wanted, top, tool);
    const floor = jaws ? jaws.max[2] + KEEP_OUT_ROOM : wanted;
    const isLeft = jaws !== null || isHalf;
    if (isLeft && v.hasOtherSide && v.until === null) leaves.set(v.label, floor + (tool.cornerRadius ?? 0));
    const { r, stock, isClimb, stepover, perLayer } = way;
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
      perLayer,
    });
    const finish: Finish =
      way.rounds === 0
        ? { passes: [] }
        : finishWalls(shape, {
            diameter: tool.diameter,
            r,
            levels: wallLevels(top, floor, tool),
            rounds: way.rounds,
            isClimb,
            mayStand: standsBeside(walls, tool.diameter / 2),
            past: null,
            approach: way.approach,
          });
    if ('missing' in finish) return finish;
    return {
      passes: [...rough, ...finish.passes],
      floor,
      ...(jaws && !leaves.has(v.label) ? { remarks: [overJaws(c, v, jaws, floor)] } : {}),
    };
  }
}

/** Edges lower than this below an outline's wall are rounded or bevelled: no other area's, mm. */
const EDGE = 6;

/** How much of the part lies below an outline's wall, narrower than that: stock stands beyond it as well. mm. */
function edgeBelow({ space: { setup } }: KindContext, { shape }: AreaView): number {
  const rest = shape.floor - setup.part.min[2];
  return setup.body.standsProud && rest > 0 && rest <= EDGE ? rest : 0;
}

/** What of the holding the cutter would meet on its way round, though it stands lower than the metal: the highest of it. */
function jawsOver(c: KindContext, floor: number, top: number, tool: Tool): KeepOutBox | null {
  const { min, max } = c.space.setup.body.standsProud ? c.space.setup.body.box : c.space.setup.part;
  const reach = tool.diameter + OUTSIDE + KEEP_OUT_ROOM;
  const isNear = (k: KeepOutBox): boolean =>
    [0, 1].every((i) => at(k.min, i) < at(max, i) + reach && at(k.max, i) > at(min, i) - reach);
  const low = c.space.setup.keepOuts.filter(
    (k) => isNear(k) && k.max[2] + KEEP_OUT_ROOM > floor && k.max[2] + KEEP_OUT_ROOM < top,
  );
  return low.reduce<KeepOutBox | null>((a, b) => (a && a.max[2] >= b.max[2] ? a : b), null);
}

/** The rest is made, and what is left is said in lengths (handbook, N7). */
const overJaws = (c: KindContext, v: AreaView, jaws: KeepOutBox, floor: number): Remark => ({
  rule: 'over-the-holding',
  severity: 'warning',
  message: `${v.label} is milled down to Z ${c.say(floor)}, over ${jaws.name}: ${c.say(floor - (v.entryZ - v.depth))} of its height stay below that, all round. Hold it lower, or mill the rest from the other side.`,
});
