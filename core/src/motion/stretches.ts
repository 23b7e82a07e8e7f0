import { arcSweep, chordStep } from '../geometry/arc.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { Work } from './work.ts';

/** How far a chord may lie inside its arc, mm. */
const SAGITTA = 0.05;

/** The straight stretches of a work below its R level, arcs as chords; of a cycle its lowest place. */
export function stretchesOf({ x, y, z, motion }: Work, sagitta = SAGITTA): (readonly [Vec3, Vec3])[] {
  if (motion.kind === 'cycle')
    return [
      [
        [x, y, z],
        [x, y, z],
      ],
    ];
  const out: (readonly [Vec3, Vec3])[] = [];
  for (const { start, moves } of motion.passes) {
    let at = start;
    for (const m of moves) {
      if (m.kind === 'dwell') continue;
      if (m.kind === 'line') out.push([at, m.to]);
      else out.push(...chords(at, m, sagitta));
      at = m.to;
    }
  }
  return out;
}

function chords(
  from: Vec3,
  {
    to,
    centre: [cx, cy],
    clockwise,
    turns,
  }: { to: Vec3; centre: readonly [number, number]; clockwise: boolean; turns: number },
  sagitta: number,
): (readonly [Vec3, Vec3])[] {
  const r = Math.hypot(from[0] - cx, from[1] - cy);
  const start = Math.atan2(from[1] - cy, from[0] - cx);
  const sweep = arcSweep(start, Math.atan2(to[1] - cy, to[0] - cx), clockwise, turns);
  const n = Math.max(1, Math.ceil(Math.abs(sweep) / chordStep(r, sagitta)));
  const at = (i: number): Vec3 => {
    if (i === n) return to;
    const a = start + (sweep * i) / n;
    return [cx + r * Math.cos(a), cy + r * Math.sin(a), from[2] + ((to[2] - from[2]) * i) / n];
  };
  return Array.from({ length: n }, (_, i) => [i === 0 ? from : at(i), at(i + 1)] as const);
}
