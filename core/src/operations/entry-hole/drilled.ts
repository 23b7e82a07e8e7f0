import { first } from '../../lists.ts';
import { pointLength } from '../../cutting/depths.ts';
import type { Vec2 } from '../../geometry/path.ts';
import type { CycleHow, Work } from '../../motion/work.ts';
import { USUAL_POINT } from '../../tools/kinds/drill.ts';
import type { Tool } from '../../tools/schema.ts';
import type { AreaView } from '../area-view.ts';
import { chooseAmong, shortOf } from '../choose-tool.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import { peckDepth } from '../drill/peck.ts';
import type { GrooveView } from '../groove-view.ts';
import type { KindContext, Parameters, PlanResult } from '../kind.ts';

/** How far above a floor the tip stays, and below an exit the full diameter goes, mm. */
const ABOVE_FLOOR = 0.3;
const BREAK_THROUGH = 0.5;
const CHIP_SHARE = 1;

/** What of the numbers any such hole asks for. */
export const DRILLED_NUMBERS = { aboveFloor: 'tip above the floor', breakThrough: 'break-through' } as const;

/** A cavity in which holes are drilled before it is milled: where, and between which levels. mm. */
export interface Cavity {
  view: GrooveView | AreaView;
  label: string;
  places: readonly Vec2[];
  top: number;
  floor: number;
}

/** Holes in metal that is milled away afterwards: above the floor, or through with the exit. `least` and `most`: their diameter, mm. */
export function planDrilled(
  c: KindContext,
  parameters: Parameters,
  cavities: readonly Cavity[],
  { through, least, most }: { through: boolean; least: number; most: number },
): PlanResult {
  const margin = through
    ? -Math.max(0, parameters.length('breakThrough', 'break-through', BREAK_THROUGH, 'method', 'below exit'))
    : Math.max(0, parameters.length('aboveFloor', 'tip above the floor', ABOVE_FLOOR, 'method'));
  const point = (t: Tool): number => pointLength(t.diameter, t.pointAngleDeg ?? USUAL_POINT);
  const tipOf = (t: Tool, { floor }: Cavity): number => floor + margin - (through ? point(t) : 0);
  const startOf = ({ view }: Cavity): number => Math.max(view.entryZ, view.metalZ);
  const found = chooseAmong(
    c,
    { kind: 'drill', minDiameter: least, maxDiameter: most, widest: true },
    cavities,
    {
      inMetal: (t, v) => startOf(v) - tipOf(t, v),
      whyNot: (t, v) =>
        shortOf(c, t, v.label, startOf(v) - tipOf(t, v), v.view.metalZ - v.view.entryZ) ??
        (tipOf(t, v) > v.top - 0.1 ? `${v.label} is too shallow for a hole before it is milled.` : null),
    },
  );
  if ('missing' in found) return found;
  const { tool } = found;
  const one = first(cavities);
  const deep = one.view.entryZ - tipOf(tool, one);
  parameters.derived(
    'tip',
    'tip below top',
    deep,
    through ? 'full diameter below the exit' : 'above the floor',
  );
  const isLong = deep / tool.diameter > c.material.pecking.chipBreakFrom;
  const travel = deep + (one.view.metalZ - one.view.entryZ) + c.setup.retract;
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
    work: cavities.flatMap((v) =>
      v.places.map(([x, y]): Work => ({
        feature: v.view.feature.id,
        label: v.label,
        x,
        y,
        r: startOf(v) + c.setup.retract,
        z: tipOf(tool, v),
        entryZ: v.view.entryZ,
        metalZ: v.view.metalZ,
        motion: { kind: 'cycle', how },
      })),
    ),
    parameters: parameters.list,
    remarks: numbers.remarks,
    alternatives: [tool, ...found.others].map((t) => t.id),
  };
}
