import type { Pass, Work } from '../../motion/work.ts';
import type { Tool } from '../../tools/schema.ts';
import { cuttingNumbers } from '../cutting-numbers.ts';
import type { GrooveView } from '../groove-view.ts';
import type { KindContext, Parameters, Planned, Remark } from '../kind.ts';

/** Fed through the air at so many times the feed. */
export const LEAD_SHARE = 2;

/** What passes do at a groove, with the tip as low as `z`. */
export const grooveWork = (
  v: GrooveView,
  passes: readonly [Pass, ...Pass[]],
  r: number,
  z: number,
): Work => ({
  feature: v.feature.id,
  label: v.label,
  x: passes[0].start[0],
  y: passes[0].start[1],
  r,
  z,
  entryZ: v.entryZ,
  metalZ: v.metalZ,
  motion: { kind: 'path', passes: [...passes] },
});

/** An operation of a cutter that cuts on its side alone: with one feed, and a faster one through the air. Throws MissingCuttingData. */
export function sideCut(
  c: KindContext,
  parameters: Parameters,
  { tool, others }: { tool: Tool; others: readonly Tool[] },
  work: Work[],
  remarks: readonly Remark[] = [],
): Planned {
  // A long cutter is fed slower: the table goes by how far it stands out.
  const { speed, feed, remarks: more } = cuttingNumbers(c, parameters, tool, tool.stickOut);
  return {
    tool,
    speed,
    feed,
    feeds: { cut: feed, finish: feed, lead: Math.min(c.machine.maxFeed, LEAD_SHARE * feed) },
    work,
    parameters: parameters.list,
    remarks: [...remarks, ...more],
    alternatives: [...new Set([tool, ...others].map((t) => t.id))],
  };
}
