import { at, known } from '../../lists.ts';
import type { Motion } from './motion.ts';
import type { Problems } from './problems.ts';

/** Cutter compensation that is in force while a motion runs. */
export interface Compensation {
  side: 'left' | 'right';
  /** Number of the offset that holds the radius. */
  d: number;
}

type P2 = readonly [number, number];

/** A programmed move as its offset path: a line, or an arc round a centre. */
interface Shifted {
  from: P2;
  to: P2;
  /** Directions of travel at both ends, unit. */
  start: P2;
  end: P2;
  arc: { centre: P2; radius: number; clockwise: boolean } | null;
  motion: Motion;
}

/** Ends nearer than this are one, mm. */
const SAME = 1e-6;
/** Shifted ends that rounding alone keeps apart, mm: in inches each is written to 0.0025. */
const SMOOTH = 0.006;
/** The same of a corner that is none, radians: at its middle the cutter is off by its radius × this² / 8. */
const SMOOTH_TURN = 0.01;

/**
 * The way of the cutter's middle where the control compensates for its radius (G41 left, G42 right of the contour, D): moves are shifted by
 * the radius; outer corners are gone round on an arc, inner ones cut short where the shifted moves meet. It is switched on and off in
 * straight moves. What cannot be followed is a problem with its line, and that stretch stays as it is written.
 */
export function compensated(
  motions: readonly Motion[],
  radiusOf: (d: number) => number | null,
  problems: Problems,
): Motion[] {
  if (!motions.some((m) => m.compensation)) return [...motions];
  const out: Motion[] = [];
  for (let n = 0; n < motions.length;) {
    const m = at(motions, n);
    if (!m.compensation) {
      out.push(m);
      n++;
      continue;
    }
    let end = n;
    while (end < motions.length && motions[end]?.compensation?.side === m.compensation.side) end++;
    const off = motions[end];
    if (off?.compensation)
      problems.add(
        off.line,
        'error',
        'compensation',
        'compensation changes sides without G40 between them: where the cutter goes differs from control to control.',
      );
    out.push(...stretch(motions.slice(n, end), off ?? null, radiusOf, problems));
    const last = at(out, out.length - 1).to;
    // Beside the contour it stays until a straight move in the plane leads away from it.
    for (; end < motions.length; end++) {
      const next = at(motions, end);
      if (next.compensation || next.kind === 'arc') break;
      const isAlong = next.from[0] !== next.to[0] || next.from[1] !== next.to[1];
      if (isAlong) {
        out.push({ ...next, from: [last[0], last[1], next.from[2]] });
        end++;
        break;
      }
      out.push({ ...next, from: [last[0], last[1], next.from[2]], to: [last[0], last[1], next.to[2]] });
    }
    n = end;
  }
  return out;
}

function stretch(
  motions: readonly Motion[],
  off: Motion | null,
  radiusOf: (d: number) => number | null,
  problems: Problems,
): Motion[] {
  const first = at(motions, 0);
  const { side, d } = known(first.compensation, 'the compensation');
  const fail = (m: Motion, text: string): Motion[] => {
    problems.add(m.line, 'error', 'compensation', text, text);
    return [...motions];
  };
  const radius = radiusOf(d);
  if (radius === null)
    return fail(
      first,
      `${side === 'left' ? 'G41' : 'G42'} with D${d}: the radius that it holds is not known here.`,
    );
  if (first.kind === 'arc')
    return fail(
      first,
      'compensation is switched on in an arc. Switch it on in a straight move of at least the cutter’s radius.',
    );
  if (off?.kind === 'arc' && !off.compensation)
    return fail(off, 'compensation is switched off in an arc. Write a straight move with G40 after it.');
  const flat = motions.filter((m) => m.kind !== 'dwell' && hasPlace(m) && length(m) > SAME);
  if (flat.length === 0) return [...motions];
  if (length(at(flat, 0)) < radius - 1e-3)
    problems.add(
      at(flat, 0).line,
      'warning',
      'compensation',
      `the move that switches compensation on is ${length(at(flat, 0)).toFixed(3)} mm long, less than the radius of ${radius.toFixed(3)} mm.`,
    );
  const sign = side === 'left' ? 1 : -1;
  const shifted = flat.slice(1).map((m) => shift(m, sign * radius));
  const broken = shifted.findIndex((s) => s === null);
  if (broken >= 0)
    return fail(
      at(flat, broken + 1),
      `an inside arc is no larger than the cutter’s radius of ${radius.toFixed(3)} mm.`,
    );
  const path = shifted.filter((s): s is Shifted => s !== null);
  const corners: Motion[][] = path.map(() => []);
  for (let k = 0; k + 1 < path.length; k++) {
    const fault = corner(path, k, corners, sign, radius);
    if (fault) return fail(at(path, k + 1).motion, fault);
  }
  return joined(motions, flat, path, corners, radius, sign);
}

/** The moves with their new ends, in the order of the text; heights stay as they are written. */
function joined(
  motions: readonly Motion[],
  flat: readonly Motion[],
  path: readonly Shifted[],
  corners: readonly Motion[][],
  radius: number,
  sign: number,
): Motion[] {
  const out: Motion[] = [];
  const begin = at(motions, 0).from;
  let here: P2 = [begin[0] ?? 0, begin[1] ?? 0];
  for (const m of motions) {
    const n = flat.indexOf(m);
    if (n < 0) {
      out.push({ ...m, from: [here[0], here[1], m.from[2]], to: [here[0], here[1], m.to[2]] });
      continue;
    }
    const next = path[n === 0 ? 0 : n - 1];
    const to: P2 = n === 0 ? (next ? next.from : lone(m, sign * radius)) : at(path, n - 1).to;
    const shifted = n === 0 ? null : at(path, n - 1);
    out.push({
      ...m,
      from: [here[0], here[1], m.from[2]],
      to: [to[0], to[1], m.to[2]],
      ...(shifted?.arc
        ? {
            centre: [shifted.arc.centre[0], shifted.arc.centre[1], m.from[2] ?? 0] as const,
            turns: turnsOf(m, shifted),
          }
        : {}),
    });
    here = to;
    for (const c of n === 0 ? [] : at(corners, n - 1)) {
      out.push(c);
      here = [c.to[0] ?? here[0], c.to[1] ?? here[1]];
    }
  }
  return out;
}

/** Whole turns of an arc beside its part of one: a full circle whose ends were moved apart may lack a little of its last. */
function turnsOf(m: Motion, { arc, from, to }: Shifted): number | undefined {
  const isFull = m.from[0] === m.to[0] && m.from[1] === m.to[1];
  if (!arc || !isFull || !m.turns) return m.turns;
  const angle = (p: P2): number => Math.atan2(p[1] - arc.centre[1], p[0] - arc.centre[0]);
  const on = (arc.clockwise ? -1 : 1) * (angle(to) - angle(from));
  const part = on - 2 * Math.PI * Math.floor(on / (2 * Math.PI));
  return part > Math.PI ? m.turns - 1 : m.turns;
}

/** Where a lone move that switches compensation on ends: square to itself. */
function lone(m: Motion, by: number): P2 {
  const [x0, y0] = m.from as [number, number, number];
  const [x1, y1] = m.to as [number, number, number];
  const l = Math.hypot(x1 - x0, y1 - y0);
  return [x1 - (by * (y1 - y0)) / l, y1 + (by * (x1 - x0)) / l];
}

/** A move shifted to its left by `by` (to its right where that is negative); null where an arc has no room for it. */
function shift(m: Motion, by: number): Shifted | null {
  const from: P2 = [m.from[0] ?? 0, m.from[1] ?? 0];
  const to: P2 = [m.to[0] ?? 0, m.to[1] ?? 0];
  if (m.kind !== 'arc' || !m.centre) {
    const l = Math.hypot(to[0] - from[0], to[1] - from[1]);
    const t: P2 = [(to[0] - from[0]) / l, (to[1] - from[1]) / l];
    return { from: aside(from, t, by), to: aside(to, t, by), start: t, end: t, arc: null, motion: m };
  }
  const centre: P2 = [m.centre[0], m.centre[1]];
  const turn = m.clockwise ? -1 : 1;
  const radius = Math.hypot(from[0] - centre[0], from[1] - centre[1]);
  // To the left of a counter-clockwise arc lies its centre.
  const fresh = radius - turn * by;
  if (fresh <= SAME) return null;
  const tangent = (p: P2): P2 => [
    (-turn * (p[1] - centre[1])) / radius,
    (turn * (p[0] - centre[0])) / radius,
  ];
  const [start, end] = [tangent(from), tangent(to)];
  return {
    from: aside(from, start, by),
    to: aside(to, end, by),
    start,
    end,
    arc: { centre, radius: fresh, clockwise: m.clockwise === true },
    motion: m,
  };
}

const aside = (p: P2, t: P2, by: number): P2 => [p[0] - by * t[1], p[1] + by * t[0]];

/** Joins a shifted move to the next: on an arc round an outer corner, cut short at an inner one. What stands against it, or null. */
function corner(
  path: Shifted[],
  k: number,
  corners: Motion[][],
  sign: number,
  radius: number,
): string | null {
  const [a, b] = [at(path, k), at(path, k + 1)];
  const turn = a.end[0] * b.start[1] - a.end[1] * b.start[0];
  const goesOn = a.end[0] * b.start[0] + a.end[1] * b.start[1] > 0;
  // Where one goes smoothly on into the other, only rounding lies between: circles that nearly touch would meet far away.
  const gap = away(a.to, b.from);
  if (gap < SMOOTH || (goesOn && Math.abs(turn) < SMOOTH_TURN && gap < 2 * SMOOTH_TURN * radius + SMOOTH)) {
    a.to = b.from = [(a.to[0] + b.from[0]) / 2, (a.to[1] + b.from[1]) / 2];
    return null;
  }
  const isOuter = turn * sign < 0 || (Math.abs(turn) < 1e-9 && !goesOn);
  if (isOuter) {
    const p = a.motion.to;
    at(corners, k).push({
      ...a.motion,
      kind: 'arc',
      from: [a.to[0], a.to[1], p[2]],
      to: [b.from[0], b.from[1], p[2]],
      centre: [p[0] ?? 0, p[1] ?? 0, p[2] ?? 0],
      clockwise: sign > 0,
      turns: 0,
    });
    return null;
  }
  const near = meetings(a, b)
    .filter((p) => isOn(a, p) && isOn(b, p))
    .sort((p, q) => away(p, a.to) - away(q, a.to))[0];
  if (!near)
    return `an inside corner leaves no room for the cutter’s radius of ${radius.toFixed(3)} mm: it would cut the contour.`;
  a.to = near;
  b.from = near;
  return null;
}

const away = (p: P2, q: P2): number => Math.hypot(p[0] - q[0], p[1] - q[1]);

/** Where two shifted moves meet, their lines and circles taken whole. */
function meetings(a: Shifted, b: Shifted): P2[] {
  if (!a.arc && !b.arc) {
    const det = a.end[0] * b.start[1] - a.end[1] * b.start[0];
    if (Math.abs(det) < 1e-12) return [];
    const [dx, dy] = [b.from[0] - a.from[0], b.from[1] - a.from[1]];
    const s = (dx * b.start[1] - dy * b.start[0]) / det;
    return [[a.from[0] + s * a.end[0], a.from[1] + s * a.end[1]]];
  }
  if (a.arc && b.arc) return circles(a.arc.centre, a.arc.radius, b.arc.centre, b.arc.radius);
  const arc = known(a.arc ?? b.arc, 'the arc');
  const line = a.arc ? b : a;
  const along =
    (arc.centre[0] - line.from[0]) * line.start[0] + (arc.centre[1] - line.from[1]) * line.start[1];
  const foot: P2 = [line.from[0] + along * line.start[0], line.from[1] + along * line.start[1]];
  const h = arc.radius ** 2 - away(foot, arc.centre) ** 2;
  if (h < 0) return [];
  const s = Math.sqrt(h);
  return [1, -1].map((k): P2 => [foot[0] + k * s * line.start[0], foot[1] + k * s * line.start[1]]);
}

function circles(p: P2, r: number, q: P2, s: number): P2[] {
  const d = away(p, q);
  if (d < 1e-12 || d > r + s || d < Math.abs(r - s)) return [];
  const along = (r * r - s * s + d * d) / (2 * d);
  const h = Math.sqrt(Math.max(0, r * r - along * along));
  const [ux, uy] = [(q[0] - p[0]) / d, (q[1] - p[1]) / d];
  return [1, -1].map((k): P2 => [p[0] + along * ux - k * h * uy, p[1] + along * uy + k * h * ux]);
}

/** Whether a place lies on a shifted move, its ends as they are now. */
function isOn(s: Shifted, p: P2): boolean {
  if (!s.arc) {
    const l = away(s.from, s.to);
    const along = (p[0] - s.from[0]) * s.start[0] + (p[1] - s.from[1]) * s.start[1];
    return along > -SAME && along < l + SAME;
  }
  const { centre, clockwise } = s.arc;
  const angle = (q: P2): number => Math.atan2(q[1] - centre[1], q[0] - centre[0]);
  const from = angle(s.from);
  const turned = (q: P2): number => {
    const a = clockwise ? from - angle(q) : angle(q) - from;
    return a - 2 * Math.PI * Math.floor(a / (2 * Math.PI) + 1e-9);
  };
  const whole = turned(s.to) < SAME ? 2 * Math.PI : turned(s.to);
  return turned(p) <= whole + SAME;
}

const hasPlace = (m: Motion): boolean => [m.from[0], m.from[1], m.to[0], m.to[1]].every((v) => v !== null);

/** How far a motion goes in the plane, mm; a full circle goes all the way round. */
function length(m: Motion): number {
  const chord = Math.hypot((m.to[0] ?? 0) - (m.from[0] ?? 0), (m.to[1] ?? 0) - (m.from[1] ?? 0));
  if (m.kind !== 'arc' || chord > SAME || !m.centre) return chord;
  return 2 * Math.PI * Math.hypot((m.from[0] ?? 0) - m.centre[0], (m.from[1] ?? 0) - m.centre[1]);
}
