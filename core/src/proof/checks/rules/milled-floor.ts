import type { Row } from '../../../job/row.ts';
import type { Tool } from '../../../tools/schema.ts';
import { DEPTH_TOLERANCE, toolName, type CheckContext, type Finding } from '../check.ts';
import { MUCH_BEYOND } from '../depths/common.ts';
import { speedFindings, type Find } from './milled.ts';

/** What a mill did at the floor of a slot, a groove or an area, as read from the text. */
export interface MilledFloor {
  view: { label: string; feature: { id: string }; shape: { through: boolean } };
  row: Row;
  tool: Tool;
  /** Lowest place of its tip, and the line in which it went there. */
  low: number;
  line: number;
  /** Fastest feed, mm/min, and highest speed, rpm. */
  feed: number;
  speed: number;
}

/** That against what is planned: depth, speed and feed. */
export function milledFindings(g: MilledFloor, c: CheckContext): Finding[] {
  const { view, row } = g;
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
