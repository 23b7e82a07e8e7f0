import { at } from '../../lists.ts';
import type { Component, Rim } from './components.ts';
import { round } from '../round.ts';
import { RADIUS_TOLERANCE, type Piece } from './pieces.ts';
import type { HoleBottom, StackStep } from './schema.ts';

/** One step along the axis as seen from the entry: `top` and `end` are depths below the entry's highest point, mm. */
export interface Step {
  kind: 'cylinder' | 'cone' | 'torus' | 'sphere';
  top: number;
  end: number;
  radiusTop: number;
  radiusEnd: number;
  faces: number[];
}

const FLAT = 2.5e-3;

/** The steps of a component from the entry down. `sign` is +1 when the entry is at the high end of the axis line. */
export function stepsFrom(c: Component, sign: 1 | -1, entry: number): Step[] {
  const depth = (t: number): number => sign * (entry - t);
  const steps = c.pieces.map((p) => toStep(p, sign, depth));
  steps.sort((a, b) => a.top + a.end - b.top - b.end);
  return joinAcross(mergeSame(steps));
}

/** Lengths of one bore with nothing but another cavity's gap between them are one cylinder. */
function joinAcross(steps: Step[]): Step[] {
  const out: Step[] = [];
  for (const s of steps) {
    const last = out[out.length - 1];
    const isOne =
      last?.kind === 'cylinder' &&
      s.kind === 'cylinder' &&
      Math.abs(last.radiusEnd - s.radiusTop) < RADIUS_TOLERANCE;
    if (!isOne) {
      out.push(s);
      continue;
    }
    last.end = Math.max(last.end, s.end);
    last.faces.push(...s.faces);
  }
  return out;
}

function toStep(p: Piece, sign: 1 | -1, depth: (t: number) => number): Step {
  const [top, end, radiusTop, radiusEnd] =
    sign > 0
      ? [depth(p.high), depth(p.low), p.radiusHigh, p.radiusLow]
      : [depth(p.low), depth(p.high), p.radiusLow, p.radiusHigh];
  return { kind: p.kind, top, end, radiusTop, radiusEnd, faces: [p.face] };
}

/** Joins pieces of one surface: halves, quarters, and the parts on both sides of a crossing cavity. */
function mergeSame(steps: Step[]): Step[] {
  const out: Step[] = [];
  for (const s of steps) {
    const mate = out.find((o) => sameSurface(o, s));
    if (!mate) {
      out.push({ ...s, faces: [...s.faces] });
      continue;
    }
    if (s.top < mate.top) [mate.top, mate.radiusTop] = [s.top, s.radiusTop];
    if (s.end > mate.end) [mate.end, mate.radiusEnd] = [s.end, s.radiusEnd];
    mate.faces.push(...s.faces);
  }
  return out.sort((a, b) => a.top + a.end - b.top - b.end);
}

function sameSurface(a: Step, b: Step): boolean {
  if (a.kind !== b.kind) return false;
  const touch = Math.min(a.end, b.end) - Math.max(a.top, b.top) > -5e-3;
  if (a.kind === 'cylinder') return Math.abs(a.radiusTop - b.radiusTop) < RADIUS_TOLERANCE && touch;
  const slope = (s: Step) => (s.radiusEnd - s.radiusTop) / (s.end - s.top || 1);
  const expected = a.radiusTop + slope(a) * (b.top - a.top);
  return touch && Math.abs(slope(a) - slope(b)) < 2e-3 && Math.abs(expected - b.radiusTop) < 5e-3;
}

/** A wider ring between two narrower lengths of a hole, square on both sides. Depths below the entry and radii, mm. */
export interface Undercut {
  top: number;
  end: number;
  boreRadius: number;
  grooveRadius: number;
  faces: number[];
}

/**
 * Takes the ring undercuts out of a hole's steps: the bore that is cut is one cylinder over its whole length. `endsInFloor`: the last
 * step stands on a flat floor, so that a ring there (a thread relief) is an undercut too.
 */
export function takeUndercuts(steps: Step[], endsInFloor: boolean): { steps: Step[]; undercuts: Undercut[] } {
  const undercuts: Undercut[] = [];
  let out = [...steps];
  for (let i = 0; i + 1 < out.length; i++) {
    const bore = at(out, i);
    if (bore.kind !== 'cylinder') continue;
    const limit = bore.radiusEnd + RADIUS_TOLERANCE;
    let k = i + 1;
    while (
      k < out.length &&
      Math.max(at(out, k).radiusTop, at(out, k).radiusEnd) > limit &&
      at(out, k).radiusEnd > bore.radiusEnd - RADIUS_TOLERANCE
    )
      k++;
    const ring = out.slice(i + 1, k);
    const wide = ring.filter((s) => s.kind === 'cylinder');
    const next = out[k];
    if (wide.length === 0 || (next ? next.kind !== 'cylinder' && next.kind !== 'cone' : !endsInFloor))
      continue;
    const widest = wide.reduce((m, s) => (s.radiusTop > m.radiusTop ? s : m));
    if (next && next.radiusTop > widest.radiusTop - RADIUS_TOLERANCE) continue;
    const below = ring.slice(ring.indexOf(widest) + 1);
    if (below.some((s) => s.kind === 'cylinder')) continue;
    const sides = ring.filter((s) => s.kind === 'torus' || s === widest);
    undercuts.push({
      top: Math.min(...sides.map((s) => s.top)),
      end: Math.max(...sides.map((s) => s.end)),
      boreRadius: bore.radiusEnd,
      grooveRadius: widest.radiusTop,
      faces: ring.flatMap((s) => s.faces),
    });
    const end = ring.reduce((m, s) => Math.max(m, s.end), bore.end);
    const isSame = next?.kind === 'cylinder' && Math.abs(next.radiusTop - bore.radiusEnd) < RADIUS_TOLERANCE;
    const merged: Step = {
      ...bore,
      end: isSame ? next.end : end,
      faces: [...bore.faces, ...ring.flatMap((s) => s.faces), ...(isSame ? next.faces : [])],
    };
    out = [...out.slice(0, i), merged, ...out.slice(isSame ? k + 1 : k)];
    i--;
  }
  return { steps: out, undercuts };
}

export interface ReadStack {
  stack: StackStep[];
  bottom: HoleBottom;
  /** Entry to the end of full diameter (blind) or to the exit (through), mm. */
  depth: number;
}

/**
 * Steps as the public stack, with the bottom taken off its end. `far` is the round rim at the far end, if any; `closed` what closes it: an
 * end that is not understood is said to be unknown, never taken for flat. A drill point counts also where another cavity has cut most of it.
 */
export function readStack(steps: Step[], far: Rim | null, farDepth: number, closed: HoleBottom): ReadStack {
  const rest = [...steps];
  const isOpen = far !== null && far.concaveShare <= 0.5 && closed.shape !== 'cone';
  let bottom: HoleBottom = isOpen ? { shape: 'open' } : closed;
  const last = at(rest, rest.length - 1);
  if (rest.length > 1 && bottom.shape !== 'open' && last.kind === 'torus') rest.pop();
  else if (last.kind === 'sphere' && far === null) {
    bottom = { shape: 'ball' };
    rest.pop();
  } else if (rest.length > 1 && last.kind === 'cone' && last.radiusEnd < 0.01 + 0.02 * last.radiusTop) {
    bottom = { shape: 'cone', angle: coneAngle(last) };
    rest.pop();
  } else if (rest.length > 1 && isPiercedPoint(last, far)) {
    bottom = { shape: 'cone', angle: coneAngle(last) };
    rest.pop();
  }
  const stack: StackStep[] = [];
  let radius: number | null = null;
  for (const s of rest) {
    if (s.kind === 'torus' || s.kind === 'sphere') continue;
    if (radius !== null && Math.abs(radius - s.radiusTop) > FLAT) {
      stack.push({ shape: 'flat', startDiameter: round(2 * radius), endDiameter: round(2 * s.radiusTop) });
    }
    const length = round(s.end - s.top);
    if (s.kind === 'cylinder') stack.push({ shape: 'cylinder', diameter: round(2 * s.radiusTop), length });
    else
      stack.push({
        shape: 'cone',
        startDiameter: round(2 * s.radiusTop),
        endDiameter: round(2 * s.radiusEnd),
        angle: coneAngle(s),
        length,
      });
    radius = s.radiusEnd;
  }
  const end = Math.max(...rest.map((s) => s.end));
  return { stack, bottom, depth: round(bottom.shape === 'open' ? Math.max(end, farDepth) : end) };
}

/** A drill point that another cavity cuts off: it narrows, and its end is no flat circle as a nozzle's would be. */
function isPiercedPoint(s: Step, far: Rim | null): boolean {
  return s.kind === 'cone' && s.radiusEnd < s.radiusTop && far !== null && !far.level && coneAngle(s) >= 60;
}

/** Included angle, degrees. */
const coneAngle = (s: Step): number =>
  round((360 / Math.PI) * Math.atan(Math.abs(s.radiusTop - s.radiusEnd) / (s.end - s.top)));
