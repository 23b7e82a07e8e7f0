import { startOfThread } from '../../operations/drill/index.ts';
import { toolKind } from '../../tools/kinds/registry.ts';
import type { CheckContext } from '../checks/check.ts';
import { plannedIn } from '../checks/rules/milled.ts';
import type { MilledHole } from '../milled.ts';
import type { MilledBoss } from './bosses.ts';
import type { ThreadPlace } from './milled-thread.ts';
import { turnsAbout } from './turns.ts';

/** Where thread cutters went round, in holes and on bosses. */
export const threadPlaces = (c: CheckContext): ThreadPlace[] => [
  ...c.milled.flatMap((m) => (toolKind(m.tool.kind).cutsThreads ? [inHole(m, c)] : [])),
  ...c.milledBosses.map((m) => onBoss(m, c)),
];

/** A hole in which a thread cutter went round. */
function inHole(m: MilledHole, c: CheckContext): ThreadPlace {
  const { view, row } = m.hole;
  return {
    label: view.label,
    tag: row.tag,
    feature: view.feature.id,
    side: 'inside',
    x: view.x,
    y: view.y,
    startZ: view.entryZ - startOfThread(view),
    thread: row.thread,
    printed: row.print.threadDepth,
    tool: m.tool,
    line: m.motions[0]?.line ?? 0,
    turns: turnsAbout(m.motions, {
      x: view.x,
      y: view.y,
      isTapered: row.thread?.form === 'pipe-tapered',
    }),
    planned: plannedIn(m, c),
  };
}

/** A boss that a thread cutter went round. */
function onBoss({ boss: { view, row }, tool, motions }: MilledBoss, c: CheckContext): ThreadPlace {
  const { x, y, label } = view;
  return {
    label,
    tag: row.tag,
    feature: view.feature.id,
    side: 'outside',
    x,
    y,
    startZ: view.entryZ - view.chamfered,
    thread: row.thread,
    printed: row.print.threadDepth,
    tool,
    line: motions[0]?.line ?? 0,
    turns: turnsAbout(motions, { x, y, isTapered: row.thread?.form === 'pipe-tapered' }),
    planned: c.setup.operations.filter(
      (o) => o.tag === row.tag && o.tool.id === tool.id && o.work.some((w) => w.label === label),
    ),
  };
}
