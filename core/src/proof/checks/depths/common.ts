import { pointLength } from '../../../cutting/depths.ts';
import { USUAL_POINT } from '../../../tools/kinds/drill.ts';
import { toolKind } from '../../../tools/kinds/registry.ts';
import type { Tool } from '../../../tools/schema.ts';
import {
  at,
  DEPTH_TOLERANCE,
  isAsPlanned,
  name,
  toolName,
  type CheckContext,
  type Finding,
  type MadeHole,
} from '../check.ts';

/** A cycle line whose hole and tool are known, with how far below the entry the tip goes, mm. */
export type DepthLine = MadeHole & { view: NonNullable<MadeHole['view']>; tool: Tool; tip: number };

/** Judges how deep a kind of tool goes in a hole. */
export type DepthCheck = (m: DepthLine, c: CheckContext) => Finding[];

/** Farther past an exit than this beyond what is planned, mm, and it is what lies below that is drilled. */
export const MUCH_BEYOND = 2;

/** Height of a drill's point, of a core drill what is above its flat tip, mm. */
export const pointOf = (t: Tool): number =>
  pointLength(t.diameter - t.tipDiameter, t.pointAngleDeg ?? USUAL_POINT);

/** A finding about one line; the plan's own depth is a warning, since somebody typed it, any other an error. */
export function finding(m: MadeHole, rule: string, what: string, severity?: Finding['severity']): Finding {
  const isOwn = isAsPlanned(m);
  return {
    rule,
    severity: severity ?? (isOwn ? 'warning' : 'error'),
    message: `${name(m)}: ${what}`,
    ...at(m),
  };
}

export const isPilot = (m: MadeHole): boolean => m.planned?.operation.kind === 'pilot';

/** The lines of this program that drill the same hole, pilots aside. */
export const drillsOf = (m: MadeHole, c: CheckContext): (MadeHole & { tool: Tool })[] =>
  c.made.filter(
    (o): o is MadeHole & { tool: Tool } =>
      o.view === m.view && o.tool !== null && toolKind(o.tool.kind).drills === true && !isPilot(o),
  );

/**
 * A tool that only opens a hole must not go below what the drill of this setup leaves. `above`: how far above that
 * drill's tip the hole is as wide as the tool needs it.
 */
export function inSolid(m: DepthLine, above: (drill: Tool) => number, c: CheckContext): Finding[] {
  const drilled = drillsOf(m, c).map((o) => o.call.z + above(o.tool));
  const deepest = Math.min(...drilled);
  const over = drilled.length > 0 ? deepest - m.call.z : 0;
  if (over <= DEPTH_TOLERANCE) return [];
  return [
    finding(
      m,
      'floor-not-drilled',
      `${toolName(m.tool)} goes ${c.say(over)} below the drilled hole, into solid metal. Write ${c.word('Z', deepest)} at the lowest, or drill ${c.say(over)} deeper.`,
      'error',
    ),
  ];
}

export function offBy(
  m: DepthLine,
  over: number,
  rule: string,
  what: string,
  depth: number,
  c: CheckContext,
): Finding[] {
  if (Math.abs(over) <= DEPTH_TOLERANCE) return [];
  const typed = isAsPlanned(m) ? ', as typed' : '';
  const right = c.word('Z', m.view.entryZ - depth);
  return [
    finding(
      m,
      rule,
      `${c.say(Math.abs(over))} ${over > 0 ? 'past' : 'short of'} ${what}${typed}. ${right} would be right.`,
    ),
  ];
}
