import type { PlannedOperation } from '../../../job/row.ts';
import { MUCH_BEYOND } from '../depths/common.ts';
import type { WantedRim } from '../../../motion/work.ts';
import { toolKind } from '../../../tools/kinds/registry.ts';
import { radiusAt, toolProfile } from '../../../tools/profile.ts';
import type { MilledHole } from '../../milled.ts';
import { DEPTH_TOLERANCE, toolName, type CheckContext, type CheckRule, type Finding } from '../check.ts';

/** How far a milled diameter may be from the planned one, mm: both ends of a radius are rounded. */
const WIDTH_TOLERANCE = 0.01;
/** Shares of the planned speed and feed beyond which a number is looked at, and is a slip. */
const FAST = { look: 1.3, slip: 2 };

/** What was milled, as read from the text, against what is planned: width, depth, speed and feed. */
export const milled: CheckRule = {
  rule: 'milled-hole',
  run: (c) => c.milled.flatMap((m) => (toolKind(m.tool.kind).cutsThreads ? [] : findings(m, c))),
};

function findings(m: MilledHole, c: CheckContext): Finding[] {
  const planned = plannedIn(m, c);
  const find = findIn(m);
  const widest = m.rounds[m.rounds.length - 1];
  if (!widest) return [];
  if (planned.length === 0)
    return [
      find(
        'milled-unplanned',
        'warning',
        widest.line,
        `mills \u2300${c.say(widest.diameter)} here, and nothing of the kind is planned. Check the tool and the place.`,
      ),
    ];
  return [
    ...planned.flatMap((o) => sizeFindings(m, o, c, find)),
    ...speedFindings(m, planned, widest.line, find),
  ];
}

export type Find = (rule: string, severity: Finding['severity'], line: number, what: string) => Finding;

/** What is found of a tool in a hole: it names both. */
export const findIn =
  ({ hole: { view, row }, tool }: MilledHole): Find =>
  (rule, severity, line, what) => ({
    rule,
    severity,
    message: `${view.label}: ${toolName(tool)} ${what}`,
    line,
    tag: row.tag,
    feature: view.feature.id,
  });

/** What a tool is planned to do in a hole. */
export const plannedIn = ({ hole: { view, row }, tool }: MilledHole, c: CheckContext): PlannedOperation[] =>
  c.setup.operations.filter(
    (o) => o.tag === row.tag && o.tool.id === tool.id && o.work.some((w) => w.label === view.label),
  );

/** Whether one of the planned widths was cut, and how deep. */
function sizeFindings(m: MilledHole, o: PlannedOperation, c: CheckContext, find: Find): Finding[] {
  const own = o.work.filter((w) => w.label === m.hole.view.label);
  const rims = own.flatMap((w) => w.wanted ?? []);
  if (rims.length > 0) return rims.flatMap((rim) => rimFindings(m, rim, c, find));
  const diameter = o.parameters.find((p) => p.key === 'diameter')?.value;
  if (typeof diameter !== 'number') return [];
  const z = Math.min(...own.map((w) => w.z));
  const round = m.rounds.find((r) => Math.abs(r.diameter - diameter) <= WIDTH_TOLERANCE);
  if (!round) {
    const near = m.rounds.reduce((a, b) =>
      Math.abs(b.diameter - diameter) < Math.abs(a.diameter - diameter) ? b : a,
    );
    return [
      find(
        'milled-size',
        'error',
        near.line,
        `leaves \u2300${c.say(near.diameter)}; \u2300${c.say(diameter)} is planned. Its centre must run on \u2300${c.say(diameter - m.tool.diameter)}.`,
      ),
    ];
  }
  if (z - round.z > MUCH_BEYOND)
    return [
      find(
        'too-far-through',
        'error',
        round.line,
        `goes ${c.say(z - round.z)} deeper than planned, into what lies below. Write ${c.word('Z', z)}.`,
      ),
    ];
  return round.z - z > DEPTH_TOLERANCE
    ? [
        find(
          'milled-short',
          'error',
          round.line,
          `ends ${c.say(round.z - z)} above where it is to go. Write ${c.word('Z', z)}.`,
        ),
      ]
    : [];
}

/** How far a broken rim may be from the wanted width, mm on diameter. */
const RIM_TOLERANCE = 0.03;

/** How wide the widest round leaves a rim, by the cutter's own outline at the rim's level. */
function rimFindings(m: MilledHole, rim: WantedRim, c: CheckContext, find: Find): Finding[] {
  const profile = toolProfile(m.tool, null);
  const made = m.rounds.map((r) => ({
    ...r,
    rim: r.diameter - m.tool.diameter + 2 * radiusAt(profile, rim.z - r.z),
  }));
  const widest = made.reduce<(typeof made)[number] | null>((a, b) => (a && a.rim >= b.rim ? a : b), null);
  if (!widest || Math.abs(widest.rim - rim.diameter) <= RIM_TOLERANCE) return [];
  return [
    find(
      'rim-size',
      'error',
      widest.line,
      `leaves a rim of \u2300${c.say(widest.rim)} at Z ${c.say(rim.z)}; \u2300${c.say(rim.diameter)} is wanted. Check depth and radius.`,
    ),
  ];
}

/** Speed and feed against the planned ones. */
export function speedFindings(
  m: Pick<MilledHole, 'feed' | 'speed'>,
  planned: readonly PlannedOperation[],
  line: number,
  find: Find,
): Finding[] {
  const most = Math.max(...planned.flatMap((o) => [o.feed, ...Object.values(o.feeds ?? {})]));
  const speed = Math.max(...planned.map((o) => o.speed));
  return (
    [
      ['feed', 'is fed at F', m.feed, most],
      ['speed', 'turns at S', m.speed, speed],
    ] as const
  ).flatMap(([rule, what, is, should]) => {
    const share = is / should;
    if (!(share > FAST.look)) return [];
    return [
      find(
        rule,
        share > FAST.slip ? 'error' : 'warning',
        line,
        `${what}${Math.round(is)}, ${share.toFixed(1)} times what is planned (${Math.round(should)}).`,
      ),
    ];
  });
}
