import { arcSweep } from '../../geometry/arc.ts';
import type { Motion } from './motion.ts';

/** Centres and radii of arcs that are one circle agree within this, mm: those written by their radius are rounded. */
const SAME = 0.01;
/** Less than a whole turn by this much is one, radians. */
const NEARLY = 1e-3;
const FULL = 2 * Math.PI;

/** By how much of a turn an arc goes round, always positive; null where its ends are not known or it is none. */
export function turnOf(m: Motion): number | null {
  const [[x0, y0], [x1, y1]] = [m.from, m.to];
  if (m.kind !== 'arc' || !m.centre || x0 === null || y0 === null || x1 === null || y1 === null) return null;
  const [cx, cy] = m.centre;
  const [start, end] = [Math.atan2(y0 - cy, x0 - cx), Math.atan2(y1 - cy, x1 - cx)];
  return Math.abs(arcSweep(start, end, m.clockwise === true, m.turns ?? 0)) / FULL;
}

/** Marks arcs that go round only together: halves, quarters. One that goes round alone says so by its turns. */
export function markRounds(motions: readonly Motion[]): void {
  for (let i = 0; i < motions.length; i++) {
    const m = motions[i];
    if (m?.kind !== 'arc' || (m.turns ?? 0) >= 1) continue;
    let turned = 0;
    let end = i;
    for (; end < motions.length; end++) {
      const next = motions[end];
      if (!next || !isOneCircle(m, next)) break;
      turned += turnOf(next) ?? 0;
    }
    if (turned >= 1 - NEARLY / FULL && end > i + 1) for (const one of motions.slice(i, end)) one.round = true;
    i = Math.max(i, end - 1);
  }
}

function isOneCircle(a: Motion, b: Motion): boolean {
  if (b.kind !== 'arc' || a.tool !== b.tool || a.clockwise !== b.clockwise || !a.centre || !b.centre)
    return false;
  const radius = (m: Motion): number =>
    Math.hypot((m.from[0] ?? 0) - (m.centre?.[0] ?? 0), (m.from[1] ?? 0) - (m.centre?.[1] ?? 0));
  return (
    Math.hypot(a.centre[0] - b.centre[0], a.centre[1] - b.centre[1]) <= SAME &&
    Math.abs(radius(a) - radius(b)) <= SAME
  );
}
