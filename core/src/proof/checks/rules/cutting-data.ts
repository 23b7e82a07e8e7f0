import { cycleWord } from '../../../code/cycles.ts';
import { toolKind } from '../../../tools/kinds/registry.ts';
import type { Work } from '../../../motion/work.ts';
import { cuttingRow, speedAndFeed } from '../../../cutting/material.ts';
import {
  at,
  name,
  toolName,
  type CheckContext,
  type CheckRule,
  type Finding,
  type MadeHole,
} from '../check.ts';

interface Band {
  high: number;
  low: number;
  slipHigh: number;
  slipLow: number;
}
/** Outside these shares of what plan or table say a number is looked at, and outside the wider pair it is a slip. A crossing is fed at half. */
const SPEED: Band = { high: 1.5, low: 0.5, slipHigh: 2.5, slipLow: 0.25 };
const FEED: Band = { high: 1.5, low: 0.4, slipHigh: 2.5, slipLow: 0.15 };
/** Depth in diameters from which a drill without coolant is a mistake. */
const COOLANT_FROM = 3;
/** Dwells in seconds that are looked at, and that are a slip of the unit. */
const LONG_DWELL = 3;
const ENDLESS_DWELL = 10;

/** Speed and feed far from what plan or table say: a lost decimal point breaks the tool. */
export const speedsAndFeeds: CheckRule = {
  rule: 'speed-and-feed',
  run: (c) =>
    c.made.flatMap((m): Finding[] => {
      const { tool, call } = m;
      const wanted = expected(m, c);
      if (!wanted || !tool) return [];
      const speed = judged(m, 'speed', call.speed / wanted.speed, SPEED);
      const feed = tool.thread ? null : judged(m, 'feed', call.feed / wanted.feed, FEED);
      return [
        speed && { ...speed, message: `${speed.message} Write S${wanted.speed}.` },
        feed && { ...feed, message: `${feed.message} Write ${c.word('F', wanted.feed)}.` },
      ].filter((f) => f !== null);
    }),
};

function judged(m: MadeHole, rule: 'speed' | 'feed', share: number, band: Band): Finding | null {
  if (!(share > 0) || (share <= band.high && share >= band.low)) return null;
  const is =
    rule === 'speed' ? `turns at ${m.call.speed} rpm` : `feeds at F${+m.call.feed.toFixed(2)} mm/min`;
  const far = share >= 1 ? `${+share.toFixed(1)} times` : `${Math.round(100 * share)} % of`;
  return {
    rule,
    severity: share > band.slipHigh || share < band.slipLow ? 'error' : 'warning',
    message: `${name(m)}: ${m.tool ? toolName(m.tool) : ''} ${is}, ${far} what ${m.planned ? 'is planned' : 'the table says'}.`,
    ...at(m),
  };
}

function expected(m: MadeHole, { job }: CheckContext): { speed: number; feed: number } | null {
  if (m.planned) return m.planned.operation;
  if (!m.tool || !cuttingRow(job.material, m.tool)) return null;
  const depth = (m.view?.entryZ ?? m.call.r) - m.call.z;
  return speedAndFeed(m.tool, job.material, job.machine, Math.max(0, depth));
}

/** Above what the machine has. */
export const limits: CheckRule = {
  rule: 'machine-limits',
  run: ({ made, job: { machine }, say }) =>
    made.flatMap((m): Finding[] => {
      const out: Finding[] = [];
      if (m.call.speed > machine.maxSpeed)
        out.push({
          rule: 'speed-limit',
          severity: 'error',
          message: `${name(m)}: ${m.call.speed} rpm is above the machine's limit. Write S${machine.maxSpeed} or less, and the feed with it.`,
          ...at(m),
        });
      if (m.call.feed > machine.maxFeed)
        out.push({
          rule: 'feed-limit',
          severity: 'error',
          message: `${name(m)}: a feed of ${say(m.call.feed)}/min is above the machine's ${say(machine.maxFeed)}/min. Feed slower.`,
          ...at(m),
        });
      return out;
    }),
};

/** Pecks much larger than planned, or none where the plan has them. */
export const pecks: CheckRule = {
  rule: 'pecks',
  run: (c) => c.made.flatMap((m) => peckFindings(m, c)),
};

function peckFindings(m: MadeHole, { job, say, word }: CheckContext): Finding[] {
  const { tool, planned, call } = m;
  if (!tool || !toolKind(tool.kind).drills) return [];
  const isPecking = call.how === 'full-retract' || call.how === 'chip-break';
  const plannedPeck = planned && peckOf(planned.hole);
  const usual = plannedPeck ?? tool.diameter;
  const depth = (m.view?.entryZ ?? call.r) - call.z;
  const deepFrom = job.material.pecking.fullRetractFrom * tool.diameter;
  const inPecks = (peck: number): string => {
    const cycle = cycleWord({ how: 'full-retract', peck });
    return job.machine.cycles.includes(cycle)
      ? `Write ${cycle} with ${word('Q', peck)}.`
      : `Come out after each ${say(peck)}.`;
  };
  if (!isPecking && depth > deepFrom && (!planned || plannedPeck !== null))
    return [
      {
        rule: 'no-pecks',
        severity: 'error',
        message: `${name(m)}: ${say(depth)} deep with ⌀${say(tool.diameter)} in one go: chips would pack. ${inPecks(usual)}`,
        ...at(m),
      },
    ];
  if (!isPecking || call.q === undefined || depth <= 1.5 * usual) return [];
  const share = call.q / usual;
  if (share <= 2 && share >= 0.2) return [];
  return [
    {
      rule: share > 1 ? 'peck-too-big' : 'peck-too-small',
      severity: share > 1 ? 'error' : 'warning',
      message: `${name(m)}: pecks of ${say(call.q)} with ⌀${say(tool.diameter)}; ${say(usual)} ${planned ? 'is planned' : 'is usual'}. Write ${word('Q', usual)}.`,
      ...at(m),
    },
  ];
}

/** Depth of the planned pecks; null where none are. */
function peckOf({ motion }: Work): number | null {
  return motion.kind === 'cycle' && 'peck' in motion.how ? (motion.how.peck ?? null) : null;
}

/** A dwell of minutes is milliseconds read as seconds, or the other way. */
export const dwells: CheckRule = {
  rule: 'dwell',
  run: ({ made, read, job }) => {
    const unit =
      job.machine.dwellUnit === 'seconds'
        ? 'seconds'
        : 'milliseconds without a point and in seconds with one';
    const judge = (line: number, seconds: number | undefined, what: string): Finding[] =>
      seconds === undefined || seconds <= LONG_DWELL
        ? []
        : [
            {
              rule: 'long-dwell',
              severity: seconds > ENDLESS_DWELL ? 'error' : 'warning',
              message: `${what} holds for ${+seconds.toFixed(2)} s. P is in ${unit}: write it so that it holds a second or less.`,
              line,
            },
          ];
    return [
      ...made.flatMap((m) =>
        judge(m.call.line, m.call.dwellSeconds, name(m)).map((f) => ({ ...f, ...at(m) })),
      ),
      ...read.motions
        .filter((m) => m.kind === 'dwell' && m.how === undefined)
        .flatMap((m) => judge(m.line, m.seconds, `Line ${m.line}: G4`)),
    ];
  },
};

/** A tap or a deep drill without coolant where the machine has it. */
export const coolant: CheckRule = {
  rule: 'coolant',
  run: ({ made, job }) =>
    made.flatMap((m): Finding[] => {
      const { tool, call } = m;
      if (!job.machine.coolant || !tool || call.coolant) return [];
      const isDeep = (m.view?.entryZ ?? call.r) - call.z > COOLANT_FROM * tool.diameter;
      if (!tool.thread && !(toolKind(tool.kind).drills && isDeep)) return [];
      return [
        {
          rule: 'coolant',
          severity: 'error',
          message: `${name(m)}: ${toolName(tool)} runs without coolant. Add M${job.machine.coolantOn} before it.`,
          ...at(m),
        },
      ];
    }),
};
