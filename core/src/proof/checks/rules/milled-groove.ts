import { DEPTH_TOLERANCE, toolName, type CheckContext, type CheckRule, type Finding } from '../check.ts';
import { bottomOf } from '../../../features/groove-shape.ts';
import type { DrilledGroove } from '../../grooves/finder.ts';
import { milledFindings } from './milled-floor.ts';

/** What was milled in slots, grooves and channels, as read from the text, against what is planned: depth, speed and feed. */
export const milledGroove: CheckRule = {
  rule: 'milled-groove',
  run: (c) => [
    ...[...c.drilledGrooves.values()].flatMap((d) => entryFindings(d, c)),
    ...c.milledGrooves.flatMap((g) => milledFindings({ ...g, ...g.groove }, c)),
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
