const FULL = 2 * Math.PI;
/** Angles nearer than this are one. */
const SAME = 1e-9;

/**
 * By how much an arc turns from one angle to another, radians, counter-clockwise positive. `turns`: whole turns beyond the part turn; where
 * both angles are one they are all there is, and without any it is one full circle.
 */
export function arcSweep(start: number, end: number, clockwise: boolean, turns: number): number {
  let part = clockwise ? start - end : end - start;
  part -= FULL * Math.floor(part / FULL + 1e-12);
  const isClosed = part < SAME || FULL - part < SAME;
  const total = isClosed ? FULL * Math.max(1, turns) : part + FULL * turns;
  return clockwise ? -total : total;
}

/** The angle, radians, by which a chord's arc of this radius turns where it lies no more than `sagitta` beside it, mm. */
export const chordStep = (radius: number, sagitta: number): number =>
  2 * Math.acos(Math.max(0, 1 - sagitta / Math.max(radius, sagitta)));
