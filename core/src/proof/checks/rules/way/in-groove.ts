import { bottomOf, topOf } from '../../../../features/groove-shape.ts';
import { discsAbove } from '../../../../operations/grooves/fit.ts';
import { aboveFoot } from '../../../../operations/grooves/reach.ts';
import type { Tool } from '../../../../tools/schema.ts';
import { chordsOf } from '../../../chords.ts';
import type { SeenGroove } from '../../../grooves/finder.ts';
import { goesUnder, undercutting } from '../../../grooves/undercut.ts';
import { DEPTH_TOLERANCE, toolName } from '../../check.ts';
import { BESIDE_WALL, type Known, type WayState } from './state.ts';

/** A groove counts as made where its cutter came this near to its floor, mm. */
const FLOOR_REACHED = 0.3;

/** A mill that is fed in a slot, groove or channel: its walls are touched, and what is wider than its mouth is judged by its shape. */
export function inGroove(s: WayState, m: Known, tool: Tool, { view, row }: SeenGroove): void {
  const { shape, label, feature } = view;
  const { space, say } = s.c;
  const lowest = Math.min(m.from[2], m.to[2]);
  if (lowest < bottomOf(shape) + FLOOR_REACHED) s.made.add(feature.id);
  const named = (rule: string, what: string): void =>
    s.say(m, rule, null, `${label}: ${toolName(tool)} ${what}`, 'error', {
      tag: row.tag,
      feature: feature.id,
    });
  if (!shape.through && lowest < bottomOf(shape) - DEPTH_TOLERANCE)
    return named(
      'milled-too-deep',
      `cuts down to Z ${say(lowest)}; its floor is at Z ${say(bottomOf(shape))}. ${s.c.word('Z', bottomOf(shape))} at the lowest.`,
    );
  const isBelow = goesUnder(shape, tool, m);
  const wrong = isBelow ? undercutting(shape, m, tool, s.c.outline(tool), say) : null;
  if (wrong) return named(wrong.rule, wrong.what);
  for (const chord of chordsOf(m)) {
    const tip = Math.min(chord.from[2], chord.to[2]);
    const discs = isBelow
      ? discsAbove(s.c.outline(tool), topOf(shape) - tip)
      : aboveFoot(s.c.discs(tool), shape.floorRadius);
    const hit = space.partAlong(discs, chord.from, chord.to, -BESIDE_WALL);
    if (hit) return s.inPart(m, tool, null, hit);
  }
}
