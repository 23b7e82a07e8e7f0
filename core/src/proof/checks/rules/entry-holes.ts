import { DEPTH_TOLERANCE, toolName, type CheckContext, type CheckRule, type Finding } from '../check.ts';
import type { EntryHole } from '../../entry-holes.ts';

/** Holes to go in by stay within the walls and above the floor: what they take beyond them is never cut clean again. */
export const entryHolesRule: CheckRule = {
  rule: 'entry-holes',
  run: (c) => [...c.entryHoles.values()].flatMap((d) => findings(d, c)),
};

/** How much farther than its wall one may seem to reach: the code is rounded, mm. */
const BESIDE_WALL = 0.005;

function findings(
  { label, feature, row, through, floor, tool, call, by }: EntryHole,
  c: CheckContext,
): Finding[] {
  const error = (rule: string, what: string): Finding => ({
    rule,
    severity: 'error',
    message: `${label}: ${toolName(tool)} ${what}`,
    line: call.line,
    tag: row.tag,
    feature,
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
    ...(!through && call.z < floor - DEPTH_TOLERANCE
      ? [
          error(
            'entry-hole-too-deep',
            `goes ${c.say(floor - call.z)} below the floor. Write ${c.word('Z', floor)} at the lowest.`,
          ),
        ]
      : []),
  ];
}
