import { arcSweep, chordStep } from '../geometry/arc.ts';
import type { Motion } from '../code/read/motion.ts';

type Point = [number, number, number];
/** A motion whose ends are both known. */
export type KnownMotion = Motion & { from: Point; to: Point };

export const isKnown = (m: Motion): m is KnownMotion => [...m.from, ...m.to].every((v) => v !== null);

/** How far a chord may lie inside its arc, mm; less than what counts as touching. */
const SAGITTA = 0.01;
/** A turn is never in fewer pieces, nor in more. */
const FEWEST = 8;
const MOST = 360;

/**
 * An arc or helix as straight pieces in order, none farther than 0.01 mm inside it; any other motion as itself. Several turns at one level
 * are gone through once: they sweep the same.
 */
export function chordsOf(m: KnownMotion): KnownMotion[] {
  if (m.kind !== 'arc' || !m.centre) return [m];
  const [cx, cy] = m.centre;
  const r = Math.hypot(m.from[0] - cx, m.from[1] - cy);
  if (r < 1e-9) return [m];
  const start = Math.atan2(m.from[1] - cy, m.from[0] - cx);
  const turn = 2 * Math.PI;
  const isLevel = Math.abs(m.to[2] - m.from[2]) < 1e-9;
  const turns = isLevel ? Math.min(1, m.turns ?? 0) : (m.turns ?? 0);
  const sweep = arcSweep(start, Math.atan2(m.to[1] - cy, m.to[0] - cx), m.clockwise === true, turns);
  const step = chordStep(r, SAGITTA);
  const perTurn = Math.min(MOST, Math.max(FEWEST, Math.ceil(turn / Math.max(step, 1e-6))));
  const pieces = Math.max(1, Math.ceil((perTurn * Math.abs(sweep)) / turn));
  const at = (i: number): Point => {
    if (i === 0) return m.from;
    if (i === pieces) return m.to;
    const a = start + (sweep * i) / pieces;
    return [cx + r * Math.cos(a), cy + r * Math.sin(a), m.from[2] + ((m.to[2] - m.from[2]) * i) / pieces];
  };
  return Array.from({ length: pieces }, (_, i) => ({ ...m, from: at(i), to: at(i + 1) }));
}
