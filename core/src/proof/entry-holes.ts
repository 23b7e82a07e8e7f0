import type { CycleCall } from '../code/read/motion.ts';
import { bottomOf, offMiddle, topOf } from '../features/groove-shape.ts';
import type { AreaShape } from '../features/area/shape.ts';
import { besidePath } from '../geometry/parallel.ts';
import { isIn } from '../geometry/region.ts';
import type { Vec2 } from '../geometry/path.ts';
import type { Row } from '../job/row.ts';
import { areaRegion } from '../space/areas.ts';
import { toolKind } from '../tools/kinds/registry.ts';
import type { Tool } from '../tools/schema.ts';
import type { AreaFinder } from './areas/finder.ts';
import type { GrooveFinder } from './grooves/finder.ts';

/** A hole drilled in a slot, groove or pocket, for a cutter to go down in or so that less is left in a corner. */
export interface EntryHole {
  label: string;
  feature: string;
  row: Row;
  through: boolean;
  /** Level of the floor in which it lies, mm. */
  floor: number;
  tool: Tool;
  call: CycleCall;
  /** How far the hole reaches beyond the wall, mm; less than none inside it. */
  by: number;
}

/** How far a hole may seem to lie beyond a wall and still be one in that cavity, mm. */
const BESIDE = 0.5;

/** Of the cycle lines that make no hole of the model, those that drill within the walls of a groove or a pocket, by their lines. */
export function entryHoles(
  calls: readonly CycleCall[],
  { grooves, areas }: { grooves: GrooveFinder; areas: AreaFinder },
  toolOf: (number: number) => Tool | null,
): Map<number, EntryHole> {
  const out = new Map<number, EntryHole>();
  for (const call of calls) {
    const tool = toolOf(call.tool);
    if (!tool || !toolKind(tool.kind).drills) continue;
    const found = inGroove(call, tool, grooves) ?? inArea(call, tool, areas);
    if (found) out.set(call.line, found);
  }
  return out;
}

function inGroove(call: CycleCall, tool: Tool, finder: GrooveFinder): EntryHole | null {
  const groove = finder.over(call.x, call.y);
  if (!groove) return null;
  const { view, row } = groove;
  const half = Math.min(...view.shape.levels.map((l) => Math.min(l.halfTop, l.halfBottom)));
  const by = offMiddle(view.shape, [call.x, call.y]) + tool.diameter / 2 - half;
  if (by > BESIDE || call.z >= topOf(view.shape)) return null;
  const { through } = view.shape;
  return {
    label: view.label,
    feature: view.feature.id,
    row,
    through,
    floor: bottomOf(view.shape),
    tool,
    call,
    by,
  };
}

/** In the lowest of the closed areas over a place. */
function inArea(call: CycleCall, tool: Tool, finder: AreaFinder): EntryHole | null {
  const place: Vec2 = [call.x, call.y];
  let best: EntryHole | null = null;
  for (const { view, row } of finder.areas) {
    const { shape } = view;
    if (shape.side !== 'closed' || call.z >= shape.top || !isIn(areaRegion(shape), place)) continue;
    if (best && best.floor <= shape.floor) continue;
    const by = tool.diameter / 2 - fromWalls(shape, place);
    if (by > BESIDE) continue;
    const { through, floor } = shape;
    best = { label: view.label, feature: view.feature.id, row, through, floor, tool, call, by };
  }
  return best;
}

/** How far a place in an area is from its nearest wall, mm. */
const fromWalls = ({ rings }: AreaShape, place: Vec2): number =>
  Math.min(...rings.flatMap((r) => r.map((e) => Math.abs(besidePath([e.segment], place).off))));
