import { exactPath, MOST_EXACT } from './exact.ts';
/**
 * Shortest open tour through points from the first one: nearest neighbour, then 2-opt and Or-opt on neighbour lists,
 * then small local kicks (each undone unless it helps). The same answer for the same points every time.
 */
export interface Tour {
  order: number[];
  /** Total length in the points' unit, in three dimensions. */
  length: number;
}

export type Point = readonly [number, number] | readonly [number, number, number];

const NEIGHBOURS = 8;

/** `kicks`: how many local kicks to try; the default grows with the number of points and is capped to stay under a second. */
export function shortestTour(points: readonly Point[], kicks = Math.min(20_000, points.length * 30)): Tour {
  const n = points.length;
  if (n === 0) return { order: [], length: 0 };
  if (n <= 2) return { order: points.map((_, i) => i), length: n === 2 ? gap(points[0]!, points[1]!) : 0 };
  const tour = new OpenTour(points);
  tour.improve();
  tour.perturb(kicks);
  const order = tour.path();
  const length = tourLength(points, order);
  if (n > MOST_EXACT) return { order, length };
  // Of a few points the best is known; where the search found one as short, it stays.
  const exact = exactPath(n, (a, b) => gap(points[a]!, points[b]!));
  const least = tourLength(points, exact);
  return least < length - 1e-9 ? { order: exact, length: least } : { order, length };
}

export function tourLength(points: readonly Point[], order: readonly number[]): number {
  let sum = 0;
  for (let i = 1; i < order.length; i++) sum += gap(points[order[i - 1]!]!, points[order[i]!]!);
  return sum;
}

function gap(a: Point, b: Point): number {
  const [x, y, z] = [a[0] - b[0], a[1] - b[1], (a[2] ?? 0) - (b[2] ?? 0)];
  return Math.sqrt(x * x + y * y + z * z);
}

/** A path with its first point fixed, as an array with positions; moves are reversals of stretches. */
class OpenTour {
  private readonly n: number;
  private readonly xyz: Float64Array;
  private readonly order: Int32Array;
  private readonly at: Int32Array;
  private readonly near: Int32Array;
  private readonly k: number;
  private queue: number[] = [];
  private readonly queued: Uint8Array;
  /** Reversals since the last mark, so that a kick that does not help can be undone. */
  private log: number[] = [];
  private seed = 12345;

  constructor(points: readonly Point[]) {
    this.n = points.length;
    this.xyz = new Float64Array(this.n * 3);
    points.forEach((p, i) => this.xyz.set([p[0], p[1], p[2] ?? 0], 3 * i));
    this.k = Math.min(NEIGHBOURS, this.n - 1);
    this.near = this.neighbourLists();
    this.order = this.nearestNext();
    this.at = new Int32Array(this.n);
    this.order.forEach((p, i) => (this.at[p] = i));
    this.queued = new Uint8Array(this.n);
  }

  path(): number[] {
    return Array.from(this.order);
  }

  improve(): void {
    for (let i = 0; i < this.n; i++) this.push(this.order[i]!);
    this.drain();
    this.log = [];
  }

  /** Double-bridge kicks over a short stretch; the neighbourhood is improved again and the change kept only if it is shorter. */
  perturb(kicks: number): void {
    if (this.n < 8) return;
    const reach = Math.min(50, this.n - 2);
    for (let kick = 0; kick < kicks; kick++) {
      this.log = [];
      const start = 1 + this.random(Math.max(1, this.n - reach - 1));
      const cuts = [start + this.random(reach), start + this.random(reach), start + this.random(reach)].sort(
        (a, b) => a - b,
      );
      const [i, j, l] = cuts as [number, number, number];
      if (i === j || j === l || l >= this.n) continue;
      // Swapping the stretches [i, j) and [j, l) is three reversals.
      let gain = this.edge(i - 1, i) + this.edge(j - 1, j) + (l < this.n ? this.edge(l - 1, l) : 0);
      const touched = [i - 1, i, j - 1, j, l - 1, l].filter((p) => p < this.n).map((p) => this.order[p]!);
      this.reverse(i, l - 1);
      this.reverse(i, i + (l - j) - 1);
      this.reverse(i + (l - j), l - 1);
      const m = i + (l - j);
      gain -= this.edge(i - 1, i) + this.edge(m - 1, m) + (l < this.n ? this.edge(l - 1, l) : 0);
      for (const p of touched) this.push(p);
      gain += this.drain();
      if (gain < -1e-12) this.undo();
    }
  }

  private undo(): void {
    for (let i = this.log.length - 2; i >= 0; i -= 2) this.flip(this.log[i]!, this.log[i + 1]!);
    this.log = [];
  }

  private random(below: number): number {
    this.seed = (Math.imul(this.seed, 1664525) + 1013904223) >>> 0;
    return Math.floor((this.seed / 4294967296) * below);
  }

  private d(a: number, b: number): number {
    const { xyz } = this;
    const x = xyz[3 * a]! - xyz[3 * b]!;
    const y = xyz[3 * a + 1]! - xyz[3 * b + 1]!;
    const z = xyz[3 * a + 2]! - xyz[3 * b + 2]!;
    return Math.sqrt(x * x + y * y + z * z);
  }

  private edge(i: number, j: number): number {
    return this.d(this.order[i]!, this.order[j]!);
  }

  private push(p: number): void {
    if (this.queued[p]) return;
    this.queued[p] = 1;
    this.queue.push(p);
  }

  /** Improves round all queued points; returns the length saved. */
  private drain(): number {
    let saved = 0;
    for (let head = 0; head < this.queue.length; head++) {
      const p = this.queue[head]!;
      this.queued[p] = 0;
      for (let gain = this.improveAt(p); gain > 0; gain = this.improveAt(p)) saved += gain;
    }
    this.queue = [];
    return saved;
  }

  private improveAt(p: number): number {
    return this.twoOpt(p) || this.orOpt(p);
  }

  private twoOpt(p: number): number {
    const { order, at, n } = this;
    const i = at[p]!;
    // Forward: edge (p, next). Reversing (i+1 … j) links p to order[j].
    const next = i + 1 < n ? order[i + 1]! : -1;
    const dNext = next >= 0 ? this.d(p, next) : 0;
    for (let m = 0; m < this.k && next >= 0; m++) {
      const q = this.near[p * this.k + m]!;
      const dq = this.d(p, q);
      if (dq >= dNext) break;
      const j = at[q]!;
      const [lo, hi] = i < j ? [i, j] : [j, i];
      if (this.tryReverse(lo + 1, hi)) return this.last;
    }
    // Backward: edge (previous, p). Reversing (i … j-1) links p to order[j]; the path's end is free.
    const before = i > 0 ? order[i - 1]! : -1;
    const dBefore = before >= 0 ? this.d(before, p) : 0;
    for (let m = 0; m < this.k && before >= 0; m++) {
      const q = this.near[p * this.k + m]!;
      if (this.d(p, q) >= dBefore) break;
      const j = at[q]!;
      if (j > i ? this.tryReverse(i, j - 1) : j >= 1 && this.tryReverse(j, i - 1)) return this.last;
    }
    // The path's end is free: everything from p on may be turned round.
    if (i > 0 && this.tryReverse(i, n - 1)) return this.last;
    return 0;
  }

  private last = 0;

  private tryReverse(i: number, j: number): boolean {
    if (i < 1 || i >= j) return false;
    const { order, n } = this;
    const a = order[i - 1]!;
    const b = order[i]!;
    const c = order[j]!;
    const e = j + 1 < n ? order[j + 1]! : -1;
    const gain = this.d(a, b) + (e >= 0 ? this.d(c, e) : 0) - this.d(a, c) - (e >= 0 ? this.d(b, e) : 0);
    if (gain < 1e-10) return false;
    this.reverse(i, j);
    for (const p of [a, b, c]) this.push(p);
    if (e >= 0) this.push(e);
    this.last = gain;
    return true;
  }

  /** Moves a stretch of one to three points that begins or ends at `p` next to one of p's neighbours. */
  private orOpt(p: number): number {
    const { order, at, n } = this;
    for (let length = 1; length <= 3; length++) {
      for (const end of [0, 1]) {
        const i = end === 0 ? at[p]! : at[p]! - length + 1;
        const j = i + length - 1;
        if (i < 1 || j >= n) continue;
        const before = order[i - 1]!;
        const after = j + 1 < n ? order[j + 1]! : -1;
        const removed =
          this.d(before, order[i]!) + (after >= 0 ? this.d(order[j]!, after) - this.d(before, after) : 0);
        const other = end === 0 ? order[j]! : order[i]!;
        for (let m = 0; m < this.k; m++) {
          const q = this.near[p * this.k + m]!;
          const link = this.d(p, q);
          if (link >= removed) break;
          const t = at[q]!;
          if (t >= i && t <= j) continue;
          // After q: q p … other next(q). Before q: previous(q) other … p q.
          for (const afterQ of [true, false]) {
            const [l, r] = afterQ ? [t, t + 1] : [t - 1, t];
            if (l < 0 || (l >= i && l <= j) || (r >= i && r <= j)) continue;
            const far = afterQ ? (r < n ? order[r]! : -1) : order[l]!;
            const added = link + (far >= 0 ? this.d(other, far) - this.d(q, far) : 0);
            const gain = removed - added;
            if (gain < 1e-10) continue;
            const first = afterQ ? p : other;
            this.moveStretch(i, j, l, order[i]! !== first);
            for (const x of [before, p, other, q]) this.push(x);
            if (after >= 0) this.push(after);
            if (far >= 0) this.push(far);
            return gain;
          }
        }
      }
    }
    return 0;
  }

  /** Puts [i…j] between positions l and l+1, turned round or not, by reversals. */
  private moveStretch(i: number, j: number, l: number, turn: boolean): void {
    const size = j - i + 1;
    if (l > j) {
      this.reverse(i, l);
      this.reverse(i, l - size);
      if (!turn) this.reverse(l - size + 1, l);
    } else {
      this.reverse(l + 1, j);
      this.reverse(l + 1 + size, j);
      if (!turn) this.reverse(l + 1, l + size);
    }
  }

  private reverse(i: number, j: number): void {
    if (i >= j) return;
    this.log.push(i, j);
    this.flip(i, j);
  }

  private flip(i: number, j: number): void {
    const { order, at } = this;
    for (let a = i, b = j; a < b; a++, b--) {
      const t = order[a]!;
      order[a] = order[b]!;
      order[b] = t;
      at[order[a]!] = a;
      at[order[b]!] = b;
    }
  }

  private nearestNext(): Int32Array {
    const out = new Int32Array(this.n);
    const used = new Uint8Array(this.n);
    used[0] = 1;
    for (let i = 1, p = 0; i < this.n; i++) {
      let best = -1;
      for (let m = 0; m < this.k && best < 0; m++)
        if (!used[this.near[p * this.k + m]!]) best = this.near[p * this.k + m]!;
      if (best < 0) {
        let shortest = Infinity;
        for (let q = 0; q < this.n; q++) {
          if (used[q]) continue;
          const d = this.d(p, q);
          if (d < shortest) [shortest, best] = [d, q];
        }
      }
      out[i] = p = best;
      used[p] = 1;
    }
    return out;
  }

  /** The k nearest of each point, nearest first, by sorting along X and looking outward until nothing nearer can come. */
  private neighbourLists(): Int32Array {
    const { n, k, xyz } = this;
    const byX = Int32Array.from({ length: n }, (_, i) => i).sort(
      (a, b) => xyz[3 * a]! - xyz[3 * b]! || a - b,
    );
    const out = new Int32Array(n * k);
    byX.forEach((p, i) => {
      const best: { q: number; d: number }[] = [];
      const consider = (q: number): boolean => {
        const worst = best.length === k ? best[k - 1]!.d : Infinity;
        if (Math.abs(xyz[3 * q]! - xyz[3 * p]!) > worst) return false;
        const d = this.d(p, q);
        if (d < worst) {
          let m = best.length === k ? k - 1 : best.length;
          while (m > 0 && best[m - 1]!.d > d) {
            best[m] = best[m - 1]!;
            m--;
          }
          best[m] = { q, d };
        }
        return true;
      };
      let [lo, hi] = [i - 1, i + 1];
      let [left, right] = [lo >= 0, hi < n];
      while (left || right) {
        if (left) left = consider(byX[lo]!) && --lo >= 0;
        if (right) right = consider(byX[hi]!) && ++hi < n;
      }
      best.forEach((b, m) => (out[p * k + m] = b.q));
    });
    return out;
  }
}
