import { arcSweep, chordStep } from '../../geometry/arc.ts';
import { at } from '../../lists.ts';

/** A plane in which arcs run: its axes in order, the one across it, and the word. Seen from that axis's high side an arc turns as its word says. */
export interface Plane {
  word: 17 | 18 | 19;
  axes: readonly [0 | 1 | 2, 0 | 1 | 2];
  across: 0 | 1 | 2;
}

export const PLANES: readonly Plane[] = [
  { word: 17, axes: [0, 1], across: 2 },
  { word: 18, axes: [2, 0], across: 1 },
  { word: 19, axes: [1, 2], across: 0 },
];

/** How far a straight piece may lie inside the arc that it stands for, mm. */
const SAGITTA = 0.001;
const MOST = 720;

/** An arc or helix in any plane as points from its start (left out) to its end, none of their chords farther than 0.001 mm inside it. */
export function arcPoints(
  { axes: [a, b], across }: Plane,
  from: readonly [number, number, number],
  to: readonly [number, number, number],
  centre: readonly [number, number],
  clockwise: boolean,
  turns: number,
): [number, number, number][] {
  const radius = Math.hypot(from[a] - centre[0], from[b] - centre[1]);
  const start = Math.atan2(from[b] - centre[1], from[a] - centre[0]);
  const end = Math.atan2(to[b] - centre[1], to[a] - centre[0]);
  const sweep = arcSweep(start, end, clockwise, turns);
  const step = Math.max(chordStep(radius, SAGITTA), 1e-3);
  const n = Math.max(1, Math.min(MOST * Math.max(1, turns), Math.ceil(Math.abs(sweep) / step)));
  return Array.from({ length: n }, (_, k): [number, number, number] => {
    if (k === n - 1) return [...to];
    const share = (k + 1) / n;
    const angle = start + sweep * share;
    const out: [number, number, number] = [0, 0, 0];
    out[a] = centre[0] + radius * Math.cos(angle);
    out[b] = centre[1] + radius * Math.sin(angle);
    out[across] = at(from, across) + share * (at(to, across) - at(from, across));
    return out;
  });
}
