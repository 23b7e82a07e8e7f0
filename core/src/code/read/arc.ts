import { at } from '../../lists.ts';
import type { Motion, Place } from './motion.ts';
import { PLANES, type Plane } from './planes.ts';

/** How far an arc's end may lie off its circle, mm. */
export const ARC_TOLERANCE = 0.005;

/** More turns in one arc than this are a slip. */
const MOST_TURNS = 1000;

type ArcResult = Pick<Motion, 'centre' | 'clockwise' | 'turns'> | { fault: string };

/**
 * Centre and turns of a G2/G3, from I J K (incremental) or R (never beyond half a turn). P adds whole turns, or counts the
 * turns begun where the profile says so. The centre is given along the plane's own axes, then across it.
 */
export function readArc(
  from: Place,
  to: Place,
  words: Partial<Record<string, number>>,
  factor: number,
  clockwise: boolean,
  arcTurns: 'added' | 'counted' = 'added',
  plane: Plane = at(PLANES, 0),
): ArcResult {
  const {
    axes: [a, b],
    across,
  } = plane;
  const [x0, y0, z0] = [from[a], from[b], from[across]];
  const [x1, y1] = [to[a], to[b]];
  if (x0 === null || y0 === null || z0 === null || x1 === null || y1 === null)
    return { fault: 'an arc from an unknown place' };
  const [i, j] = [at('IJK', a), at('IJK', b)] as ['I' | 'J' | 'K', 'I' | 'J' | 'K'];
  const r = words['R'];
  if (r !== undefined) return byRadius([x0, y0, z0], [x1, y1], r * factor, clockwise);
  if (words[i] === undefined && words[j] === undefined) return { fault: `an arc without ${i}, ${j} or R` };
  const [cx, cy] = [x0 + (words[i] ?? 0) * factor, y0 + (words[j] ?? 0) * factor];
  const off = Math.abs(Math.hypot(x0 - cx, y0 - cy) - Math.hypot(x1 - cx, y1 - cy));
  if (off > ARC_TOLERANCE) return { fault: `the arc's end lies ${off.toFixed(4)} mm off its circle` };
  const full = Math.hypot(x1 - x0, y1 - y0) < 1e-9 ? 1 : 0;
  const p = words['P'];
  if (p !== undefined && (!Number.isInteger(p) || p > MOST_TURNS || (arcTurns === 'counted' && p < 1)))
    return { fault: `P${p} is no number of turns` };
  const more = p === undefined ? 0 : arcTurns === 'added' ? p : p - 1;
  return { centre: [cx, cy, z0], clockwise, turns: full + more };
}

function byRadius(
  from: [number, number, number],
  to: [number, number],
  r: number,
  clockwise: boolean,
): ArcResult {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const chord = Math.hypot(dx, dy);
  if (chord < 1e-9) return { fault: 'an arc with R that ends where it starts' };
  if (chord / 2 > Math.abs(r) + ARC_TOLERANCE)
    return {
      fault: `the radius ${Math.abs(r).toFixed(3)} mm does not reach over a chord of ${chord.toFixed(3)} mm`,
    };
  const h = Math.sqrt(Math.max(0, r * r - (chord / 2) ** 2));
  // A negative R asks for the longer way round.
  const side = (clockwise ? -1 : 1) * Math.sign(r);
  return {
    centre: [from[0] + dx / 2 - (dy / chord) * h * side, from[1] + dy / 2 + (dx / chord) * h * side, from[2]],
    clockwise,
    turns: 0,
  };
}
