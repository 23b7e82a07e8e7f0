import { first } from '../../lists.ts';
import { bottomOf, topOf } from '../../features/groove-shape.ts';
import { pointLength } from '../../cutting/depths.ts';
import type { Vec2 } from '../../geometry/path.ts';
import { USUAL_POINT } from '../../tools/kinds/drill.ts';
import { entryPlace } from '../areas/ground.ts';
import type { GrooveView } from '../groove-view.ts';
import { Parameters, type KindContext, type OperationKind, type PlanResult } from '../kind.ts';
import { DRILLED_NUMBERS, planDrilled, type Cavity } from './drilled.ts';

/** How much narrower than the slot or pocket it is, mm. */
const NARROWER = 0.6;
/** Of the slot's width: a narrower hole is of no use to a cutter. Of a pocket mm. */
const LEAST_SHARE = 0.5;
const LEAST = 6;

/** Drills a hole in a slot, groove, channel or pocket, for a cutter to go down in (handbook, N50). */
export const entryHoleKind: OperationKind = {
  kind: 'entry-hole',
  cuts: ['grooves', 'areas'],
  label: 'entry hole',
  toolKinds: ['drill'],
  rank: 1,
  numbers: { narrower: 'narrower than the slot', ...DRILLED_NUMBERS },
  plan: (c) => (c.areas.length > 0 ? inPockets(c) : inSlots(c)),
};

function inSlots(c: KindContext): PlanResult {
  const view = first(c.grooves);
  const { shape } = view;
  if (shape.ends.some((e) => e.open))
    return { none: `${view.label} is open at an end: no hole to go in by is needed.` };
  if (shape.isOneSided || shape.bore !== undefined)
    return { missing: `${view.label} is not cut from above.` };
  const width = 2 * Math.min(...shape.levels.map((l) => Math.min(l.halfTop, l.halfBottom)));
  const cavities = c.grooves.map((v): Cavity => ({
    view: v,
    label: v.label,
    places: [startOf(v)],
    top: topOf(v.shape),
    floor: bottomOf(v.shape),
  }));
  return drilled(c, cavities, { through: shape.through, width, least: LEAST_SHARE * width });
}

/** Where they are deepest from all their walls. */
function inPockets(c: KindContext): PlanResult {
  const view = first(c.areas);
  const entries = c.areas.map((v) => ({ view: v, entry: entryPlace(c, v) }));
  const cavities: Cavity[] = [];
  let width = Infinity;
  for (const { view: v, entry } of entries) {
    if (!entry) return { none: `${v.label} is open to a side: no hole to go in by is needed.` };
    const { top, floor } = v.shape;
    cavities.push({ view: v, label: v.label, places: [entry.at], top, floor });
    width = Math.min(width, 2 * entry.away);
  }
  return drilled(c, cavities, { through: view.shape.through, width, least: LEAST });
}

function drilled(
  c: KindContext,
  cavities: readonly Cavity[],
  { through, width, least }: { through: boolean; width: number; least: number },
): PlanResult {
  const parameters = new Parameters(c);
  const narrower = Math.max(0, parameters.length('narrower', 'narrower than the slot', NARROWER, 'method'));
  const planned = planDrilled(c, parameters, cavities, { through, least, most: width - narrower });
  if (!('tool' in planned)) return planned;
  const { tool } = planned;
  return {
    ...planned,
    opens: tool.diameter,
    opensAbove: pointLength(tool.diameter, tool.pointAngleDeg ?? USUAL_POINT),
  };
}

/** Where a hole to go in by lies in a slot: at the start of its middle line. */
const startOf = ({ shape }: GrooveView): Vec2 => {
  const [x, y] = first(first(shape.levels).path ?? shape.path).from;
  return [x, y];
};
