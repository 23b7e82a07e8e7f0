import type { KeepOutBox } from '../setup/setup-frame.ts';

/** Room kept between a tool and what holds the part, mm. */
export const KEEP_OUT_ROOM = 1;

/** The first box that a round tool comes nearer than `room` on a straight way, judged from above along its lowest point. */
export function boxOnTheWay(
  boxes: readonly KeepOutBox[],
  from: readonly [number, number, number],
  to: readonly [number, number, number],
  radius: number,
  room = KEEP_OUT_ROOM,
): KeepOutBox | null {
  const reach = radius + room;
  return (
    boxes.find((b) => {
      let [t0, t1] = [0, 1];
      for (const i of [0, 1] as const) {
        const d = to[i] - from[i];
        const [a, c] = [b.min[i] - reach - from[i], b.max[i] + reach - from[i]];
        if (Math.abs(d) < 1e-12) {
          if (a > 0 || c < 0) return false;
          continue;
        }
        const [p, q] = d > 0 ? [a / d, c / d] : [c / d, a / d];
        [t0, t1] = [Math.max(t0, p), Math.min(t1, q)];
      }
      if (t0 > t1) return false;
      const dz = to[2] - from[2];
      const lowest = Math.min(from[2] + t0 * dz, from[2] + t1 * dz);
      return lowest < b.max[2] + room - 1e-9;
    }) ?? null
  );
}
