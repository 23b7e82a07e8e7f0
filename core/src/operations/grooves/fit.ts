import { halfAt, offMiddle, topOf, type GrooveShape } from '../../features/groove-shape.ts';
import type { Segment } from '../../geometry/path.ts';
import { discsOf, type Disc, type ProfilePoint } from '../../tools/profile.ts';
import type { Tool } from '../../tools/schema.ts';
import { hitInWords } from '../choose-tool.ts';
import type { KindContext } from '../kind.ts';
import { stretches } from './reach.ts';

/** Less of a cutter than this below the top is above the groove, mm. */
const IN = 0.01;

/** By how much a cutter stands beyond a groove's walls at its worst height, and where that is; null where it is not at any of its levels. */
export function beyondWalls(
  shape: GrooveShape,
  profile: readonly ProfilePoint[],
  [x, y, tip]: readonly [number, number, number],
): { by: number; z: number; r: number; half: number } | null {
  let worst: { by: number; z: number; r: number; half: number } | null = null;
  for (const level of shape.levels) {
    const off = offMiddle(shape, [x, y], level.path ?? shape.path);
    for (const { z, r } of within(profile, level.bottom - tip + IN, level.top - tip - IN)) {
      const half = halfAt(level, tip + z);
      const by = off + r - half;
      if (!worst || by > worst.by) worst = { by, z: tip + z, r, half };
    }
  }
  return worst;
}

/** The places of an outline between two heights above its tip, its corners among them. */
function within(profile: readonly ProfilePoint[], low: number, high: number): { z: number; r: number }[] {
  const out: { z: number; r: number }[] = [];
  for (const [i, q] of profile.entries()) {
    const p = profile[i - 1] ?? q;
    const [from, to] = [Math.max(low, p.z), Math.min(high, q.z)];
    if (to < from) continue;
    const at = (z: number): number => (q.z > p.z ? p.r + ((z - p.z) / (q.z - p.z)) * (q.r - p.r) : q.r);
    out.push({ z: from, r: Math.max(at(from), from === p.z && q.z === p.z ? p.r : 0) }, { z: to, r: at(to) });
  }
  return out;
}

/** The outline above a groove's top, as discs: shank and holder against what stands round the mouth. */
export const discsAbove = (profile: readonly ProfilePoint[], height: number): Disc[] =>
  discsOf(
    profile.flatMap((p, i) => {
      const before = profile[i - 1] ?? p;
      // The code is rounded: what ends at the top ends there.
      if (p.z <= height + IN) return [];
      return before.z < height ? [{ ...p, z: height }, p] : [p];
    }),
  );

/** How much a cutter may be wider than its groove: rounding, mm. */
const SLACK = 0.004;
/** A wall beside the shank may lie this much nearer: chords of round walls lie inside them, mm. */
const BESIDE_WALL = -0.03;

/**
 * Why a cutter led along chains with its tip at `tip` would stand in the walls of a groove that is wider than its mouth, or above it in the
 * part, with any part of its outline; null where it does not.
 */
export function whyUnder(
  c: KindContext,
  tool: Tool,
  label: string,
  shape: GrooveShape,
  paths: readonly (readonly Segment[])[],
  tip: number,
): string | null {
  const outline = c.outline(tool);
  const above = discsAbove(outline, topOf(shape) - tip);
  for (const path of paths)
    for (const [a, b] of stretches(path)) {
      for (const [x, y] of [a, b]) {
        const worst = beyondWalls(shape, outline, [x, y, tip]);
        if (worst && worst.by > SLACK)
          return `${label}: ${tool.description} would stand ${c.say(worst.by)} beyond the wall at Z ${c.say(worst.z)}, where it is \u2300${c.say(2 * worst.r)}. Take one that is slimmer there.`;
      }
      const hit = c.space.partAlong(above, [...a, tip], [...b, tip], BESIDE_WALL);
      if (hit) return `${label}: ${hitInWords(c, tool, hit)}`;
    }
  return null;
}
