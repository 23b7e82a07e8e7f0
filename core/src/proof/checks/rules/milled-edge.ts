import type { MilledEdge } from '../../edges/finder.ts';
import type { MilledRise } from '../../edges/rises.ts';
import { toolName, type CheckContext, type CheckRule, type Finding } from '../check.ts';
import { speedFindings, type Find } from './milled.ts';

/** How far a broken edge may be from the wanted width, mm: both ends of a radius and of a depth are rounded. */
export const WIDTH_TOLERANCE = 0.01;
/** What an edge's cutter leaves of it is none where it is shorter, mm. */
const LEAST_LENGTH = 0.1;
/** Places this near to a stretch that is left are its ends, mm. */
const BESIDE_LEFT = 1.2;

/** How wide edges were broken, place by place along them, as read from the text, against what is wanted. */
export const milledEdge: CheckRule = {
  rule: 'milled-edge',
  run: (c) => [
    ...c.milledEdges.flatMap((m) => findings(m, c)),
    ...c.milledRises.flatMap((m) => riseFindings(m, c)),
  ],
};

/** What is found of a cutter on an edge: it names both. */
const findAt =
  ({ work, operation, tool }: Pick<MilledEdge, 'work' | 'operation' | 'tool'>, feature: string): Find =>
  (rule, severity, line, what) => ({
    rule,
    severity,
    message: `${work.label}: ${toolName(tool)} ${what}`,
    line,
    tag: operation.tag,
    feature,
  });

function findings(m: MilledEdge, c: CheckContext): Finding[] {
  const { edge, operation } = m;
  const find = findAt(m, edge.feature);
  const out: Finding[] = [];
  let [wide, narrow] = [
    { by: 0, line: 0 },
    { by: 0, line: 0 },
  ];
  let uncut = 0;
  m.places.forEach(({ along }, i) => {
    const off = (m.reach[i] ?? -Infinity) - edge.inset;
    const line = m.lines[i] ?? 0;
    if (off > wide.by) wide = { by: off, line };
    const isLeft = edge.left.some(([from, to]) => along >= from - BESIDE_LEFT && along <= to + BESIDE_LEFT);
    if (isLeft) return;
    if (off === -Infinity) uncut++;
    else if (-off > narrow.by) narrow = { by: -off, line };
  });
  const say = (by: number): string => c.say(Math.abs(by));
  if (wide.by > WIDTH_TOLERANCE)
    out.push(
      find(
        'edge-too-wide',
        'error',
        wide.line,
        edge.inset > 0
          ? `breaks the edge ${say(edge.inset + wide.by)} wide; ${say(edge.inset)} is wanted. Check depth and distance.`
          : `cuts ${say(wide.by)} into the face above the edge. Check depth and distance.`,
      ),
    );
  if (narrow.by > WIDTH_TOLERANCE)
    out.push(
      find(
        'edge-too-narrow',
        'error',
        narrow.line,
        edge.inset === 0
          ? `stays ${say(narrow.by)} away from the edge that it is to leave. Check depth and distance.`
          : narrow.by >= edge.inset - 1e-3
            ? `does not touch the edge there: it stays sharp, and ${say(edge.inset)} is wanted. Check depth and distance.`
            : `breaks the edge only ${say(edge.inset - narrow.by)} wide; ${say(edge.inset)} is wanted. Check depth and distance.`,
      ),
    );
  const whole = m.places.at(-1)?.along ?? 0;
  const length = (uncut / Math.max(1, m.places.length)) * whole;
  if (length > LEAST_LENGTH)
    out.push(
      find(
        'edge-not-cut',
        'error',
        Math.min(...m.lines.filter((l) => l > 0)),
        `does not come by ${say(length)} of its ${say(whole)}. Check where it begins and ends.`,
      ),
    );
  return [...out, ...speedFindings(m, [operation], Math.min(...m.lines.filter((l) => l > 0)), find)];
}

/** How far a ball passed by an edge that rises and falls, against how far it is to. */
function riseFindings(m: MilledRise, c: CheckContext): Finding[] {
  const { rise, operation } = m;
  const find = findAt(m, rise.feature);
  const at = (i: number): number => m.lines[i] ?? 0;
  const near = m.off.reduce((worst, v, i) => (v < (m.off[worst] ?? 0) ? i : worst), 0);
  const far = m.off.reduce((worst, v, i) => (v > (m.off[worst] ?? 0) ? i : worst), 0);
  const [nearest, farthest] = [m.off[near] ?? 0, m.off[far] ?? 0];
  return [
    ...(nearest < -WIDTH_TOLERANCE
      ? [
          find(
            'edge-too-wide',
            'error',
            at(near),
            `comes ${c.say(-nearest)} too near to the edge. Check its way.`,
          ),
        ]
      : []),
    ...(farthest === Infinity
      ? [
          find(
            'edge-not-cut',
            'error',
            Math.max(...m.lines),
            'does not come by all of it. Check where it begins and ends.',
          ),
        ]
      : farthest > WIDTH_TOLERANCE
        ? [
            find(
              'edge-too-narrow',
              'error',
              at(far),
              `stays ${c.say(farthest)} too far from the edge. Check its way.`,
            ),
          ]
        : []),
    ...speedFindings(m, [operation], Math.max(...m.lines), find),
  ];
}
