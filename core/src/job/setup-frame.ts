import type { Frame } from '../geometry/frame.ts';
import { frameFrom, fromFrame, toFrame } from '../geometry/frame.ts';
import type { Vec3 } from '../geometry/vec.ts';
import { boundsOf, type Bounds } from '../model/solid-model.ts';
import type { Setup, Side } from './plan.ts';

const UP: Record<Side, Vec3> = { '+Z': [0, 0, 1], '-Z': [0, 0, -1], '+X': [1, 0, 0], '-X': [-1, 0, 0], '+Y': [0, 1, 0], '-Y': [0, -1, 0] };

/** X of each attitude, so that the part is turned over in the fewest ways: -Z keeps X (turned over about X). */
const X: Record<Side, Vec3> = { '+Z': [1, 0, 0], '-Z': [1, 0, 0], '+X': [0, 1, 0], '-X': [0, -1, 0], '+Y': [-1, 0, 0], '-Y': [1, 0, 0] };

export const sideDirection = (side: Side): Vec3 => UP[side];

export interface SetupFrame {
  /** Program coordinates: origin at work zero, in the part file's frame. */
  frame: Frame;
  /** Boxes in program coordinates. */
  part: Bounds;
  stock: Bounds;
}

/** Program zero, axes and boxes of a setup. */
export function setupFrame(setup: Setup, bounds: Bounds): SetupFrame {
  const turned = frameFrom([0, 0, 0], UP[setup.up], X[setup.up]);
  const corners: Vec3[] = [];
  for (let i = 0; i < 8; i++) {
    corners.push([i & 1 ? bounds.max[0] : bounds.min[0], i & 2 ? bounds.max[1] : bounds.min[1], i & 4 ? bounds.max[2] : bounds.min[2]]);
  }
  const part = boundsOf(corners.map((c) => toFrame(turned, c)));
  const s = setup.stock;
  const stock: Bounds = {
    min: [part.min[0] - s.xLow, part.min[1] - s.yLow, part.min[2] - s.zLow],
    max: [part.max[0] + s.xHigh, part.max[1] + s.yHigh, part.max[2] + s.zHigh],
  };
  const box = setup.zero.of === 'stock' ? stock : part;
  const place = [setup.zero.x, setup.zero.y, setup.zero.z];
  const zero = place.map((k, i) => (k < 0 ? box.min[i]! : k > 0 ? box.max[i]! : (box.min[i]! + box.max[i]!) / 2)) as Vec3;
  const shift = (b: Bounds): Bounds => ({ min: b.min.map((v, i) => v - zero[i]!) as Vec3, max: b.max.map((v, i) => v - zero[i]!) as Vec3 });
  return { frame: { ...turned, origin: fromFrame(turned, zero) }, part: shift(part), stock: shift(stock) };
}

/** The zero in words, for the bench and the floor sheet. */
export function zeroInWords(setup: Setup): string {
  const { x, y, z, of } = setup.zero;
  const name = (v: number, low: string, middle: string, high: string) => (v < 0 ? low : v > 0 ? high : middle);
  const height = name(z, 'bottom', 'mid-height', 'top');
  if (x === 0 && y === 0) return `centre, ${height} of ${of}`;
  const across = name(x, 'left', '', 'right');
  const deep = name(y, 'front', '', 'back');
  const plan = across && deep ? `${across} ${deep} corner` : `${across || deep} edge, middle`;
  return `${plan}, ${height} of ${of}`;
}
