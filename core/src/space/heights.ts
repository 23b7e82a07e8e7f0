import { toFrame, type Frame } from '../geometry/frame.ts';
import { length2, type Vec2 } from '../geometry/path.ts';
import { chained, cutOfTriangle } from '../model/section.ts';
import type { PartMesh } from '../model/mesh.ts';

const LEAF = 4;
/** Numbers a node takes: box in X and Y (4), its highest Z, first and last triangle, place of its right child (0: a leaf). */
const NODE = 8;

/** How many places are kept, and how many cuts. */
const KEPT = 100_000;
const KEPT_SECTIONS = 200;

/** How high a part's surface stands, looked at from a setup's direction. */
export interface Heights {
  /** Highest Z of the whole surface. */
  readonly top: number;
  /** Highest Z above `floor` within `r` of the line a-b as seen from above; -Infinity where nothing is. Exact for the mesh. */
  along(ax: number, ay: number, bx: number, by: number, r: number, floor: number): number;
  /** Highest Z above `floor` between `inner` and `outer` of the point; -Infinity where nothing is. */
  ring(x: number, y: number, inner: number, outer: number, floor: number): number;
  /** The surface cut at a level: closed runs of points. Looks at all triangles once; kept, since every change of a plan asks again. */
  section(level: number): Vec2[][];
  /** Highest Z within `r` of the point, whatever its height; kept, since every tool of a size asks for the same place. */
  column(x: number, y: number, r: number): number;
}

/** Builds the tree over a mesh in a setup's coordinates: n log n in triangles. */
export function heightsOf(mesh: PartMesh, frame: Frame): Heights {
  return new HeightTree(mesh, frame);
}

/**
 * A bounding-volume tree over triangles seen from above. The highest place of a triangle within a region is at one of its corners, where
 * an edge crosses the region's border, or where the border runs level with the slope: all are tried, nothing is sampled.
 */
class HeightTree implements Heights {
  private readonly xyz: Float64Array;
  private readonly order: Uint32Array;
  private readonly nodes: Float64Array;
  private readonly columns = new Map<string, number>();
  private readonly sections = new Map<number, Vec2[][]>();
  private used = 0;
  private readonly stack = new Uint32Array(256);
  // The region asked for, kept here so that a query makes no garbage.
  private ax = 0;
  private ay = 0;
  private bx = 0;
  private by = 0;
  private ux = 0;
  private uy = 0;
  private length = 0;
  private r = 0;
  private inner = -1;
  private best = 0;
  private x0 = 0;
  private x1 = 0;
  private y0 = 0;
  private y1 = 0;

  constructor({ positions, triangles }: PartMesh, frame: Frame) {
    const count = triangles.length / 3;
    const own = new Float64Array(9 * count);
    for (let i = 0; i < 3 * count; i++) {
      const at = 3 * triangles[i]!;
      const p = toFrame(frame, [positions[at]!, positions[at + 1]!, positions[at + 2]!]);
      own[3 * i] = p[0];
      own[3 * i + 1] = p[1];
      own[3 * i + 2] = p[2];
    }
    this.order = Uint32Array.from({ length: count }, (_, i) => i);
    this.nodes = new Float64Array(NODE * Math.max(1, 2 * count));
    if (count > 0) this.build(own, 0, count);
    this.xyz = new Float64Array(9 * count);
    for (let i = 0; i < count; i++) {
      const t = 9 * this.order[i]!;
      for (let k = 0; k < 9; k++) this.xyz[9 * i + k] = own[t + k]!;
    }
  }

  section(level: number): Vec2[][] {
    const known = this.sections.get(level);
    if (known) return known;
    const { xyz } = this;
    const sides: { from: Vec2; to: Vec2 }[] = [];
    for (let t = 0; t < xyz.length; t += 9) {
      const cut = cutOfTriangle(xyz, t, level);
      if (cut) sides.push(cut);
    }
    const rings = chained(sides).map((loop) => loop.map((s) => s.from));
    if (this.sections.size >= KEPT_SECTIONS) this.sections.clear();
    this.sections.set(level, rings);
    return rings;
  }

  get top(): number {
    return this.used > 0 ? this.nodes[4]! : -Infinity;
  }

  along(ax: number, ay: number, bx: number, by: number, r: number, floor: number): number {
    this.inner = -1;
    return this.query(ax, ay, bx, by, r, floor);
  }

  ring(x: number, y: number, inner: number, outer: number, floor: number): number {
    this.inner = inner;
    return this.query(x, y, x, y, outer, floor);
  }

  column(x: number, y: number, r: number): number {
    const key = `${x.toFixed(4)},${y.toFixed(4)},${r.toFixed(4)}`;
    let height = this.columns.get(key);
    if (height === undefined) {
      if (this.columns.size >= KEPT) this.columns.clear();
      this.columns.set(key, (height = this.along(x, y, x, y, r, -Infinity)));
    }
    return height;
  }

  private build(own: Float64Array, from: number, to: number): number {
    const { nodes, order } = this;
    const at = NODE * this.used++;
    let [x0, y0, x1, y1, z1] = [Infinity, Infinity, -Infinity, -Infinity, -Infinity];
    for (let i = from; i < to; i++) {
      const t = 9 * order[i]!;
      for (let k = t; k < t + 9; k += 3) {
        x0 = Math.min(x0, own[k]!);
        x1 = Math.max(x1, own[k]!);
        y0 = Math.min(y0, own[k + 1]!);
        y1 = Math.max(y1, own[k + 1]!);
        z1 = Math.max(z1, own[k + 2]!);
      }
    }
    nodes[at] = x0;
    nodes[at + 1] = y0;
    nodes[at + 2] = x1;
    nodes[at + 3] = y1;
    nodes[at + 4] = z1;
    nodes[at + 5] = from;
    nodes[at + 6] = to;
    if (to - from <= LEAF) return at;
    const axis = x1 - x0 >= y1 - y0 ? 0 : 1;
    const middle = this.partition(own, from, to, axis, axis === 0 ? (x0 + x1) / 2 : (y0 + y1) / 2);
    this.build(own, from, middle);
    nodes[at + 7] = this.build(own, middle, to);
    return at;
  }

  private partition(own: Float64Array, from: number, to: number, axis: number, split: number): number {
    const { order } = this;
    let i = from;
    for (let j = from; j < to; j++) {
      const t = order[j]!;
      const centre = (own[9 * t + axis]! + own[9 * t + 3 + axis]! + own[9 * t + 6 + axis]!) / 3;
      if (centre >= split) continue;
      order[j] = order[i]!;
      order[i++] = t;
    }
    return i === from || i === to ? (from + to) >> 1 : i;
  }

  private query(ax: number, ay: number, bx: number, by: number, r: number, floor: number): number {
    if (this.used === 0 || this.nodes[4]! <= floor) return -Infinity;
    const length = length2(bx - ax, by - ay);
    this.ax = ax;
    this.ay = ay;
    this.bx = bx;
    this.by = by;
    this.r = r;
    this.length = length;
    this.ux = length > 1e-12 ? (bx - ax) / length : 1;
    this.uy = length > 1e-12 ? (by - ay) / length : 0;
    this.best = floor;
    const { nodes, stack } = this;
    const x0 = (this.x0 = Math.min(ax, bx) - r);
    const x1 = (this.x1 = Math.max(ax, bx) + r);
    const y0 = (this.y0 = Math.min(ay, by) - r);
    const y1 = (this.y1 = Math.max(ay, by) + r);
    let depth = 0;
    stack[depth++] = 0;
    while (depth > 0) {
      const n = stack[--depth]!;
      if (nodes[n + 4]! <= this.best) continue;
      if (nodes[n]! > x1 || nodes[n + 2]! < x0 || nodes[n + 1]! > y1 || nodes[n + 3]! < y0) continue;
      const right = nodes[n + 7]!;
      if (right > 0) {
        const left = n + NODE;
        // The higher side first: what it finds cuts the other one short.
        const leftLast = nodes[left + 4]! >= nodes[right + 4]!;
        stack[depth++] = leftLast ? right : left;
        stack[depth++] = leftLast ? left : right;
        continue;
      }
      for (let i = nodes[n + 5]!; i < nodes[n + 6]!; i++) this.triangle(9 * i);
    }
    return this.best > floor ? this.best : -Infinity;
  }

  private triangle(t: number): void {
    const p = this.xyz;
    if (p[t + 2]! <= this.best && p[t + 5]! <= this.best && p[t + 8]! <= this.best) return;
    const [ax, bx, cx] = [p[t]!, p[t + 3]!, p[t + 6]!];
    if ((ax > this.x1 && bx > this.x1 && cx > this.x1) || (ax < this.x0 && bx < this.x0 && cx < this.x0))
      return;
    const [ay, by, cy] = [p[t + 1]!, p[t + 4]!, p[t + 7]!];
    if ((ay > this.y1 && by > this.y1 && cy > this.y1) || (ay < this.y0 && by < this.y0 && cy < this.y0))
      return;
    this.corner(ax, ay, p[t + 2]!);
    this.corner(bx, by, p[t + 5]!);
    this.corner(cx, cy, p[t + 8]!);
    this.edge(t, t + 3);
    this.edge(t + 3, t + 6);
    this.edge(t + 6, t);
    this.inside(t);
  }

  private corner(x: number, y: number, z: number): void {
    if (z > this.best && this.isIn(x, y)) this.best = z;
  }

  /** Squared distance from the line a-b. */
  private gap2(x: number, y: number): number {
    const [dx, dy] = [x - this.ax, y - this.ay];
    const s = Math.max(0, Math.min(this.length, dx * this.ux + dy * this.uy));
    const [ex, ey] = [dx - s * this.ux, dy - s * this.uy];
    return ex * ex + ey * ey;
  }

  private isIn(x: number, y: number): boolean {
    const d2 = this.gap2(x, y);
    return d2 <= this.r * this.r && (this.inner < 0 || d2 >= this.inner * this.inner);
  }

  /** Where an edge of a triangle crosses the region's border. */
  private edge(i: number, j: number): void {
    const p = this.xyz;
    const [x, y, z] = [p[i]!, p[i + 1]!, p[i + 2]!];
    const [dx, dy, dz] = [p[j]! - x, p[j + 1]! - y, p[j + 2]! - z];
    this.circle(this.ax, this.ay, this.r, x, y, z, dx, dy, dz);
    if (this.inner > 0) this.circle(this.ax, this.ay, this.inner, x, y, z, dx, dy, dz);
    if (this.length < 1e-12) return;
    this.circle(this.bx, this.by, this.r, x, y, z, dx, dy, dz);
    // The two straight sides: offset across the line is ±r.
    const across = (x - this.ax) * -this.uy + (y - this.ay) * this.ux;
    const rate = dx * -this.uy + dy * this.ux;
    if (Math.abs(rate) < 1e-12) return;
    for (const side of [this.r, -this.r]) {
      const s = (side - across) / rate;
      if (s <= 0 || s >= 1) continue;
      const along = (x + s * dx - this.ax) * this.ux + (y + s * dy - this.ay) * this.uy;
      if (along >= 0 && along <= this.length) this.best = Math.max(this.best, z + s * dz);
    }
  }

  private circle(
    cx: number,
    cy: number,
    r: number,
    x: number,
    y: number,
    z: number,
    dx: number,
    dy: number,
    dz: number,
  ): void {
    const a = dx * dx + dy * dy;
    if (a < 1e-18) return;
    const b = (x - cx) * dx + (y - cy) * dy;
    const c = (x - cx) ** 2 + (y - cy) ** 2 - r * r;
    const root = b * b - a * c;
    if (root < 0) return;
    const q = Math.sqrt(root);
    for (const s of [(-b - q) / a, (-b + q) / a]) {
      const h = z + s * dz;
      if (s <= 0 || s >= 1 || h <= this.best) continue;
      // On the border of one circle; it must lie within the region as a whole.
      const d2 = this.gap2(x + s * dx, y + s * dy);
      if (
        d2 <= this.r * this.r * (1 + 1e-9) &&
        (this.inner < 0 || d2 >= this.inner * this.inner * (1 - 1e-9))
      )
        this.best = h;
    }
  }

  /** The highest place of the region's border inside the triangle: where it runs level with the slope, and where its sides begin. */
  private inside(t: number): void {
    const p = this.xyz;
    const e1x = p[t + 3]! - p[t]!;
    const e1y = p[t + 4]! - p[t + 1]!;
    const e1z = p[t + 5]! - p[t + 2]!;
    const e2x = p[t + 6]! - p[t]!;
    const e2y = p[t + 7]! - p[t + 1]!;
    const e2z = p[t + 8]! - p[t + 2]!;
    const det = e1x * e2y - e2x * e1y;
    // Upright triangles have nothing but edges from above.
    if (Math.abs(det) < 1e-12) return;
    const gx = (e1z * e2y - e2z * e1y) / det;
    const gy = (e2z * e1x - e1z * e2x) / det;
    const slope = length2(gx, gy);
    const sx = slope > 1e-12 ? (this.r * gx) / slope : this.r;
    const sy = slope > 1e-12 ? (this.r * gy) / slope : 0;
    this.onFace(t, this.ax + sx, this.ay + sy, gx, gy, det);
    if (this.length < 1e-12) return;
    this.onFace(t, this.bx + sx, this.by + sy, gx, gy, det);
    const wx = -this.uy * this.r;
    const wy = this.ux * this.r;
    this.onFace(t, this.ax + wx, this.ay + wy, gx, gy, det);
    this.onFace(t, this.ax - wx, this.ay - wy, gx, gy, det);
    this.onFace(t, this.bx + wx, this.by + wy, gx, gy, det);
    this.onFace(t, this.bx - wx, this.by - wy, gx, gy, det);
  }

  /** Takes the height over (x, y) of a triangle with that slope, where the place lies in it and in the region. */
  private onFace(t: number, x: number, y: number, gx: number, gy: number, det: number): void {
    const p = this.xyz;
    const dx = x - p[t]!;
    const dy = y - p[t + 1]!;
    const z = p[t + 2]! + gx * dx + gy * dy;
    if (z <= this.best) return;
    const u = (dx * (p[t + 7]! - p[t + 1]!) - dy * (p[t + 6]! - p[t]!)) / det;
    const v = (dy * (p[t + 3]! - p[t]!) - dx * (p[t + 4]! - p[t + 1]!)) / det;
    if (u < -1e-9 || v < -1e-9 || u + v > 1 + 1e-9) return;
    const d2 = this.gap2(x, y);
    if (d2 <= this.r * this.r * (1 + 1e-9) && (this.inner < 0 || d2 >= this.inner * this.inner))
      this.best = z;
  }
}
