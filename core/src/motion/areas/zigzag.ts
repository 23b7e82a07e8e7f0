import { bordersOf, chainPoints, type Region } from '../../geometry/region.ts';
import type { Vec2 } from '../../geometry/path.ts';
import { levelsDown } from '../grooves/ramp.ts';
import { lineTo } from '../grooves/chain.ts';
import type { Move, Pass } from '../work.ts';
import { OUTSIDE } from './past-metal.ts';

/** How a level is milled from edge to edge: program coordinates, mm. */
export interface LevelCut {
  /** All that metal may stand on. */
  metal: Region;
  diameter: number;
  /** From one way to the next. */
  stepover: number;
  r: number;
  top: number;
  floor: number;
  perLayer: number;
  isOneWay: boolean;
}

/** Straight ways along the longer side of what is to be milled, each from the air to the air; back and forth, or all one way. */
export function zigzag({ metal, diameter, stepover, r, top, floor, perLayer, isOneWay }: LevelCut): Pass[] {
  const points = bordersOf(metal).flatMap((b) => chainPoints(b));
  if (points.length === 0) return [];
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const isAlongX = x1 - x0 >= y1 - y0;
  const [a0, a1, b0, b1] = isAlongX ? [x0, x1, y0, y1] : [y0, y1, x0, x1];
  const place = (a: number, b: number): Vec2 => (isAlongX ? [a, b] : [b, a]);
  const out = diameter / 2 + OUTSIDE;
  // The first way stands over the edge by a quarter of the cutter, and so does the last.
  const width = b1 - b0 + diameter / 2;
  const n = Math.max(1, Math.ceil((width - diameter) / stepover + 1));
  const step = n === 1 ? 0 : (width - diameter) / (n - 1);
  const lines = Array.from({ length: n }, (_, i) =>
    n === 1 ? (b0 + b1) / 2 : b0 - diameter / 4 + diameter / 2 + i * step,
  );
  const passes: Pass[] = [];
  for (const z of levelsDown(top, floor, perLayer)) {
    let moves: Move[] = [];
    lines.forEach((b, i) => {
      const isBack = !isOneWay && i % 2 === 1;
      const [from, to] = isBack ? [a1 + out, a0 - out] : [a0 - out, a1 + out];
      const start = place(from, b);
      if (i === 0 || isOneWay) {
        moves = [];
        passes.push({ start: [start[0], start[1], r], moves });
      }
      moves.push(lineTo(start, z, 'lead'), lineTo(place(to, b), z, 'cut'));
    });
  }
  return passes;
}
