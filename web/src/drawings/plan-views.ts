import type { BorderPiece } from '@yellow-pin/core/features/area/schema';
import type { CurvePiece } from '@yellow-pin/core/features/base';
import { rect, type Dimension, type View } from './view.ts';

type Flat = [number, number];

/** Flat coordinates on the plane square to an axis. */
function flattener(axis: readonly number[]): (p: readonly number[]) => Flat {
  const helper: [number, number, number] = Math.abs(axis[0]!) < 0.9 ? [1, 0, 0] : [0, 1, 0];
  const k = helper[0] * axis[0]! + helper[1] * axis[1]! + helper[2] * axis[2]!;
  const raw = helper.map((v, i) => v - k * axis[i]!);
  const l = Math.hypot(...raw);
  const x = raw.map((v) => v / l);
  const y = [
    axis[1]! * x[2]! - axis[2]! * x[1]!,
    axis[2]! * x[0]! - axis[0]! * x[2]!,
    axis[0]! * x[1]! - axis[1]! * x[0]!,
  ];
  return (p) => [
    p[0]! * x[0]! + p[1]! * x[1]! + p[2]! * x[2]!,
    p[0]! * y[0]! + p[1]! * y[1]! + p[2]! * y[2]!,
  ];
}

/** A chain of lines and arcs as a path of a drawing; every place that bounds it is told to `see`. */
function chain(pieces: readonly CurvePiece[], axis: readonly number[], see: (p: Flat) => void): string {
  const flat = flattener(axis);
  return pieces
    .map((p, i) => {
      const [a, b] = [flat(p.from), flat(p.to)];
      see(a);
      see(b);
      const start = i === 0 ? `M${a.join(' ')}` : '';
      if (p.kind === 'line') return `${start}L${b.join(' ')}`;
      const c = flat(p.centre);
      const at = (t: number): Flat => {
        const s = Math.atan2(a[1] - c[1], a[0] - c[0]) + t * p.turn;
        return [c[0] + p.radius * Math.cos(s), c[1] + p.radius * Math.sin(s)];
      };
      for (const t of [0.25, 0.5, 0.75]) see(at(t));
      // Two halves: a full circle has equal ends.
      return (
        start +
        [0.5, 1].map((t) => `A${p.radius} ${p.radius} 0 0 ${p.turn > 0 ? 1 : 0} ${at(t).join(' ')}`).join('')
      );
    })
    .join('');
}

class Bounds {
  private low: Flat = [Infinity, Infinity];
  private high: Flat = [-Infinity, -Infinity];
  readonly see = ([x, y]: Flat): void => {
    this.low = [Math.min(this.low[0], x), Math.min(this.low[1], y)];
    this.high = [Math.max(this.high[0], x), Math.max(this.high[1], y)];
  };
  get span(): Flat {
    return [this.high[0] - this.low[0], this.high[1] - this.low[1]];
  }
  box(margin: number): View['box'] {
    const [w, h] = this.span;
    return { x: this.low[0] - margin, y: this.low[1] - margin, w: w + 2 * margin, h: h + 2 * margin };
  }
  /** Its width below it, and its height beside it. */
  get dimensions(): Dimension[] {
    const [[x0, y0], [x1, y1], [w, h]] = [this.low, this.high, this.span];
    return [
      { from: [x0, y0], to: [x1, y0], text: w, side: 'below' },
      { from: [x1, y1], to: [x1, y0], text: h, side: 'right' },
    ];
  }
}

/** A chain of lines and arcs in the feature's own plane, in metal that is as wide again as it is cut. */
export function chainView(pieces: readonly CurvePiece[], axis: readonly number[], width: number): View {
  const bounds = new Bounds();
  const centre = chain(pieces, axis, bounds.see);
  const box = bounds.box(Math.max(width * 1.4, 0.12 * Math.max(...bounds.span)));
  return {
    title: 'plan',
    metal: rect(box.x, box.y, box.w, box.h),
    cut: '',
    centre,
    box,
    dimensions: [],
  };
}

interface Bordered {
  axis: readonly number[];
  borders: BorderPiece[][];
}

/** Of the room round it, how much is shown. */
const ROUND_IT = 0.14;

function bordersOf({ axis, borders }: Bordered): { bounds: Bounds; outline: string } {
  const bounds = new Bounds();
  const outline = borders
    .map(
      (ring) =>
        `${chain(
          ring.map((b) => b.piece),
          axis,
          bounds.see,
        )}Z`,
    )
    .join('');
  return { bounds, outline };
}

/** An area cut into metal from above, islands left standing, and how deep it lies. */
export function areaViews(f: Bordered, depth: number): View[] {
  const { bounds, outline } = bordersOf(f);
  const [w] = bounds.span;
  const box = bounds.box(ROUND_IT * Math.max(...bounds.span));
  const metal = rect(box.x, box.y, box.w, box.h);
  const seen: View = { title: 'plan', metal, cut: outline, centre: '', box, dimensions: bounds.dimensions };
  if (depth <= 0) return [seen];
  const under = Math.max(0.5 * depth, 0.1 * w);
  const side: View['box'] = { x: -0.7 * w, y: -depth - under, w: 1.4 * w, h: depth + under };
  const section: View = {
    title: 'section',
    metal: rect(side.x, side.y, side.w, side.h),
    cut: rect(-w / 2, -depth, w, depth + 0.001),
    centre: '',
    box: side,
    dimensions: [{ from: [w / 2, 0], to: [w / 2, -depth], text: depth, side: 'right' }],
  };
  return [section, seen];
}

/** What stands within its border, from above. */
export function standingView(f: Bordered): View {
  const { bounds, outline } = bordersOf(f);
  const box = bounds.box(ROUND_IT * Math.max(...bounds.span));
  return { title: 'plan', metal: outline, cut: '', centre: '', box, dimensions: bounds.dimensions };
}
