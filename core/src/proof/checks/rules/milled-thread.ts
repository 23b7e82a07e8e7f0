import type { Motion } from '../../../code/read/motion.ts';
import type { PlannedOperation } from '../../../job/row.ts';
import { startOfThread } from '../../../operations/drill/index.ts';
import type { Thread } from '../../../threads/thread.ts';
import { firstTooth } from '../../../tools/kinds/thread-mill.ts';
import { toolKind } from '../../../tools/kinds/registry.ts';
import type { MilledHole } from '../../milled.ts';
import { DEPTH_TOLERANCE, type CheckContext, type CheckRule, type Finding } from '../check.ts';
import { findIn, plannedIn, speedFindings, type Find } from './milled.ts';

/** How far a thread's width may be from the planned one, and a turn's way from the lead, mm: code is rounded, in inches to 0.0025 mm. */
const WIDTH_TOLERANCE = 0.01;
const LEAD_TOLERANCE = 0.006;

/** What threads a cutter went round in, as read from the text: width, lead, hand, depth and top, against thread, print and plan. */
export const milledThread: CheckRule = {
  rule: 'milled-thread',
  run: (c) => c.milled.flatMap((m) => (toolKind(m.tool.kind).cutsThreads ? findings(m, c) : [])),
};

/** Turns of one width along the axis. */
interface Turned {
  line: number;
  diameter: number;
  /** Lowest and highest place of the tip. */
  low: number;
  high: number;
  /** Way along the axis in a turn, up positive; null where it goes round at one level. */
  perTurn: number;
  clockwise: boolean;
}

function findings(m: MilledHole, c: CheckContext): Finding[] {
  const { thread } = m.hole.row;
  const find = findIn(m);
  const turns = m.motions.flatMap((motion) => turnedOf(motion, m));
  const widest = turns.reduce<Turned | null>((a, b) => (a && a.diameter >= b.diameter ? a : b), null);
  if (!widest) return [];
  if (!thread)
    return [
      find(
        'thread-unplanned',
        'error',
        widest.line,
        'cuts a thread, and none is confirmed for this hole. Confirm it from the print, or take it out.',
      ),
    ];
  const planned = plannedIn(m, c);
  const wall = turns.filter((t) => widest.diameter - t.diameter <= WIDTH_TOLERANCE);
  return [
    ...sizeFindings(widest, thread, planned, c, find),
    ...leadFindings(turns, thread, c, find),
    ...depthFindings(m, wall, thread, planned, c, find),
    ...speedFindings(m, planned, widest.line, find),
  ];
}

function turnedOf(motion: Motion, { hole: { view }, tool }: MilledHole): Turned[] {
  const [x, y, z0] = motion.from;
  const z1 = motion.to[2];
  if (x === null || y === null || z0 === null || z1 === null) return [];
  const turns = Math.max(1, motion.turns ?? 0);
  return [
    {
      line: motion.line,
      diameter: 2 * Math.hypot(x - view.x, y - view.y) + tool.diameter,
      low: Math.min(z0, z1),
      high: Math.max(z0, z1),
      perTurn: (z1 - z0) / turns,
      clockwise: motion.clockwise === true,
    },
  ];
}

function sizeFindings(
  widest: Turned,
  thread: Thread,
  planned: readonly PlannedOperation[],
  c: CheckContext,
  find: Find,
): Finding[] {
  const said = planned.flatMap((o) => o.parameters.filter((p) => p.key === 'diameter').map((p) => p.value));
  const wanted = typeof said[0] === 'number' ? said[0] : thread.majorDiameter;
  const off = widest.diameter - wanted;
  if (Math.abs(off) <= WIDTH_TOLERANCE) return [];
  return [
    find(
      'thread-size',
      'error',
      widest.line,
      `cuts the thread ${c.say(Math.abs(off))} ${off > 0 ? 'too wide' : 'too narrow'} on diameter: \u2300${c.say(widest.diameter)}, and \u2300${c.say(wanted)} is wanted. Lead its centre ${c.say(Math.abs(off) / 2)} ${off > 0 ? 'less' : 'farther'} out.`,
    ),
  ];
}

/** Along the axis by the lead in each turn, and up or down by the thread's hand. */
function leadFindings(turns: readonly Turned[], thread: Thread, c: CheckContext, find: Find): Finding[] {
  const wrong = turns.find((t) => Math.abs(Math.abs(t.perTurn) - thread.pitch) > LEAD_TOLERANCE);
  if (wrong)
    return [
      find(
        'thread-lead',
        'error',
        wrong.line,
        `goes ${c.say(Math.abs(wrong.perTurn))} along the axis in a turn; ${thread.designation} has ${c.say(thread.pitch)}. Write ${c.word('Z', wrong.perTurn < 0 ? wrong.high - thread.pitch : wrong.low + thread.pitch)} there.`,
      ),
    ];
  const turned = turns.find((t) => (t.perTurn > 0 !== t.clockwise) !== (thread.hand === 'right'));
  if (!turned) return [];
  return [
    find(
      'thread-hand',
      'error',
      turned.line,
      `goes ${turned.clockwise ? 'clockwise' : 'counter-clockwise'} and ${turned.perTurn > 0 ? 'up' : 'down'}: that cuts a ${thread.hand === 'right' ? 'left' : 'right'}-hand thread. ${thread.hand === 'right' ? 'Right' : 'Left'} hand goes ${turned.clockwise === (thread.hand === 'right') ? 'down' : 'up'} that way round.`,
    ),
  ];
}

/** As deep as print or plan want full thread, no less than to the top, and no part of it left out between two bands. */
function depthFindings(
  { tool, hole: { view, row } }: MilledHole,
  wall: readonly Turned[],
  thread: Thread,
  planned: readonly PlannedOperation[],
  c: CheckContext,
  find: Find,
): Finding[] {
  const start = view.entryZ - startOfThread(view);
  const tooth = firstTooth(tool);
  const rows = tool.threadForm?.rows ?? 1;
  // Each row passes a stretch of the wall; together they are the thread.
  const stretches = wall
    .flatMap((t) =>
      Array.from({ length: rows }, (_, k) => ({
        line: t.line,
        low: t.low + tooth + k * thread.pitch,
        high: t.high + tooth + k * thread.pitch,
      })),
    )
    .sort((a, b) => a.low - b.low);
  const [lowest] = stretches;
  if (!lowest) return [];
  const typed = planned.flatMap((o) =>
    o.parameters.filter((p) => p.key === 'threadDepth').map((p) => p.value),
  );
  const wanted = row.print.threadDepth ?? (typeof typed[0] === 'number' ? typed[0] : undefined);
  const full = start - lowest.low;
  const out: Finding[] = [];
  if (wanted !== undefined && wanted - full > DEPTH_TOLERANCE)
    out.push(
      find(
        'thread-short',
        'error',
        lowest.line,
        `cuts ${c.say(Math.max(0, full))} of full thread; ${row.print.threadDepth === undefined ? '' : 'the print asks for '}${c.say(wanted)}${row.print.threadDepth === undefined ? ' is planned' : ''}. Begin ${c.say(wanted - full)} lower.`,
      ),
    );
  let reached = lowest.low;
  let line = lowest.line;
  for (const s of stretches) {
    if (s.low > reached + DEPTH_TOLERANCE && reached < start) break;
    if (s.high > reached) [reached, line] = [s.high, s.line];
  }
  if (reached < start - DEPTH_TOLERANCE)
    out.push(
      find(
        'thread-gap',
        'error',
        line,
        `leaves the thread uncut above Z ${c.say(reached)}; it begins at Z ${c.say(start)}. Go on ${c.say(start - reached)} farther along the axis.`,
      ),
    );
  return out;
}
