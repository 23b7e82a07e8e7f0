import { turnOf } from '../../../../code/read/rounds.ts';
import { helixAngleDeg } from '../../../../motion/circles.ts';
import { partName } from '../../../../space/space.ts';
import { drilledWidth, widestStep } from '../../../../tools/kinds/kind.ts';
import { toolKind } from '../../../../tools/kinds/registry.ts';
import { toolProfile } from '../../../../tools/profile.ts';
import type { Tool } from '../../../../tools/schema.ts';
import { tooWide } from '../../../clear.ts';
import { wideTo, type InHole } from '../../../milled.ts';
import { DEPTH_TOLERANCE, toolName } from '../../check.ts';
import { isSideways, type Known, type WayState } from './state.ts';

/** Rounding of the code may make a helix this much steeper. */
const STEEP = 1.05;
/** A thread may be cut this much wider than its major diameter for the gauge, mm. */
export const MOST_FIT = 0.5;

/** A mill that is fed inside a hole: never wider or deeper than the hole is, and never with more than its flutes in metal. */
export function inHole(s: WayState, m: Known, tool: Tool, inside: InHole): void {
  if (toolKind(tool.kind).onRims) return onRim(s, m, tool, inside);
  const { hole, orbit, isRound } = inside;
  const { view, row } = hole;
  const { space, say, word } = s.c;
  const z = Math.min(m.from[2], m.to[2]);
  const { x, y, entryZ } = view;
  const named = (rule: string, what: string): void =>
    s.say(m, rule, null, `${view.label}: ${what}`, 'error', { tag: row.tag, feature: view.feature.id });
  const discs = s.c.discs(tool);
  const swept = orbit > 0 ? discs.map((d) => ({ ...d, r: d.r + orbit })) : discs;
  const wide = 2 * orbit + tool.diameter;
  // A thread is wider than its hole; how wide, how deep and how steep it is, is judged by itself.
  const thread = toolKind(tool.kind).cutsThreads ? row.thread : null;
  const open = drilledWidth(view, row.thread);
  const isInThread = thread !== null && wide <= thread.majorDiameter + MOST_FIT;
  const isTapered = tool.threadForm?.tapered === true;
  const floor =
    entryZ - wideTo(view.steps, isInThread ? Math.min(wide, drilledWidth(view, null)) : wide, view.through);
  if (z < floor - DEPTH_TOLERANCE)
    return named(
      'milled-too-deep',
      `${toolName(tool)} cuts ⌀${say(wide)} down to Z ${say(z)}; the hole is that wide to Z ${say(floor)} only. ${word('Z', floor)} at the lowest.`,
    );
  ramp(s, m, tool, x, y, orbit, isRound, named);
  const hit = space.partAt(swept, x, y, z, {
    // A tapered cutter is wider above than at its tip, and so is its thread.
    radius:
      Math.max(widestStep(view), isInThread ? wide : 0, isInThread && isTapered ? thread.majorDiameter : 0) /
        2 +
      0.06,
    below: space.ledFrom(x, y, wide / 2, entryZ) + 0.06,
    ...(view.through ? { open: 0.45 * Math.min(open, wide) } : {}),
  });
  if (hit) return s.inPart(m, tool, null, hit);
  if (isRound) {
    // A ring takes away what is inside it where no core is left standing.
    const inner = orbit - tool.diameter / 2;
    if (inner <= 0 || s.columns.isFree(x, y, inner, z)) s.columns.cut(swept, x, y, z);
  } else if (!isSideways(m) && m.to[2] < m.from[2]) s.columns.cut(discs, m.to[0], m.to[1], z);
  const thick = (isRound ? swept : discs).find(
    (d) => d.part !== 'cutting' && s.isUncut(isRound ? x : m.to[0], isRound ? y : m.to[1], d.r, z + d.z),
  );
  if (thick)
    named(
      'holder-into-metal',
      `the ${partName(thick.part)} of ${toolName(tool)} (⌀${say(2 * (thick.r - (isRound ? orbit : 0)))}) goes into metal at Z ${say(z + thick.z)}. Take a longer one.`,
    );
}

/** A cutter that breaks a rim: at no height wider than the hole is there, but for the rims that are wanted. */
function onRim(
  s: WayState,
  m: Known,
  tool: Tool,
  { hole: { view, row, wanted }, orbit, isRound }: InHole,
): void {
  const { space, say } = s.c;
  const z = Math.min(m.from[2], m.to[2]);
  const named = (rule: string, what: string): void =>
    s.say(m, rule, null, `${view.label}: ${what}`, 'error', { tag: row.tag, feature: view.feature.id });
  const over = tooWide(toolProfile(tool, null), orbit, z, view, wanted);
  if (over)
    return named(
      'rim-too-wide',
      `${toolName(tool)} cuts ⌀${say(2 * over.radius)} at Z ${say(over.z)}, where ⌀${say(2 * over.clear)} is wanted at most. Check depth and radius.`,
    );
  const swept = s.c.discs(tool).map((d) => ({ ...d, r: d.r + orbit }));
  const isBehind = wanted.some((r) => r.below);
  const rim = Math.max(widestStep(view), ...wanted.map((r) => r.diameter)) / 2;
  const hit = space.partAt(swept, view.x, view.y, z, {
    // Its head is judged above, at every height; behind an edge the part lies over it.
    radius: (isBehind ? Math.max(rim, orbit + tool.diameter / 2) : rim) + 0.06,
    below: space.ledFrom(view.x, view.y, rim, view.entryZ) + 0.06,
    ...(view.through ? { open: 0.45 * drilledWidth(view, row.thread) } : {}),
  });
  if (hit) return s.inPart(m, tool, null, hit);
  if (isRound && !isBehind) s.columns.cut(swept, view.x, view.y, z);
  const thick = swept.find((d) => d.part !== 'cutting' && s.isUncut(view.x, view.y, d.r, z + d.z));
  if (thick)
    named(
      'holder-into-metal',
      `the ${partName(thick.part)} of ${toolName(tool)} (⌀${say(2 * (thick.r - orbit))}) goes into metal at Z ${say(z + thick.z)}. Take a longer one.`,
    );
}

/** How often an arc goes round; what is none, once. */
const turnsOf = (m: Known): number => Math.max(1e-3, turnOf(m) ?? 1);

/** A cutter that must not plunge goes into metal on a helix that is no steeper than it can. */
function ramp(
  s: WayState,
  m: Known,
  tool: Tool,
  x: number,
  y: number,
  orbit: number,
  isRound: boolean,
  named: (rule: string, what: string) => void,
): void {
  const limit = tool.rampAngleDeg ?? 90;
  const fall = m.from[2] - m.to[2];
  if (limit >= 90 || fall <= 1e-6) return;
  if (!isSideways(m)) {
    if (s.isUncut(m.to[0], m.to[1], tool.diameter / 2, m.to[2]))
      named(
        'plunges',
        `${toolName(tool)} must not plunge into metal, and is fed straight down. Go in on a helix.`,
      );
    return;
  }
  if (!isRound || orbit < 1e-6 || !s.isUncut(x, y, orbit + tool.diameter / 2, m.to[2])) return;
  const angle = helixAngleDeg(fall / turnsOf(m), orbit);
  if (angle > limit * STEEP)
    named(
      'ramp-too-steep',
      `the helix falls at ${angle.toFixed(1)}°, and ${toolName(tool)} goes into metal at ${limit}° at most. Take more turns.`,
    );
}
