import { first } from '../../lists.ts';
import { bottomOf, topOf } from '../../features/groove-shape.ts';
import { pointLength } from '../../cutting/depths.ts';
import type { CycleHow, Work } from '../../motion/work.ts';
import { USUAL_POINT } from '../../tools/kinds/drill.ts';
import type { Tool } from '../../tools/schema.ts';
import { chooseAmong, shortOf } from '../choose-tool.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { peckDepth } from '../drill/peck.ts';
import type { GrooveView } from '../groove-view.ts';
import { Parameters, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';

/** How much narrower than the slot it is, and how far above its floor the tip stays, mm. */
const NARROWER = 0.6;
const ABOVE_FLOOR = 0.3;
/** Below an exit its full diameter goes so far, mm. */
const BREAK_THROUGH = 0.5;
/** Of the slot's width: a narrower hole is of no use to a cutter. */
const LEAST_SHARE = 0.5;
const CHIP_SHARE = 1;

/** Drills a hole at the start of a slot, groove or channel, for a cutter to go down in (handbook, N50). */
export const entryHoleKind: OperationKind = {
  kind: 'entry-hole',
  label: 'entry hole',
  toolKinds: ['drill'],
  rank: 1,
  numbers: {
    narrower: 'narrower than the slot',
    aboveFloor: 'tip above the floor',
    breakThrough: 'break-through',
  },
  plan,
};

/** Where a hole to go in by lies: at the start of the middle line. */
const entryPlace = ({ shape }: GrooveView): readonly [number, number] => {
  const [x, y] = first(first(shape.levels).path ?? shape.path).from;
  return [x, y];
};

function plan(c: KindContext): PlanResult {
  const view = first(c.grooves);
  const { shape } = view;
  if (shape.ends.some((e) => e.open))
    return { none: `${view.label} is open at an end: no hole to go in by is needed.` };
  if (shape.isOneSided || shape.bore !== undefined)
    return { missing: `${view.label} is not cut from above.` };
  const width = 2 * Math.min(...shape.levels.map((l) => Math.min(l.halfTop, l.halfBottom)));
  const parameters = new Parameters(c);
  const narrower = Math.max(0, parameters.length('narrower', 'narrower than the slot', NARROWER, 'method'));
  const isThrough = shape.through;
  const margin = isThrough
    ? -Math.max(0, parameters.length('breakThrough', 'break-through', BREAK_THROUGH, 'method', 'below exit'))
    : Math.max(0, parameters.length('aboveFloor', 'tip above the floor', ABOVE_FLOOR, 'method'));
  const point = (t: Tool): number => pointLength(t.diameter, t.pointAngleDeg ?? USUAL_POINT);
  const tipOf = (t: Tool, v: GrooveView): number => bottomOf(v.shape) + margin - (isThrough ? point(t) : 0);
  const found = chooseAmong(
    c,
    { kind: 'drill', minDiameter: LEAST_SHARE * width, maxDiameter: width - narrower, widest: true },
    c.grooves,
    {
      inMetal: (t, v) => Math.max(v.entryZ, v.metalZ) - tipOf(t, v),
      whyNot: (t, v) =>
        shortOf(c, t, v.label, Math.max(v.entryZ, v.metalZ) - tipOf(t, v), v.metalZ - v.entryZ) ??
        (tipOf(t, v) > topOf(v.shape) - 0.1 ? `${v.label} is too shallow for a hole to go in by.` : null),
    },
  );
  if ('missing' in found) return found;
  const { tool } = found;
  const deep = view.entryZ - tipOf(tool, view);
  parameters.derived(
    'tip',
    'tip below top',
    deep,
    isThrough ? 'full diameter below the exit' : 'above the floor',
  );
  const isLong = deep / tool.diameter > c.material.pecking.chipBreakFrom;
  const travel = deep + (view.metalZ - view.entryZ) + c.setup.retract;
  const how: CycleHow = isLong
    ? {
        how: 'full-retract',
        peck: peckDepth(parameters, { diameter: tool.diameter, travel, share: CHIP_SHARE }),
      }
    : { how: 'straight' };
  const numbers = cuttingNumbers(c, parameters, tool, deep);
  return {
    tool,
    speed: numbers.speed,
    feed: numbers.feed,
    opens: tool.diameter,
    opensAbove: point(tool),
    work: c.grooves.map((v): Work => {
      const [x, y] = entryPlace(v);
      return {
        feature: v.feature.id,
        label: v.label,
        x,
        y,
        r: Math.max(v.entryZ, v.metalZ) + c.setup.retract,
        z: tipOf(tool, v),
        entryZ: v.entryZ,
        metalZ: v.metalZ,
        motion: { kind: 'cycle', how },
      };
    }),
    parameters: parameters.list,
    remarks: numbers.remarks,
    alternatives: [tool, ...found.others].map((t) => t.id),
  };
}
