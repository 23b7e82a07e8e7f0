import { partName } from '../../../../space/space.ts';
import type { Tool } from '../../../../tools/schema.ts';
import { chordsOf } from '../../../chords.ts';
import { toolName, type MadeHole } from '../../check.ts';
import type { Known, WayState } from './state.ts';

/** Any part of the tool through vise, clamp or screw. */
export function holding(s: WayState, m: Known, tool: Tool, hole: MadeHole | null): void {
  // The planner keeps room; only the box itself is a collision.
  if (s.c.space.setup.keepOuts.length === 0) return;
  for (const chord of chordsOf(m)) {
    const hit = s.c.space.holdingAlong(s.c.discs(tool), chord.from, chord.to, 0);
    if (!hit) continue;
    return s.say(
      m,
      'holding',
      hole,
      `the ${partName(hit.part)} of ${toolName(tool)} goes through ${hit.name} at Z ${s.c.say(Math.min(m.from[2], m.to[2]))}; its top is at ${s.c.say(hit.height)}. Move the holding, or leave the hole out.`,
    );
  }
}
