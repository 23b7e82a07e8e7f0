import { discsOnEdge } from '../../../../operations/edges/room.ts';
import { discsAbove } from '../../../../operations/grooves/fit.ts';
import type { Tool } from '../../../../tools/schema.ts';
import type { SeenEdge } from '../../../edges/finder.ts';
import { BESIDE_WALL, type Known, type WayState } from './state.ts';

/** How much more than is wanted of an edge a cutter may stand in it: how wide it is broken is judged by itself. mm. */
const SLACK = 0.02;

/** A cutter on wanted edges: what it is to cut of their corners is left out, and the rest of it is clear of the part. */
export function onEdge(s: WayState, chord: Known, tool: Tool, edges: readonly SeenEdge[]): void {
  const tip = Math.min(chord.from[2], chord.to[2]);
  const behind = edges.find(({ edge }) => edge.behind);
  // Behind an edge the part lies over the head, which is judged by the metal; what is above it is beside the part.
  const outline = s.c.outline(tool);
  const deep = Math.max(0, ...edges.map(({ edge }) => edge.top - tip));
  const discs = behind
    ? discsAbove(outline, behind.edge.top - tip)
    : deep > 0
      ? discsOnEdge(outline, deep)
      : s.c.discs(tool);
  for (const d of discs) {
    const within = Math.max(
      0,
      ...edges.map(({ edge: { top, inset, drop, behind: isBehind } }) => {
        const below = (isBehind ? -1 : 1) * (top - tip - d.z);
        return below < -1e-6 || inset === 0 ? 0 : inset * (1 - below / drop) + SLACK;
      }),
    );
    const hit = s.c.space.partAlong(
      [{ ...d, r: Math.max(0, d.r - within) }],
      chord.from,
      chord.to,
      -BESIDE_WALL,
    );
    if (hit) return s.inPart(chord, tool, null, hit);
  }
}

/** A ball on an edge that rises and falls: how near it comes is judged by itself, and the rest of it is clear of the part. */
export function onRise(s: WayState, m: Known, tool: Tool, width: number): void {
  const discs = s.c
    .discs(tool)
    .map((d) => (d.part === 'cutting' ? { ...d, r: Math.max(0, d.r - 1.5 * width - SLACK) } : d));
  const hit = s.c.space.partAlong(discs, m.from, m.to, -BESIDE_WALL);
  if (hit) s.inPart(m, tool, null, hit);
}
