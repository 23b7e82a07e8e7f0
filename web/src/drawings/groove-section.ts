import { halfAt, type GrooveShape } from '@yellow-pin/core/features/groove-shape';
import { orbitOf } from '@yellow-pin/core/motion/work';
import { offMiddle } from '@yellow-pin/core/features/groove-shape';
import type { PlannedOperation } from '@yellow-pin/core/job/derive';
import type { GrooveView } from '@yellow-pin/core/operations/groove-view';

/** The cut-open outline of a groove on one side: distance from its middle by depth below its top, mm, from the top down. */
export function grooveSide({ levels }: GrooveShape, top: number): [number, number][] {
  return levels.flatMap((l): [number, number][] => [
    [halfAt(l, l.top), top - l.top],
    [halfAt(l, l.bottom), top - l.bottom],
  ]);
}

/** How far the cutter of an operation goes from a groove's middle, mm: into the wall on the right; negative in the air before one. */
export function cutterOff(view: GrooveView, operation: PlannedOperation): number {
  const made = operation.work.find((w) => w.label === view.label) ?? operation.work[0];
  if (made?.motion.kind !== 'path') return 0;
  if (view.shape.bore !== undefined) return orbitOf(made);
  let far = -Infinity;
  for (const { moves } of made.motion.passes)
    for (const m of moves) {
      // Where it only comes and goes it may be farther out.
      if (m.kind === 'dwell' || m.feed === 'lead') continue;
      far = Math.max(far, offMiddle(view.shape, [m.to[0], m.to[1]]));
    }
  return Number.isFinite(far) ? far : 0;
}
