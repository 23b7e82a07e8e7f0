import { length2 } from '../geometry/path.ts';
import { arcSweep } from '../geometry/arc.ts';
import type { ToolBody } from './body.ts';

/** What a body on its way takes of a column: from where to where, mm. */
export interface Span {
  low: number;
  high: number;
}

/** A way of the tip that is looked at as one. Program coordinates, mm. */
export interface Way {
  /** Box round the way of the axis: x0, y0, x1, y1. */
  readonly box: readonly [number, number, number, number];
  /** Lowest place of the tip. */
  readonly lowest: number;
  /** The stretch of a row of columns that a body may reach, x from `low` to `high`; false where it reaches none. */
  row(radius: number, y: number, out: Span): boolean;
  /** Writes into `out` the one interval that a body takes of all columns that it reaches; false where they are not alike. */
  even(body: ToolBody, out: Span): boolean;
  /** Writes into `out` what the body takes of the column at (x, y) while its tip goes this way; false where it does not reach it. */
  span(body: ToolBody, x: number, y: number, out: Span): boolean;
}

type Point = readonly [number, number, number];

/** Looks at a slanted way: samples first, then closes in on the best, so that depths are exact to well under 0.001 mm. */
const SAMPLES = 8;
const CLOSER = 18;
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** The least value of a function between two places: the best of some samples, closed in on from both its neighbours. */
function least(f: (s: number) => number, from: number, to: number): number {
  let [best, at] = [Infinity, from];
  const step = (to - from) / SAMPLES;
  for (let k = 0; k <= SAMPLES; k++) {
    const s = from + k * step;
    const v = f(s);
    if (v < best) [best, at] = [v, s];
  }
  if (step <= 1e-12) return best;
  let [a, b] = [Math.max(from, at - step), Math.min(to, at + step)];
  let [c, d] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
  let [fc, fd] = [f(c), f(d)];
  for (let k = 0; k < CLOSER; k++) {
    if (fc < fd) {
      [b, d, fd] = [d, c, fc];
      c = b - GOLDEN * (b - a);
      fc = f(c);
    } else {
      [a, c, fc] = [c, d, fd];
      d = a + GOLDEN * (b - a);
      fd = f(d);
    }
  }
  return Math.min(best, fc, fd);
}

/** Straight, in any direction, plunges included. */
class LineWay implements Way {
  readonly box: readonly [number, number, number, number];
  readonly lowest: number;
  private readonly length: number;
  private readonly ux: number;
  private readonly uy: number;

  constructor(
    private readonly a: Point,
    private readonly b: Point,
  ) {
    this.box = [Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[0], b[0]), Math.max(a[1], b[1])];
    this.lowest = Math.min(a[2], b[2]);
    this.length = length2(b[0] - a[0], b[1] - a[1]);
    this.ux = this.length > 1e-9 ? (b[0] - a[0]) / this.length : 0;
    this.uy = this.length > 1e-9 ? (b[1] - a[1]) / this.length : 0;
  }

  /** A round tool along a line covers two discs and the band between them. */
  row(radius: number, y: number, out: Span): boolean {
    const { a, b, length, ux, uy } = this;
    out.low = Infinity;
    out.high = -Infinity;
    for (const p of [a, b]) {
      const square = radius * radius - (y - p[1]) ** 2;
      if (square < 0) continue;
      const half = Math.sqrt(square);
      out.low = Math.min(out.low, p[0] - half);
      out.high = Math.max(out.high, p[0] + half);
    }
    if (length > 1e-9)
      for (let side = -1; side <= 1; side += 2) {
        // One border of the band: where it crosses the row, if it does between its ends.
        const [x0, y0] = [a[0] - side * radius * uy, a[1] + side * radius * ux];
        const t = Math.abs(uy) < 1e-12 ? NaN : (y - y0) / uy;
        if (!(t >= 0 && t <= length)) continue;
        const x = x0 + t * ux;
        out.low = Math.min(out.low, x);
        out.high = Math.max(out.high, x);
      }
    return out.low <= out.high;
  }

  even(body: ToolBody, out: Span): boolean {
    const { a, b, length } = this;
    if (!body.isFlat || !body.hasFlatTop || (length > 1e-9 && a[2] !== b[2])) return false;
    out.low = this.lowest + body.low;
    out.high = Math.max(a[2], b[2]) + body.high;
    return true;
  }

  span(body: ToolBody, x: number, y: number, out: Span): boolean {
    const { a, b, length, ux, uy } = this;
    const [dx, dy] = [x - a[0], y - a[1]];
    if (length <= 1e-9) {
      const d = Math.sqrt(dx * dx + dy * dy);
      if (d > body.radius) return false;
      out.low = this.lowest + body.bottom(d);
      out.high = Math.max(a[2], b[2]) + body.top(d);
      return true;
    }
    const along = dx * ux + dy * uy;
    const aside = Math.abs(dx * uy - dy * ux);
    if (aside > body.radius) return false;
    const half = Math.sqrt(body.radius ** 2 - aside ** 2);
    const from = Math.max(0, along - half);
    const to = Math.min(length, along + half);
    if (from > to) return false;
    if (a[2] === b[2]) {
      const near = Math.max(0, Math.min(length, along));
      const d = Math.min(body.radius, length2(near - along, aside));
      out.low = a[2] + body.bottom(d);
      out.high = a[2] + body.top(d);
      return true;
    }
    const slope = (b[2] - a[2]) / length;
    const [zFrom, zTo] = [a[2] + from * slope, a[2] + to * slope];
    if (body.isFlat) out.low = Math.min(zFrom, zTo) + body.low;
    else
      out.low = least(
        (s) => a[2] + s * slope + body.bottom(Math.min(body.radius, length2(s - along, aside))),
        from,
        to,
      );
    if (body.hasFlatTop) out.high = Math.max(zFrom, zTo) + body.high;
    else
      out.high = -least(
        (s) => -(a[2] + s * slope + body.top(Math.min(body.radius, length2(s - along, aside)))),
        from,
        to,
      );
    return true;
  }
}

/** An arc of at most half a turn about an axis along Z, level or rising evenly. Angles counter-clockwise, radians. */
class ArcWay implements Way {
  readonly box: readonly [number, number, number, number];
  readonly lowest: number;

  constructor(
    private readonly cx: number,
    private readonly cy: number,
    private readonly radius: number,
    private readonly start: number,
    private readonly sweep: number,
    private readonly z0: number,
    private readonly z1: number,
  ) {
    this.box = [cx - radius, cy - radius, cx + radius, cy + radius];
    this.lowest = Math.min(z0, z1);
  }

  /** The whole disc round the arc, less what lies above or below it. */
  row(radius: number, y: number, out: Span): boolean {
    const square = (this.radius + radius) ** 2 - (y - this.cy) ** 2;
    if (square < 0) return false;
    const half = Math.sqrt(square);
    out.low = this.cx - half;
    out.high = this.cx + half;
    return true;
  }

  even(): boolean {
    return false;
  }

  span(body: ToolBody, x: number, y: number, out: Span): boolean {
    const { radius, start, sweep, z0, z1 } = this;
    const [dx, dy] = [x - this.cx, y - this.cy];
    const m = Math.sqrt(dx * dx + dy * dy);
    if (Math.abs(m - radius) > body.radius) return false;
    // Half the angle within which the axis is near enough.
    const cos = m < 1e-12 ? -1 : (radius * radius + m * m - body.radius * body.radius) / (2 * radius * m);
    const half = cos <= -1 ? Math.PI : Math.acos(Math.min(1, cos));
    const [low, high] = sweep >= 0 ? [0, sweep] : [sweep, 0];
    const phi = m < 1e-12 ? 0 : wrap(Math.atan2(dy, dx) - start);
    let isMet = false;
    out.low = Infinity;
    out.high = -Infinity;
    for (let turn = -1; turn <= 1; turn++) {
      const middle = phi + turn * 2 * Math.PI;
      const from = Math.max(low, middle - half);
      const to = Math.min(high, middle + half);
      if (from > to) continue;
      isMet = true;
      if (z0 === z1) {
        const d = this.away(body, m, Math.max(from, Math.min(to, middle)) - phi);
        out.low = Math.min(out.low, z0 + body.bottom(d));
        out.high = Math.max(out.high, z0 + body.top(d));
      } else this.slanted(body, m, phi, from, to, out);
    }
    return isMet;
  }

  /** How far the axis is from a column `m` from the centre, at so great an angle to it. */
  private away(body: ToolBody, m: number, angle: number): number {
    const { radius } = this;
    const square = radius * radius + m * m - 2 * radius * m * Math.cos(angle);
    return Math.min(body.radius, Math.sqrt(Math.max(0, square)));
  }

  private slanted(body: ToolBody, m: number, phi: number, from: number, to: number, out: Span): void {
    const rise = (this.z1 - this.z0) / this.sweep;
    const [a, b] = [this.z0 + from * rise, this.z0 + to * rise];
    const bottom = body.isFlat
      ? Math.min(a, b) + body.low
      : least((t) => this.z0 + t * rise + body.bottom(this.away(body, m, t - phi)), from, to);
    const top = body.hasFlatTop
      ? Math.max(a, b) + body.high
      : -least((t) => -(this.z0 + t * rise + body.top(this.away(body, m, t - phi))), from, to);
    if (bottom < out.low) out.low = bottom;
    if (top > out.high) out.high = top;
  }
}

/** An angle between -π and π. */
const wrap = (a: number): number => a - 2 * Math.PI * Math.round(a / (2 * Math.PI));

/** The straight way between two places. */
export const lineWay = (from: Point, to: Point): Way => new LineWay(from, to);

/**
 * The way round an arc, full circles and helices of several turns included, in stretches of at most half a turn: what a body takes of a
 * column on each of them is one interval. `turns`: whole turns beyond the part turn; equal ends without turns are a full circle.
 */
export function arcWays(
  from: Point,
  to: Point,
  centre: readonly [number, number],
  clockwise: boolean,
  turns: number,
): Way[] {
  const [cx, cy] = centre;
  const radius = length2(from[0] - cx, from[1] - cy);
  if (radius < 1e-9) return [lineWay(from, to)];
  const start = Math.atan2(from[1] - cy, from[0] - cx);
  const sweep = arcSweep(start, Math.atan2(to[1] - cy, to[0] - cx), clockwise, turns);
  const n = Math.max(1, Math.ceil(Math.abs(sweep) / Math.PI - 1e-9));
  const dz = to[2] - from[2];
  return Array.from(
    { length: n },
    (_, k) =>
      new ArcWay(
        cx,
        cy,
        radius,
        start + (k * sweep) / n,
        sweep / n,
        from[2] + (k * dz) / n,
        from[2] + ((k + 1) * dz) / n,
      ),
  );
}
