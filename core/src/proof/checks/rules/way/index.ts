import type { Motion } from '../../../../code/read/motion.ts';
import { toolKind } from '../../../../tools/kinds/registry.ts';
import type { Tool } from '../../../../tools/schema.ts';
import { chordsOf, isKnown } from '../../../chords.ts';
import type { CheckRule, MadeHole } from '../../check.ts';
import { NEAR_FLOOR } from '../../../areas/finder.ts';
import { across, down } from './freely.ts';
import { holding } from './holding.ts';
import { inGroove } from './in-groove.ts';
import { inHole } from './in-hole.ts';
import { onEdge, onRise } from './on-edge.ts';
import { isSideways, WayState, type Known } from './state.ts';

/** Every motion of the text, with the tool's whole outline, against part, uncut metal and holding. */
export const way: CheckRule = {
  rule: 'way',
  run(c) {
    const s = new WayState(c);
    const madeBy = new Map<number, MadeHole[]>();
    for (const m of c.made) {
      const [from, to] = m.call.lines ?? [m.call.line, m.call.line];
      for (let line = from; line <= to; line++) madeBy.set(line, [...(madeBy.get(line) ?? []), m]);
    }
    const holeAt = (m: Known): MadeHole | null =>
      madeBy
        .get(m.line)
        ?.find(
          (h) =>
            h.call.tool === m.tool &&
            Math.abs(h.call.x - m.to[0]) < 1e-6 &&
            Math.abs(h.call.y - m.to[1]) < 1e-6,
        ) ?? null;
    for (const m of c.read.motions) {
      const tool = m.kind === 'dwell' ? null : c.toolOf(m.tool);
      const known = isKnown(m) ? m : landed(m, c.space.setup.top);
      if (tool && known) judged(s, known, tool, holeAt(known));
    }
    return s.out;
  },
};

/** So far a cutter may seem to be in a hole's wall and still be in the hole alone: code is rounded, mm. */
const IN_WALL = 0.01;

/** Fed, and able to cut on its side. */
const isMill = (m: Motion, tool: Tool): boolean =>
  (m.kind === 'feed' || m.kind === 'arc') && m.how === undefined && !toolKind(tool.kind).onlyPlunges;

function judged(s: WayState, m: Known, tool: Tool, hole: MadeHole | null): void {
  holding(s, m, tool, hole);
  const onEdges = chordsOf(m).map((chord) => ({ chord, edges: s.c.edges.at(chord, tool) }));
  if (onEdges.some(({ edges }) => edges.length > 0)) {
    for (const { chord, edges } of onEdges) onEdge(s, chord, tool, edges);
    return;
  }
  const onRises = chordsOf(m).map((chord) => ({ chord, by: s.c.rises.by(chord, tool) }));
  if (onRises.some(({ by }) => by.length > 0)) {
    for (const { chord, by } of onRises)
      onRise(s, chord, tool, Math.max(0, ...by.map((r) => r.seen.rise.width)));
    return;
  }
  const inside = isMill(m, tool) ? s.c.finder.at(m, tool) : null;
  // What reaches beyond a hole's wall may be on its way along a groove that runs over it.
  const groove = inside && inside.beyond <= IN_WALL ? null : s.c.grooves.at(m, tool);
  if (groove || !inside)
    for (const { area, z } of s.c.areas.at(m, tool))
      if (z <= area.view.shape.floor + NEAR_FLOOR) s.made.add(area.view.feature.id);
  if (groove) inGroove(s, m, tool, groove);
  else if (inside) inHole(s, m, tool, inside);
  else if (isSideways(m)) for (const chord of chordsOf(m)) across(s, chord, tool, hole);
  // On the way up a tool stands where it stood on the way down.
  else if (m.to[2] < m.from[2]) down(s, m, tool, hole);
}

/** From a place that the text does not say, such as home: the tool comes down to where it arrives. */
function landed(m: Motion, top: number): Known | null {
  const [x, y, z] = m.to;
  if (x === null || y === null || z === null) return null;
  return { ...m, from: [x, y, Math.max(z, top) + 1], to: [x, y, z] };
}
