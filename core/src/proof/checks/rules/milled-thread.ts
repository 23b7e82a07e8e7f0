import { leadOf, startsOf, type Thread } from '../../../threads/thread.ts';
import { firstTooth } from '../../../tools/kinds/thread-mill.ts';
import {
  angleAt,
  cutTurns,
  outOfStep,
  startNumber,
  type CutTurns,
  type ThreadPlace,
} from '../../threads/milled-thread.ts';
import { threadPlaces } from '../../threads/places.ts';
import { DEPTH_TOLERANCE, toolName, type CheckContext, type CheckRule, type Finding } from '../check.ts';
import { speedFindings, type Find } from './milled.ts';

/** How far a thread's width may be from the planned one, and a turn's way from the lead, mm: code is rounded, in inches to 0.0025 mm. */
const WIDTH_TOLERANCE = 0.01;
const LEAD_TOLERANCE = { mm: 0.003, inch: 0.006 };
/** How far along the axis two turns may be out of step with each other, mm. */
const STEP_TOLERANCE = 0.012;
/** A timed thread begins within this of its angle, degrees. */
const ANGLE_TOLERANCE = 1;

/** What threads a cutter went round in, as read from the text: width, lead, hand, starts, depth and top, against thread, print and plan. */
export const milledThread: CheckRule = {
  rule: 'milled-thread',
  run: (c) => threadPlaces(c).flatMap((place) => findings(place, c)),
};

const findIn =
  ({ label, tag, feature, tool }: ThreadPlace): Find =>
  (rule, severity, line, what) => ({
    rule,
    severity,
    message: `${label}: ${toolName(tool)} ${what}`,
    line,
    tag,
    feature,
  });

function findings(place: ThreadPlace, c: CheckContext): Finding[] {
  const { thread, turns, planned } = place;
  const find = findIn(place);
  const [some] = turns;
  if (!some)
    return planned.length === 0
      ? []
      : [
          find(
            'thread-missing',
            'error',
            place.line,
            'is planned to mill a thread here and goes round nowhere. Write its turns, or leave it out.',
          ),
        ];
  const line = some.places[0]?.line ?? 0;
  if (!thread)
    return [
      find(
        'thread-unplanned',
        'error',
        line,
        'cuts a thread, and none is confirmed here. Confirm it from the print, or take it out.',
      ),
    ];
  const cut = cutTurns(place, thread);
  const deepest = cut.reduce((a, b) => (b.most.off > a.most.off ? b : a));
  const wall = cut.filter((t) => deepest.most.off - t.most.off <= WIDTH_TOLERANCE);
  const feed = Math.max(...turns.map((t) => t.feed));
  const speed = Math.max(...turns.map((t) => t.speed));
  const wrongLead = leadFindings(place, cut, thread, c, find);
  return [
    ...sizeFindings(place, deepest, c, find),
    ...wrongLead,
    // What goes another way along the axis has no step to be in.
    ...(wrongLead.length > 0 ? [] : stepFindings(place, cut, wall, thread, c, find)),
    ...depthFindings(place, wall, thread, c, find),
    ...speedFindings({ feed, speed }, planned, deepest.most.line, find),
  ];
}

/** Wider or narrower than wanted, at the place where it is most. */
function sizeFindings(
  { side }: ThreadPlace,
  { most, least }: CutTurns,
  c: CheckContext,
  find: Find,
): Finding[] {
  const worst = most.off > WIDTH_TOLERANCE ? most : least;
  if (Math.abs(worst.off) <= WIDTH_TOLERANCE) return [];
  const isWide = worst.diameter > worst.wanted;
  const by = c.say(Math.abs(worst.off));
  return [
    find(
      'thread-size',
      'error',
      worst.line,
      `cuts the thread ${by} ${isWide ? 'too wide' : 'too narrow'} on diameter: \u2300${c.say(worst.diameter)}${side === 'inside' ? '' : ' at its root'}, and \u2300${c.say(worst.wanted)} is wanted. Lead its centre ${c.say(Math.abs(worst.off) / 2)} ${isWide ? 'less' : 'farther'} out.`,
    ),
  ];
}

/** Along the axis by the lead in each turn, everywhere in step, and up or down by the thread's hand. */
function leadFindings(
  { tool }: ThreadPlace,
  turns: readonly CutTurns[],
  thread: Thread,
  c: CheckContext,
  find: Find,
): Finding[] {
  const lead = leadOf(thread);
  for (const { places } of turns)
    for (const [i, q] of places.entries()) {
      const p = places[i - 1];
      if (!p) continue;
      const share = Math.abs(q.angle - p.angle) / (2 * Math.PI);
      const way = Math.abs(q.z - p.z);
      if (Math.abs(way - lead * share) <= LEAD_TOLERANCE[c.units] * Math.max(1, share)) continue;
      const tip = p.z + (q.z < p.z ? -1 : 1) * lead * share - firstTooth(tool);
      return [
        find(
          'thread-lead',
          'error',
          q.line,
          `goes ${c.say(way / share)} along the axis in a turn; ${thread.designation}${startsOf(thread) > 1 ? ` with ${startsOf(thread)} starts` : ''} has ${c.say(lead)}. Write ${c.word('Z', tip)} there.`,
        ),
      ];
    }
  const turned = turns.find((t) => {
    const [p, q] = [t.places[0], t.places.at(-1)];
    return p && q && (q.z > p.z !== t.clockwise) !== (thread.hand === 'right');
  });
  if (!turned) return [];
  const isUp = (turned.places.at(-1)?.z ?? 0) > (turned.places[0]?.z ?? 0);
  return [
    find(
      'thread-hand',
      'error',
      turned.most.line,
      `goes ${turned.clockwise ? 'clockwise' : 'counter-clockwise'} and ${isUp ? 'up' : 'down'}: that cuts a ${thread.hand === 'right' ? 'left' : 'right'}-hand thread. ${thread.hand === 'right' ? 'Right' : 'Left'} hand goes ${turned.clockwise === (thread.hand === 'right') ? 'down' : 'up'} that way round.`,
    ),
  ];
}

/** All turns in one another's grooves, each start cut, and begun where it is to begin. */
function stepFindings(
  place: ThreadPlace,
  cut: readonly CutTurns[],
  wall: readonly CutTurns[],
  thread: Thread,
  c: CheckContext,
  find: Find,
): Finding[] {
  const [reference] = wall;
  if (!reference) return [];
  const astray = cut.find(
    (t) => Math.abs(outOfStep(t.phase, reference.phase, thread.pitch)) > STEP_TOLERANCE,
  );
  if (astray)
    return [
      find(
        'thread-step',
        'error',
        astray.most.line,
        `runs ${c.say(Math.abs(outOfStep(astray.phase, reference.phase, thread.pitch)))} beside the groove of its other turns, and cuts the flanks away. Begin it a whole number of pitches from them, at the same angle.`,
      ),
    ];
  const n = startsOf(thread);
  const rows = place.tool.threadForm?.rows ?? 1;
  const made = new Set(
    wall.flatMap((t) =>
      Array.from({ length: rows }, (_, k) =>
        startNumber(t.phase + k * thread.pitch, reference.phase, thread),
      ),
    ),
  );
  if (made.size < n)
    return [
      find(
        'thread-starts',
        'error',
        reference.most.line,
        `cuts ${made.size} of the thread's ${n} starts. Begin the others ${Math.round(360 / n)}\u00b0 farther round at the same Z.`,
      ),
    ];
  return angleFindings(place, reference, thread, find);
}

/** A thread that is told where to begin begins there. */
function angleFindings(
  { planned, startZ }: ThreadPlace,
  { phase, most }: CutTurns,
  thread: Thread,
  find: Find,
): Finding[] {
  const said = planned.flatMap((o) =>
    o.parameters.filter((p) => p.key === 'startAngle' && p.source === 'typed').map((p) => p.value),
  )[0];
  if (typeof said !== 'number') return [];
  const is = angleAt(phase, startZ, thread);
  const off = outOfStep(is, said, 360 / startsOf(thread));
  if (Math.abs(off) <= ANGLE_TOLERANCE) return [];
  return [
    find(
      'thread-angle',
      'error',
      most.line,
      `lets the thread begin at ${Math.round(is)}\u00b0; ${said}\u00b0 is wanted. Turn it back by ${Math.round(off)}\u00b0.`,
    ),
  ];
}

/** A stretch of groove that a row of teeth passes. */
interface Stretch {
  line: number;
  low: number;
  high: number;
}

/** As deep as print or plan want full thread, no less than to the top, and no part of any start left out between two bands. */
function depthFindings(
  place: ThreadPlace,
  wall: readonly CutTurns[],
  thread: Thread,
  c: CheckContext,
  find: Find,
): Finding[] {
  const { tool, startZ } = place;
  const rows = tool.threadForm?.rows ?? 1;
  const [reference] = wall;
  if (!reference) return [];
  const starts = new Map<number, Stretch[]>();
  for (const { places, phase, most } of wall)
    for (let k = 0; k < rows; k++) {
      const start = startNumber(phase + k * thread.pitch, reference.phase, thread);
      const zs = places.map((p) => p.z + k * thread.pitch);
      const stretch = { line: most.line, low: Math.min(...zs), high: Math.max(...zs) };
      starts.set(start, [...(starts.get(start) ?? []), stretch]);
    }
  const all = [...starts.values()].map((s) => s.sort((a, b) => a.low - b.low));
  // The start that goes least deep tells how deep the thread is.
  const lowest = all.flatMap((s) => s.slice(0, 1)).reduce((a, b) => (b.low > a.low ? b : a));
  const wanted = wantedDepth(place);
  const full = startZ - lowest.low;
  const out: Finding[] = [];
  if (wanted !== undefined && wanted - full > DEPTH_TOLERANCE)
    out.push(
      find(
        'thread-short',
        'error',
        lowest.line,
        `cuts ${c.say(Math.max(0, full))} of full thread; ${place.printed === undefined ? '' : 'the print asks for '}${c.say(wanted)}${place.printed === undefined ? ' is planned' : ''}. Begin ${c.say(wanted - full)} lower.`,
      ),
    );
  const gap = all.map((s) => reachedBy(s, startZ)).reduce((a, b) => (b.high < a.high ? b : a));
  if (gap.high < startZ - DEPTH_TOLERANCE)
    out.push(
      find(
        'thread-gap',
        'error',
        gap.line,
        `leaves the thread uncut above Z ${c.say(gap.high)}; it begins at Z ${c.say(startZ)}. Go on ${c.say(startZ - gap.high)} farther along the axis.`,
      ),
    );
  return out;
}

/** How far up stretches hang together, from the lowest on. */
function reachedBy(stretches: readonly Stretch[], top: number): Stretch {
  const [lowest] = stretches;
  if (!lowest) throw new RangeError('no groove');
  let reached = lowest;
  for (const s of stretches) {
    if (s.low > reached.high + DEPTH_TOLERANCE && reached.high < top) break;
    if (s.high > reached.high) reached = s;
  }
  return reached;
}

/** Depth of full thread that the print asks for, else the planned one: of a hole that is deeper than the first as much more. */
function wantedDepth({ printed, planned, label }: ThreadPlace): number | undefined {
  if (printed !== undefined) return printed;
  for (const { parameters, work } of planned) {
    const said = parameters.find((p) => p.key === 'threadDepth')?.value;
    const [one, own] = [work[0], work.find((w) => w.label === label)];
    if (typeof said === 'number' && one && own) return said + own.entryZ - own.z - (one.entryZ - one.z);
  }
  return undefined;
}
