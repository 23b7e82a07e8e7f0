import { isHole, type Feature } from '../features/family.ts';
import type { HoleFeature } from '../features/hole/schema.ts';
import type { Box2 } from '../geometry/box-grid.ts';
import { directionToFrame, toFrame, type Frame } from '../geometry/frame.ts';
import { PlaceList } from './place-list.ts';
import { seenOpening } from '../space/openings.ts';

/** Metal that fills a cavity until it is made: low and high at a place; null beside it. Program coordinates, mm. */
type Fills = (x: number, y: number) => readonly [number, number] | null;

interface Cavity {
  /** Id of the feature. */
  feature: string;
  fills: Fills;
}

/** mm. */
const CELL = 4;
const NONE: readonly number[] = [];

/** The cavities that open along a setup's Z, as the metal that stands in them before they are made. */
export class Cavities {
  private readonly grid = new PlaceList<Cavity>(CELL);
  /** What each feature covers from above. */
  readonly boxes: { feature: string; box: Box2 }[] = [];

  constructor(features: readonly Feature[], frame: Frame) {
    for (const f of features) {
      const share = Math.abs(directionToFrame(frame, f.axis)[2]);
      if (share < 0.999) continue;
      if (isHole(f)) this.addHole(f, frame);
      else this.addStrip(f, frame);
    }
  }

  /** Metal of all cavities over a place: pairs of low and high, in no order. */
  at(x: number, y: number): readonly number[] {
    const near = this.grid.at(x, y);
    if (near.length === 0) return NONE;
    const out: number[] = [];
    for (const c of near) {
      const f = c.fills(x, y);
      if (f && f[1] > f[0]) out.push(f[0], f[1]);
    }
    return out;
  }

  /** The feature whose cavity a place lies in; null for none. */
  featureAt(x: number, y: number, z: number): string | null {
    for (const c of this.grid.at(x, y)) {
      const f = c.fills(x, y);
      if (f && z >= f[0] && z <= f[1]) return c.feature;
    }
    return null;
  }

  private addHole(f: HoleFeature, frame: Frame): void {
    const [cx, cy, entry] = toFrame(frame, f.entry);
    const down = directionToFrame(frame, f.axis)[2] > 0 ? -1 : 1;
    let depth = 0;
    for (const s of f.stack) {
      if (s.shape === 'flat') continue;
      const [r0, r1] =
        s.shape === 'cylinder' ? [s.diameter / 2, s.diameter / 2] : [s.startDiameter / 2, s.endDiameter / 2];
      // A slanted entry: what lies above its lowest place is not all metal.
      const top = depth === 0 ? Math.min(s.length, f.entryDrop) : depth;
      const end = depth + s.length;
      const from = depth;
      this.addRound(f, cx, cy, Math.max(r0, r1), (rho) => {
        // At this distance from the axis the step is there from one depth to another.
        if (r0 === r1) return [entry + down * top, entry + down * end];
        const cross = from + ((rho - r0) / (r1 - r0)) * s.length;
        if (r0 > r1)
          return rho <= r1
            ? [entry + down * top, entry + down * end]
            : [entry + down * top, entry + down * cross];
        return rho <= r0
          ? [entry + down * top, entry + down * end]
          : [entry + down * cross, entry + down * end];
      });
      depth = end;
    }
    const last = f.stack.findLast((s) => s.shape === 'cylinder');
    if (f.kind === 'through' || last?.shape !== 'cylinder') return;
    const r = last.diameter / 2;
    const { bottom } = f;
    if (bottom.shape === 'cone') {
      const tan = Math.tan((bottom.angle * Math.PI) / 360);
      this.addRound(f, cx, cy, r, (rho) => [entry + down * depth, entry + down * (depth + (r - rho) / tan)]);
    } else if (bottom.shape === 'ball')
      this.addRound(f, cx, cy, r, (rho) => [
        entry + down * depth,
        entry + down * (depth + Math.sqrt(Math.max(0, r * r - rho * rho))),
      ]);
  }

  private addRound(
    f: Feature,
    cx: number,
    cy: number,
    r: number,
    ends: (rho: number) => [number, number],
  ): void {
    const fills: Fills = (x, y) => {
      const rho = Math.hypot(x - cx, y - cy);
      if (rho > r) return null;
      const [a, b] = ends(rho);
      return a < b ? [a, b] : [b, a];
    };
    this.put(f, fills, [cx - r, cy - r, cx + r, cy + r]);
  }

  private put(f: Feature, fills: Fills, box: Box2): void {
    this.boxes.push({ feature: f.id, box });
    this.grid.add({ feature: f.id, fills }, box);
  }

  private addStrip(f: Feature, frame: Frame): void {
    const o = seenOpening(f, '', frame);
    if (!o) return;
    const ends = [o.bottom, o.top] as const;
    for (const run of o.runs) {
      const [x0, y0, x1, y1] = run;
      this.put(f, (x, y) => (gap(run, x, y) <= o.radius ? ends : null), [
        Math.min(x0, x1) - o.radius,
        Math.min(y0, y1) - o.radius,
        Math.max(x0, x1) + o.radius,
        Math.max(y0, y1) + o.radius,
      ]);
    }
  }
}

function gap([x0, y0, x1, y1]: readonly [number, number, number, number], x: number, y: number): number {
  const [dx, dy] = [x1 - x0, y1 - y0];
  const l2 = dx * dx + dy * dy;
  const s = l2 > 0 ? Math.max(0, Math.min(1, ((x - x0) * dx + (y - y0) * dy) / l2)) : 0;
  return Math.hypot(x - x0 - s * dx, y - y0 - s * dy);
}

/** Ends this near each other touch, mm. */
const TOUCHING = 1e-6;

/** Intervals put together: pairs of low and high, from low to high, none touching another. */
export function union(pairs: readonly number[]): number[] {
  if (pairs.length === 4) {
    // Two of them, as nearly always.
    const k = pairs[2]! < pairs[0]! ? 2 : 0;
    const [a, b, c, d] = [pairs[k]!, pairs[k + 1]!, pairs[2 - k]!, pairs[3 - k]!];
    return c <= b + TOUCHING ? [a, Math.max(b, d)] : [a, b, c, d];
  }
  const list: [number, number][] = [];
  for (let n = 0; n < pairs.length; n += 2) list.push([pairs[n]!, pairs[n + 1]!]);
  list.sort((a, b) => a[0] - b[0]);
  const out: number[] = [];
  for (const [a, b] of list) {
    const end = out[out.length - 1];
    if (end !== undefined && a <= end + TOUCHING) out[out.length - 1] = Math.max(end, b);
    else out.push(a, b);
  }
  return out;
}

/** What of some intervals lies in none of the others; both from low to high. */
export function without(pairs: readonly number[], taken: readonly number[]): number[] {
  const out: number[] = [];
  for (let n = 0; n < pairs.length; n += 2) {
    let from = pairs[n]!;
    const to = pairs[n + 1]!;
    for (let k = 0; k < taken.length; k += 2) {
      const [a, b] = [taken[k]!, taken[k + 1]!];
      if (b <= from || a >= to) continue;
      if (a > from) out.push(from, a);
      from = Math.max(from, b);
    }
    if (from < to) out.push(from, to);
  }
  return out;
}
