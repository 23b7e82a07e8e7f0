import type { CycleCall, ReadProgram } from '../code/read/motion.ts';
import type { DerivedSetup } from '../job/derive.ts';
import { toolKind } from '../tools/kinds/registry.ts';
import type { Tool } from '../tools/schema.ts';
import type { MadeHole, SeenHole } from './checks/check.ts';

/** Farthest a hole's position in the text may be from the model's, mm. */
const PLACE_TOLERANCE = 0.02;

/** Pairs each cycle line with the hole of the model at its X and Y; of several on one axis, with the one whose depths and sizes it fits. */
export function madeHoles(
  read: ReadProgram,
  holes: readonly SeenHole[],
  setup: DerivedSetup,
  toolOf: (number: number) => Tool | null,
): MadeHole[] {
  const cells = new Map<string, SeenHole[]>();
  const key = (x: number, y: number) => `${Math.round(x)},${Math.round(y)}`;
  for (const h of holes) {
    const k = key(h.view.x, h.view.y);
    const list = cells.get(k);
    if (list) list.push(h);
    else cells.set(k, [h]);
  }
  const planned = plannedHoles(setup, holes);
  return read.calls.map((call, index) => {
    const tool = toolOf(call.tool);
    const here: SeenHole[] = [];
    for (let i = -1; i <= 1; i++)
      for (let j = -1; j <= 1; j++)
        for (const h of cells.get(key(call.x + i, call.y + j)) ?? [])
          if (Math.hypot(h.view.x - call.x, h.view.y - call.y) <= PLACE_TOLERANCE) here.push(h);
    // One alone is taken as it is; of several the one that the line fits best.
    const ranked =
      here.length < 2
        ? here.map((h) => ({ h }))
        : here
            .map((h) => ({ h, off: misfit(call, tool, h) }))
            .sort(
              (a, b) =>
                a.off - b.off || Math.abs(a.h.view.entryZ - call.r) - Math.abs(b.h.view.entryZ - call.r),
            );
    const best = ranked[0]?.h ?? null;
    return {
      call,
      index,
      tool,
      view: best?.view ?? null,
      row: best?.row ?? null,
      tag: best?.row.tag ?? null,
      planned: (best && planned.get(`${best.view.label}/${call.tool}`)) ?? null,
    };
  });
}

function plannedHoles(
  setup: DerivedSetup,
  holes: readonly SeenHole[],
): Map<string, NonNullable<MadeHole['planned']>> {
  const out = new Map<string, NonNullable<MadeHole['planned']>>();
  for (const operation of setup.operations)
    for (const hole of operation.work) {
      out.set(`${hole.label}/${operation.tool.number}`, { operation, hole });
      // What breaks a hole's rim as an edge is a line at that hole.
      for (const rim of hole.edges ?? [])
        for (const h of holes)
          if (h.view.feature.id === rim.hole)
            out.set(`${h.view.label}/${operation.tool.number}`, { operation, hole });
    }
  return out;
}

/** How far a line's depth is from where this tool would go in this hole, mm; a tool of none of its sizes counts much more. */
function misfit(call: CycleCall, tool: Tool | null, { view, row }: SeenHole): number {
  if (!tool) return Math.abs(view.entryZ - call.r);
  const bottoms = toolKind(tool.kind).bottoms(tool, view);
  const off = Math.min(...bottoms.map((z) => Math.abs(z - call.z)));
  const sizes = [
    ...view.steps.map((s) => (s.shape === 'cylinder' ? s.diameter : s.startDiameter)),
    ...(row.thread ? [row.thread.tapDrill, row.thread.majorDiameter] : []),
  ];
  const isOwnSize = toolKind(tool.kind).isCone || sizes.some((d) => Math.abs(d - tool.diameter) < 0.06);
  return off + (isOwnSize ? 0 : 100);
}
