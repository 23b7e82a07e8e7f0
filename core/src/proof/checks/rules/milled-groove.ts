import { DEPTH_TOLERANCE, toolName, type CheckContext, type CheckRule, type Finding } from '../check.ts';
import { MUCH_BEYOND } from '../depths/common.ts';
import { bottomOf } from '../../../features/groove-shape.ts';
import type { DrilledGroove, MilledGroove } from '../../grooves/finder.ts';
import { speedFindings, type Find } from './milled.ts';

/** What was milled in slots, grooves and channels, as read from the text, against what is planned: depth, speed and feed. */
export const milledGroove: CheckRule = {
  rule: 'milled-groove',
  run: (c) => [
    ...[...c.drilledGrooves.values()].flatMap((d) => entryFindings(d, c)),
    ...c.milledGrooves.flatMap((g) => findings(g, c)),
  ],
};

/** How much farther than its wall a hole to go in by may seem to reach: the code is rounded, mm. */
const BESIDE_WALL = 0.005;

/** A hole to go in by stays within the walls and above the floor: what it takes beyond them is never cut clean again. */
function entryFindings({ groove: { view, row }, tool, call, by }: DrilledGroove, c: CheckContext): Finding[] {
  const floor = bottomOf(view.shape);
  const error = (rule: string, what: string): Finding => ({
    rule,
    severity: 'error',
    message: `${view.label}: ${toolName(tool)} ${what}`,
    line: call.line,
    tag: row.tag,
    feature: view.feature.id,
  });
  return [
    ...(by > BESIDE_WALL
      ? [
          error(
            'entry-hole-too-wide',
            `drills ${c.say(by)} into the wall. Take a narrower drill, or move it to the middle.`,
          ),
        ]
      : []),
    ...(!view.shape.through && call.z < floor - DEPTH_TOLERANCE
      ? [
          error(
            'entry-hole-too-deep',
            `goes ${c.say(floor - call.z)} below the floor. Write ${c.word('Z', floor)} at the lowest.`,
          ),
        ]
      : []),
  ];
}

function findings(g: MilledGroove, c: CheckContext): Finding[] {
  const { view, row } = g.groove;
  const planned = c.setup.operations.filter(
    (o) => o.tag === row.tag && o.tool.id === g.tool.id && o.work.some((w) => w.label === view.label),
  );
  const find: Find = (rule, severity, line, what) => ({
    rule,
    severity,
    message: `${view.label}: ${toolName(g.tool)} ${what}`,
    line,
    tag: row.tag,
    feature: view.feature.id,
  });
  if (planned.length === 0)
    return [
      find(
        'milled-unplanned',
        'warning',
        g.line,
        'mills here, and nothing of the kind is planned. Check the tool and the place.',
      ),
    ];
  const own = planned.flatMap((o) => o.work.filter((w) => w.label === view.label));
  const z = Math.min(...own.map((w) => w.z));
  return [
    ...(g.low - z > DEPTH_TOLERANCE
      ? [
          find(
            'milled-short',
            'error',
            g.line,
            `ends ${c.say(g.low - z)} above where it is to go. Write ${c.word('Z', z)}.`,
          ),
        ]
      : []),
    ...(z - g.low > (view.shape.through ? MUCH_BEYOND : DEPTH_TOLERANCE)
      ? [
          find(
            view.shape.through ? 'too-far-through' : 'milled-too-deep',
            'error',
            g.line,
            `goes ${c.say(z - g.low)} deeper than planned. Write ${c.word('Z', z)}.`,
          ),
        ]
      : []),
    ...speedFindings(g, planned, g.line, find),
  ];
}
