import { arcSweep } from '@yellow-pin/core/geometry/arc';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import type { Motion } from '@yellow-pin/core/code/read/motion';

/** An arc is drawn as straight pieces of at most this angle, radians. */
const STEP = Math.PI / 24;

/**
 * The way of one motion as points from its start to its end, program coordinates; an arc about Z goes round with its height growing evenly.
 * Empty where the text does not say where it begins or ends, and for dwells.
 */
export function motionPoints(m: Motion): Vec3[] {
  if (m.kind === 'dwell' || [...m.from, ...m.to].some((v) => v === null)) return [];
  const [from, to] = [[...m.from] as Vec3, [...m.to] as Vec3];
  if (m.kind !== 'arc' || !m.centre) return [from, to];
  const [cx, cy] = m.centre;
  const [a, b] = [Math.atan2(from[1] - cy, from[0] - cx), Math.atan2(to[1] - cy, to[0] - cx)];
  const sweep = arcSweep(a, b, m.clockwise === true, m.turns ?? 0);
  const [r0, r1] = [Math.hypot(from[0] - cx, from[1] - cy), Math.hypot(to[0] - cx, to[1] - cy)];
  const n = Math.max(2, Math.ceil(Math.abs(sweep) / STEP));
  return Array.from({ length: n + 1 }, (_, i): Vec3 => {
    if (i === 0) return from;
    if (i === n) return to;
    const t = i / n;
    const at = a + sweep * t;
    const r = r0 + (r1 - r0) * t;
    return [cx + r * Math.cos(at), cy + r * Math.sin(at), from[2] + (to[2] - from[2]) * t];
  });
}
