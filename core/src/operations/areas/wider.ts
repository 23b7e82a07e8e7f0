import { fullWidthCut } from '../../cutting/material.ts';
import { areaOf, isEmpty, piecesOf } from '../../geometry/region.ts';
import { first } from '../../lists.ts';
import { areaRegion } from '../../space/areas.ts';
import type { Tool } from '../../tools/schema.ts';
import type { AreaView } from '../area-view.ts';
import { chooseAmong, shortOf } from '../choose-tool.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { Parameters, type KindContext } from '../kind.ts';
import type { Asked } from './cutter.ts';
import { groundAt, restOf, roomOver } from './ground.ts';
import { FLUTE_SHARE, STEPOVER } from './numbers.ts';
import type { Found } from './planned.ts';

/** A wider cutter is at least so many times as wide as the one that the corners let in. */
const WIDER = 1.6;
/** Of the area, the most that it may leave to the narrow one. */
const MOST_LEFT = 0.12;
/** What it has to save beside the change of tools, seconds. */
const WORTH = 30;

/**
 * A cutter wider than the one that an area's corners let in, where it saves more time than its change takes: its radius stays in the corners
 * for the narrow one. Null where there is none.
 */
export function widerThan(c: KindContext, narrow: Tool, { deep, beyond }: Asked): Found | null {
  const { shape } = first(c.areas);
  // Into a step within a pocket, or over a foot with a radius, the narrow one goes alone.
  if (shape.floorRadius > 0 || !c.areas.every((v) => isSimple(c, v))) return null;
  const deepIn = (v: AreaView): number => v.metalZ - v.entryZ + deep + beyond;
  const flat = { ...c, fits: undefined, tools: c.tools.filter((t) => (t.cornerRadius ?? 0) <= 0.02) };
  const found = chooseAmong(
    flat,
    { kind: 'end-mill', widest: true, minDiameter: WIDER * narrow.diameter },
    c.areas,
    {
      inMetal: (_, v) => deepIn(v),
      whyNot: (t, v) =>
        shortOf(c, t, v.label, deepIn(v), v.metalZ - v.entryZ) ??
        (leavesLittle(c, v, t) && saved(c, v, narrow, t) > WORTH ? null : `${v.label}: not worth it`),
    },
  );
  return 'missing' in found ? null : found;
}

const isSimple = (c: KindContext, v: AreaView): boolean =>
  v.shape.side === 'closed' || !groundAt(c, v.shape, v.shape.floor).enclosed;

/** Its centre may be in one piece of room, and it leaves corners only. */
function leavesLittle(c: KindContext, { shape }: AreaView, tool: Tool): boolean {
  const ground = groundAt(c, shape, shape.floor);
  const room = roomOver(shape, ground, tool.diameter / 2);
  if (isEmpty(room) || piecesOf(room).length > 1) return false;
  return areaOf(restOf(shape, ground, tool.diameter / 2)) <= MOST_LEFT * areaOf(areaRegion(shape));
}

/** Seconds that roughing by the wider one takes less, beside its change. */
function saved(c: KindContext, v: AreaView, narrow: Tool, wide: Tool): number {
  const volume = areaOf(areaRegion(v.shape)) * (v.startZ - v.shape.floor);
  return 60 * (volume / rateOf(c, narrow) - volume / rateOf(c, wide)) - c.machine.toolChangeSeconds;
}

/** What a cutter takes while it clears, mm³/min. */
function rateOf(c: KindContext, tool: Tool): number {
  const { depth, feedShare } = fullWidthCut(c.material, tool);
  const { feed } = cuttingNumbers(c, new Parameters(c), tool, tool.stickOut);
  return STEPOVER * tool.diameter * Math.min(depth, FLUTE_SHARE * tool.fluteLength) * feedShare * feed;
}
