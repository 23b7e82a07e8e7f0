import { at, first } from '../lists.ts';
import type { Feature } from '../features/family.ts';
import { familyOf, isOpenBelow } from '../features/registry.ts';
import { BoxGrid } from '../geometry/box-grid.ts';
import { toFrame, type Frame } from '../geometry/frame.ts';
import { dot } from '../geometry/vec.ts';

/** A cavity's mouth as a setup sees it: metal stands in it up to `top` until it is made. Program coordinates, mm. */
export interface SeenOpening {
  feature: string;
  label: string;
  /** Stretches x0, y0, x1, y1 along its middle. */
  runs: (readonly [number, number, number, number])[];
  radius: number;
  top: number;
  bottom: number;
}

/** The mouth of a feature seen from a setup, or null where none looks up. */
export function seenOpening(f: Feature, label: string, frame: Frame): SeenOpening | null {
  const share = dot(f.axis, frame.z);
  const opening = familyOf(f).opening?.(f);
  if (!opening || Math.abs(share) < 0.999) return null;
  const runs = opening.runs.map((run) => run.map((p) => toFrame(frame, p)));
  const level = runs[0]?.[0]?.[2];
  if (level === undefined) return null;
  // Seen from its far side it reaches up from its face; what is blind there does not open at all.
  if (share < 0 && !isOpenBelow(f)) return null;
  const [top, bottom] = share > 0 ? [level, level - opening.depth] : [level + opening.depth, level];
  const stretches = runs.flatMap((run) =>
    run.length === 1
      ? [[first(run)[0], first(run)[1], first(run)[0], first(run)[1]] as const]
      : run.slice(1).map((p, i) => [at(run, i)[0], at(run, i)[1], p[0], p[1]] as const),
  );
  return { feature: f.id, label, runs: stretches, radius: opening.width / 2, top, bottom };
}

/** Width of a cell, mm: about that of a hole. */
const CELL = 10;

/** Openings by place: which of them a round tool at a point would meet. */
export class OpeningGrid {
  private readonly grid = new BoxGrid<SeenOpening>(CELL);

  constructor(openings: readonly SeenOpening[]) {
    for (const o of openings) {
      const xs = o.runs.flatMap((r) => [r[0], r[2]]);
      const ys = o.runs.flatMap((r) => [r[1], r[3]]);
      const { radius } = o;
      this.grid.add(o, [
        Math.min(...xs) - radius,
        Math.min(...ys) - radius,
        Math.max(...xs) + radius,
        Math.max(...ys) + radius,
      ]);
    }
  }

  /** Openings whose mouth comes nearer than `r` to the point. */
  near(x: number, y: number, r: number): SeenOpening[] {
    return this.grid.near(x, y, r).filter((o) => o.runs.some((run) => gap(run, x, y) < o.radius + r));
  }
}

function gap([x0, y0, x1, y1]: SeenOpening['runs'][number], x: number, y: number): number {
  const [dx, dy] = [x1 - x0, y1 - y0];
  const l2 = dx * dx + dy * dy;
  const s = l2 > 0 ? Math.max(0, Math.min(1, ((x - x0) * dx + (y - y0) * dy) / l2)) : 0;
  return Math.hypot(x - x0 - s * dx, y - y0 - s * dy);
}
