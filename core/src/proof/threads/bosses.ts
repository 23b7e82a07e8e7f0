import type { Motion, ReadProgram } from '../../code/read/motion.ts';
import { isBoss } from '../../features/family.ts';
import type { DerivedJob, DerivedSetup } from '../../job/derive.ts';
import { labelOf } from '../../job/placed.ts';
import type { Row } from '../../job/row.ts';
import { viewBoss, type BossView } from '../../operations/boss-view.ts';
import { threadSizes } from '../../threads/shape.ts';
import { toolKind } from '../../tools/kinds/registry.ts';
import type { Tool } from '../../tools/schema.ts';

/** Thinner metal than this between a path and the root of its thread is judged by the thread itself, mm. */
const SLACK = 0.3;
/** An arc about another axis than the boss's own is none round it, mm: pieces of a taper's spiral lie a little beside. */
const SAME_AXIS = { whole: 0.02, piece: 0.2 };

/** A boss that has a thread, as a setup sees it. */
export interface SeenBoss {
  view: BossView;
  row: Row;
}

/** The bosses with a thread that a setup reaches. */
export function seenBosses(job: DerivedJob, setup: DerivedSetup): SeenBoss[] {
  return job.rows
    .filter((row) => row.thread !== null)
    .flatMap((row) =>
      row.size.features.flatMap((f, i): SeenBoss[] => {
        const view = isBoss(f) ? viewBoss(f, labelOf(row.size, i), setup.frame.frame) : null;
        return view ? [{ view, row }] : [];
      }),
    );
}

/** How deep a thread is cut into a boss, on the radius, mm. */
export const depthInBoss = ({ view, row }: SeenBoss): number =>
  row.thread ? Math.max(0, (view.feature.diameter - threadSizes(row.thread, 'outside').minor) / 2) : 0;

/** The boss that a thread cutter is fed round: along its wall, or to it and away. */
export function bossAt(bosses: readonly SeenBoss[], m: Motion, tool: Tool): SeenBoss | null {
  if (!toolKind(tool.kind).cutsThreads || (m.kind !== 'feed' && m.kind !== 'arc')) return null;
  const near = (b: SeenBoss, [px, py]: Motion['to']): number =>
    px === null || py === null ? Infinity : Math.hypot(px - b.view.x, py - b.view.y);
  return (
    bosses.find((b) => {
      const least = b.view.feature.diameter / 2 - depthInBoss(b) + tool.diameter / 2 - SLACK;
      return [m.from, m.to].every((p) => near(b, p) >= least && near(b, p) <= least + 2 * tool.diameter);
    }) ?? null
  );
}

/** What a thread cutter was fed round a boss. */
export interface MilledBoss {
  boss: SeenBoss;
  tool: Tool;
  motions: Motion[];
}

/** Bosses that thread cutters went round, one entry for each tool, from what was read. */
export function milledBosses(
  read: ReadProgram,
  bosses: readonly SeenBoss[],
  toolOf: (number: number) => Tool | null,
): MilledBoss[] {
  const out = new Map<string, MilledBoss>();
  if (bosses.length === 0) return [];
  for (const m of read.motions) {
    const tool = toolOf(m.tool);
    const boss = tool && bossAt(bosses, m, tool);
    if (!boss || !tool || !isAbout(m, boss.view)) continue;
    const key = `${boss.view.label}/${tool.id}`;
    const known = out.get(key);
    if (known) known.motions.push(m);
    else out.set(key, { boss, tool, motions: [m] });
  }
  return [...out.values()];
}

const isAbout = ({ kind, centre, turns = 0 }: Motion, { x, y }: BossView): boolean =>
  kind !== 'arc' ||
  (centre !== undefined &&
    Math.hypot(centre[0] - x, centre[1] - y) <= (turns > 0 ? SAME_AXIS.whole : SAME_AXIS.piece));
