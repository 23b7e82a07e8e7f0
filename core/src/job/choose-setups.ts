import { dot } from '../geometry/vec.ts';
import type { Feature } from '../features/family.ts';
import { newSetup, SIDES, type Setup, type Side } from './plan.ts';
import { sideDirection } from './setup-frame.ts';

const NAMES: Record<Side, string> = { '+Z': 'top up', '-Z': 'bottom up', '+X': 'right up', '-X': 'left up', '+Y': 'back up', '-Y': 'front up' };
const OFFSETS = ['G54', 'G55', 'G56', 'G57', 'G58', 'G59'] as const;

/** The fewest sides, most rewarding first, from which every reachable feature can be made. */
export function chooseSides(features: Feature[]): Side[] {
  const open = new Set(features.filter((f) => f.reachableFrom.length > 0));
  const out: Side[] = [];
  while (open.size > 0) {
    let best: { side: Side; reached: Feature[] } | null = null;
    for (const side of SIDES) {
      if (out.includes(side)) continue;
      const up = sideDirection(side);
      const reached = [...open].filter((f) => f.reachableFrom.some((d) => dot(d, up) > 0.9999));
      if (reached.length > (best?.reached.length ?? 0)) best = { side, reached };
    }
    if (!best) break;
    out.push(best.side);
    for (const f of best.reached) open.delete(f);
  }
  return out.length > 0 ? out : ['+Z'];
}

/** Setups for sides, named by the side that is up, each on its own work offset. */
export const setupsFor = (sides: readonly Side[]): Setup[] => sides.map((side, i) => newSetup(`s${i + 1}`, NAMES[side], side, OFFSETS[i % OFFSETS.length]));

export const sideName = (side: Side): string => NAMES[side];
