import { at, first } from '../lists.ts';
import type { Feature } from '../features/family.ts';
import { familyOf, isOpenBelow } from '../features/registry.ts';
import { isWithin } from '../features/area/rings.ts';
import { chainPoints, ringsOf } from '../geometry/region.ts';
import { groundOf, type SeenPlan } from './areas.ts';
import { BoxGrid } from '../geometry/box-grid.ts';
import { toFrame, type Frame } from '../geometry/frame.ts';
import { length2, type Vec2 } from '../geometry/path.ts';
import { dot } from '../geometry/vec.ts';
import type { SetupFrame } from '../setup/setup-frame.ts';

/** A cavity's mouth as a setup sees it: metal stands in it up to `top` until it is made. Program coordinates, mm. */
export interface SeenOpening {
  feature: string;
  label: string;
  /** Stretches x0, y0, x1, y1 along its middle. */
  runs: (readonly [number, number, number, number])[];
  radius: number;
  /** Of an area what it covers, in place of a strip along its runs: closed runs of points, islands among them. */
  covers?: readonly Vec2[][];
  top: number;
  bottom: number;
  /** All that stands beyond the part's outline. */
  isOutside?: true;
  /** An area: once it is made, no stock stands over it. */
  clearsStock?: true;
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

/**
 * The metal that stands upon an area until it is made: down from the stock's top upon a face, from its own top in a step or a pocket. Null where
 * it is not seen from the setup, or nothing of it lies over the part.
 */
export function seenArea(
  f: Feature,
  label: string,
  seen: SeenPlan & { setup: SetupFrame },
  sectionAt: (level: number) => Vec2[][],
): SeenOpening | null {
  const { frame, body, part } = seen.setup;
  const shape = familyOf(f).area?.(f, frame);
  if (!shape) return null;
  if (!shape.through && dot(f.axis, frame.z) < 0.999) return null;
  const isHighest = shape.side === 'top' && shape.floor >= part.max[2] - TOP;
  const rings = shape.rings.map((r) =>
    chainPoints(
      r.map((e) => e.segment),
      SAGITTA,
    ),
  );
  // Outside of an outline all stock is taken.
  const isOutside = shape.side === 'outside';
  const covers = isHighest
    ? [boxPoints(body.box)]
    : isOutside
      ? [boxPoints(body.box), ...rings]
      : shape.side === 'open' && body.standsProud
        ? ringsOf(groundOf(seen, shape, sectionAt).cleared)
        : rings;
  const runs = covers.flatMap((c) => c.map(([x, y], i) => [x, y, ...at(c, (i + 1) % c.length)] as const));
  const isUponPart = shape.side === 'top' || isOutside;
  const top = isUponPart && body.standsProud ? body.box.max[2] : shape.top;
  return {
    feature: f.id,
    label,
    runs: runs.map(([a, b, c, d]) => [a, b, c, d]),
    radius: 0,
    covers,
    top,
    bottom: shape.floor,
    clearsStock: true,
    ...(isOutside ? { isOutside } : {}),
  };
}

/** How far chords may lie off an area's round border, mm. */
const SAGITTA = 0.01;
/** The highest plane of a part lies no lower, mm. */
const TOP = 0.01;

const boxPoints = ({ min, max }: SetupFrame['body']['box']): Vec2[] => [
  [min[0], min[1]],
  [max[0], min[1]],
  [max[0], max[1]],
  [min[0], max[1]],
];

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
    return this.grid.near(x, y, r).filter(
      // An area is over what lies within it: beside its border stands its own wall.
      (o) => (o.covers ? isCovered(o.covers, x, y) : o.runs.some((run) => gap(run, x, y) < o.radius + r)),
    );
  }
}

/** Within an odd number of outlines. */
const isCovered = (covers: readonly Vec2[][], x: number, y: number): boolean =>
  covers.filter((c) => isWithin(c, [x, y])).length % 2 === 1;

function gap([x0, y0, x1, y1]: SeenOpening['runs'][number], x: number, y: number): number {
  const [dx, dy] = [x1 - x0, y1 - y0];
  const l2 = dx * dx + dy * dy;
  const s = l2 > 0 ? Math.max(0, Math.min(1, ((x - x0) * dx + (y - y0) * dy) / l2)) : 0;
  return length2(x - x0 - s * dx, y - y0 - s * dy);
}
