import { cross, dot, normalize, type Vec3 } from '../geometry/vec.ts';
import type { PartMesh } from './mesh.ts';

/** A small picture: width × height pixels of red, green, blue and opacity, 0 to 255, from the top left. */
export interface Picture {
  width: number;
  height: number;
  pixels: Uint8ClampedArray;
}

export interface PictureOptions {
  width: number;
  height: number;
  /** From the part to the eye. */
  eye?: Vec3;
}

/** Where the bench looks from at first: the front right, from above. */
const EYE: Vec3 = [0.55, -0.75, 0.85];
const LIGHT: Vec3 = normalize([0.35, -0.5, 1]);
/** Each pixel is the mean of so many by so many. */
const FINE = 2;
const MARGIN = 0.06;
/** Grey of metal in full light and in none, and of edges. */
const [BRIGHT, DIM, EDGE] = [222, 120, 34];
/** Edges are drawn over faces at most this share of the part's size behind them. */
const BIAS = 0.004;

/**
 * A part drawn in shaded greys with its edges, on a clear ground, as large as fits: for lists, where a view that can be turned would be too
 * much. `edges` are pairs of points. Time grows with triangles and pixels.
 */
export function drawPicture(
  mesh: Pick<PartMesh, 'positions' | 'triangles'>,
  edges: Float32Array,
  { width, height, eye = EYE }: PictureOptions,
): Picture {
  const toEye = normalize(eye);
  const right = normalize(Math.abs(toEye[2]) > 0.999 ? [1, 0, 0] : cross([0, 0, 1], toEye));
  const up = cross(toEye, right);
  const [w, h] = [FINE * width, FINE * height];
  const flat = project(mesh.positions, right, up, toEye);
  const place = fit(flat, w, h);
  const depth = new Float32Array(w * h).fill(-Infinity);
  const grey = new Float32Array(w * h);
  placeAll(flat, place);
  const { triangles } = mesh;
  const canvas: Canvas = { w, h, depth, grey };
  for (let t = 0; t < triangles.length; t += 3) fill(flat, triangles, t, shadeOf(mesh, t), canvas);
  const lines = project(edges, right, up, toEye);
  placeAll(lines, place);
  for (let i = 0; i + 5 < lines.length; i += 6) stroke(lines, i, BIAS * place.size, canvas);
  return shrink(grey, depth, width, height);
}

/** Right and up as places in the picture. */
function placeAll(points: Float32Array, { x, y }: ReturnType<typeof fit>): void {
  for (let i = 0; i < points.length; i += 3) {
    points[i] = x(points[i]!);
    points[i + 1] = y(points[i + 1]!);
  }
}

interface Canvas {
  w: number;
  h: number;
  /** Nearness of what is drawn at each pixel; -Infinity for nothing. */
  depth: Float32Array;
  grey: Float32Array;
}

/** Points as right, up and nearness. */
function project(points: Float32Array, right: Vec3, up: Vec3, toEye: Vec3): Float32Array {
  const out = new Float32Array(points.length);
  for (let i = 0; i < points.length; i += 3) {
    const p: Vec3 = [points[i]!, points[i + 1]!, points[i + 2]!];
    out[i] = dot(p, right);
    out[i + 1] = dot(p, up);
    out[i + 2] = dot(p, toEye);
  }
  return out;
}

/** How points are put into the picture, and the size of what is in it. */
function fit(flat: Float32Array, w: number, h: number) {
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let i = 0; i < flat.length; i += 3) {
    x0 = Math.min(x0, flat[i]!);
    x1 = Math.max(x1, flat[i]!);
    y0 = Math.min(y0, flat[i + 1]!);
    y1 = Math.max(y1, flat[i + 1]!);
  }
  const size = Math.max(x1 - x0, y1 - y0, 1e-9);
  const k = (1 - 2 * MARGIN) * Math.min(w / Math.max(x1 - x0, 1e-9), h / Math.max(y1 - y0, 1e-9));
  return {
    size,
    x: (x: number): number => w / 2 + k * (x - (x0 + x1) / 2),
    y: (y: number): number => h / 2 - k * (y - (y0 + y1) / 2),
  };
}

function shadeOf({ positions: p, triangles }: Pick<PartMesh, 'positions' | 'triangles'>, t: number): number {
  const [a, b, c] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!];
  const [ux, uy, uz] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!];
  const [vx, vy, vz] = [p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!];
  const [x, y, z] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  const length = Math.sqrt(x * x + y * y + z * z) || 1;
  const light = (x * LIGHT[0] + y * LIGHT[1] + z * LIGHT[2]) / length;
  return DIM + (BRIGHT - DIM) * Math.max(0, light);
}

/** The `t`-th corners' triangle, where nothing nearer is drawn. */
function fill(p: Float32Array, triangles: Uint32Array, t: number, shade: number, canvas: Canvas): void {
  const { w, h, depth, grey } = canvas;
  const [a, b, c] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!];
  const [ax, ay, az] = [p[a]!, p[a + 1]!, p[a + 2]!];
  const [bx, by, bz] = [p[b]!, p[b + 1]!, p[b + 2]!];
  const [cx, cy, cz] = [p[c]!, p[c + 1]!, p[c + 2]!];
  const area = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
  if (area === 0) return;
  const from = Math.max(0, Math.floor(Math.min(ay, by, cy)));
  const to = Math.min(h - 1, Math.ceil(Math.max(ay, by, cy)));
  const left = Math.max(0, Math.floor(Math.min(ax, bx, cx)));
  const end = Math.min(w - 1, Math.ceil(Math.max(ax, bx, cx)));
  for (let y = from; y <= to; y++) {
    for (let x = left; x <= end; x++) {
      const [px, py] = [x + 0.5, y + 0.5];
      const u = ((bx - px) * (cy - py) - (cx - px) * (by - py)) / area;
      const v = ((cx - px) * (ay - py) - (ax - px) * (cy - py)) / area;
      if (u < 0 || v < 0 || u + v > 1) continue;
      const z = u * az + v * bz + (1 - u - v) * cz;
      const i = y * w + x;
      if (z <= depth[i]!) continue;
      depth[i] = z;
      grey[i] = shade;
    }
  }
}

/** The line between the points at `i` and behind it. */
function stroke(p: Float32Array, i: number, bias: number, { w, h, depth, grey }: Canvas): void {
  const [ax, ay, az] = [p[i]!, p[i + 1]!, p[i + 2]!];
  const [bx, by, bz] = [p[i + 3]!, p[i + 4]!, p[i + 5]!];
  const steps = Math.max(1, Math.ceil(Math.max(Math.abs(bx - ax), Math.abs(by - ay))));
  for (let s = 0; s <= steps; s++) {
    const t = s / steps;
    const [x, y] = [Math.floor(ax + t * (bx - ax)), Math.floor(ay + t * (by - ay))];
    if (x < 0 || y < 0 || x >= w || y >= h) continue;
    const z = az + t * (bz - az) + bias;
    const at = y * w + x;
    if (z < depth[at]!) continue;
    depth[at] = z;
    grey[at] = EDGE;
  }
}

/** The fine picture made small, each pixel the mean of what is drawn in it, as opaque as it is covered. */
function shrink(grey: Float32Array, depth: Float32Array, width: number, height: number): Picture {
  const pixels = new Uint8ClampedArray(4 * width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let [sum, count] = [0, 0];
      for (let dy = 0; dy < FINE; dy++) {
        for (let dx = 0; dx < FINE; dx++) {
          const i = (FINE * y + dy) * FINE * width + FINE * x + dx;
          if (depth[i] === -Infinity) continue;
          sum += grey[i]!;
          count++;
        }
      }
      const to = 4 * (y * width + x);
      const shade = count > 0 ? sum / count : 0;
      pixels.set([shade, shade, shade, (255 * count) / (FINE * FINE)], to);
    }
  }
  return { width, height, pixels };
}
