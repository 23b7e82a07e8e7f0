import { distance } from '../../geometry/vec.ts';
import { first, last as lastOf } from '../../lists.ts';
import type { Motion } from '../../code/read/motion.ts';

/** Ends of an arc that goes along a wall are as far from its axis, but for a taper and rounding, mm. */
const ALONG = 0.05;
/** The same of a line; beyond that, chords of a way in leave the wall by 0.01 mm. A taper takes 1/32 of the way along the axis. */
const CHORD_ALONG = 0.006;
const STEEPEST = 1.1 / 32;
/** Where one motion ends and the next begins, mm. */
const SAME_PLACE = 0.01;
/** A little less than a whole turn counts as one. */
const WHOLE = 0.93;
/** Chords of one circle are as long as each other but for rounding and its ends; those of a way in are a third shorter. */
const SAME_CHORD = 0.15;

/** A place of the cutter's middle, seen from an axis: angle in radians from X, counted on from turn to turn; lengths in mm. */
export interface TurnPlace {
  line: number;
  angle: number;
  z: number;
  radius: number;
  /** Reached by a straight move. */
  isChord: boolean;
}

/** Motions that go round an axis without a break, once or more. */
export interface Turns {
  /** From where it begins to where it ends. */
  places: TurnPlace[];
  clockwise: boolean;
  /** Fastest feed, mm/min, and highest speed, rpm. */
  feed: number;
  speed: number;
}

type Known = [number, number, number];

const isKnown = (p: Motion['to']): p is readonly [number, number, number] => p.every((v) => v !== null);

/** How far a motion goes round an axis, radians, counter-clockwise positive; 0 for one that does not go round. */
function sweep(m: Motion, from: Known, to: Known, x: number, y: number): number {
  const turn = Math.atan2(to[1] - y, to[0] - x) - Math.atan2(from[1] - y, from[0] - x);
  const whole = 2 * Math.PI;
  if (m.kind !== 'arc') return turn - whole * Math.round(turn / whole);
  const sense = m.clockwise ? -1 : 1;
  const part = sense * turn - whole * Math.floor((sense * turn) / whole + 1e-7);
  const turns = m.turns ?? 0;
  // A whole circle says one turn and no part of another.
  return sense * (part < 1e-4 ? whole * Math.max(1, turns) : part + whole * turns);
}

/** Chords by which it is judged how long those of the wall are. */
const LOOKED_AT = 7;

/** The last chords of a way in run nearly along the wall, and the first of a way out: they are as long as those of their own arc. */
function withoutLeads(run: readonly TurnPlace[]): TurnPlace[] {
  const chord = (i: number): number | null => {
    const [p, q] = [run[i], run[i + 1]];
    return p && q?.isChord ? Math.abs(q.angle - p.angle) : null;
  };
  /** Whether the chord from `i` on is of another arc than those that follow it inward. */
  const isLead = (i: number, inward: 1 | -1): boolean => {
    const own = chord(i);
    const next = Array.from({ length: LOOKED_AT }, (_, k) => chord(i + inward * (k + 1)));
    const known = next.filter((v) => v !== null).sort((a, b) => a - b);
    const usual = known[Math.floor(known.length / 2)];
    return own !== null && usual !== undefined && Math.abs(own - usual) > SAME_CHORD * usual;
  };
  let [begin, end] = [0, run.length - 1];
  while (begin < end && isLead(begin, 1)) begin++;
  while (end > begin && isLead(end - 1, -1)) end--;
  return run.slice(begin, end + 1);
}

/** The turns round an axis that motions make: arcs, helices, pieces of a spiral or chords, each run of them one. */
export function turnsAbout(
  motions: readonly Motion[],
  { x, y, isTapered }: { x: number; y: number; isTapered: boolean },
): Turns[] {
  const out: Turns[] = [];
  let run: TurnPlace[] = [];
  let most = { feed: 0, speed: 0 };
  let sense = 0;
  let end: Known | null = null;
  const close = (): void => {
    run = withoutLeads(run);
    if (run.length > 1) {
      const around = lastOf(run).angle - first(run).angle;
      if (Math.abs(around) >= 2 * Math.PI * WHOLE) out.push({ places: run, clockwise: around < 0, ...most });
    }
    run = [];
  };
  for (const m of motions) {
    if (!isKnown(m.from) || !isKnown(m.to)) continue;
    const [from, to]: [Known, Known] = [[...m.from], [...m.to]];
    const [r0, r1] = [Math.hypot(from[0] - x, from[1] - y), Math.hypot(to[0] - x, to[1] - y)];
    const along =
      m.kind === 'arc' ? ALONG : CHORD_ALONG + (isTapered ? STEEPEST * Math.abs(to[2] - from[2]) : 0);
    // Both ends of a whole circle are as far from any axis: its own has to be that one.
    const isAbout = !m.centre || Math.hypot(m.centre[0] - x, m.centre[1] - y) <= along;
    const isAlong = isAbout && Math.min(r0, r1) > SAME_PLACE && Math.abs(r0 - r1) <= along;
    const around = isAlong ? sweep(m, from, to, x, y) : 0;
    if (around === 0) {
      close();
      end = null;
      continue;
    }
    const joins = end !== null && distance(from, end) <= SAME_PLACE;
    if (!joins || Math.sign(around) !== sense) {
      close();
      const angle = Math.atan2(from[1] - y, from[0] - x);
      run = [{ line: m.line, angle, z: from[2], radius: r0, isChord: false }];
      most = { feed: 0, speed: 0 };
    }
    sense = Math.sign(around);
    most = { feed: Math.max(most.feed, m.feed), speed: Math.max(most.speed, m.speed) };
    run.push({
      line: m.line,
      angle: lastOf(run).angle + around,
      z: to[2],
      radius: r1,
      isChord: m.kind !== 'arc',
    });
    end = to;
  }
  close();
  return out;
}
