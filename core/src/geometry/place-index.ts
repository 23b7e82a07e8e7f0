import { distance, type Vec3 } from './vec.ts';

/** Things by their place in space: those near a point without looking at all of them. */
export class PlaceIndex<T> {
  private readonly cells = new Map<string, { item: T; at: Vec3 }[]>();

  /** `cell`: width of a cell, mm; near means at most this. */
  constructor(private readonly cell: number) {}

  add(item: T, at: Vec3): void {
    const key = this.key(at, 0, 0, 0);
    const list = this.cells.get(key);
    if (list) list.push({ item, at });
    else this.cells.set(key, [{ item, at }]);
  }

  remove(item: T, at: Vec3): void {
    const list = this.cells.get(this.key(at, 0, 0, 0));
    const i = list?.findIndex((e) => e.item === item) ?? -1;
    if (i >= 0) list!.splice(i, 1);
  }

  /** What lies within `radius` (at most a cell) of a point. */
  near(at: Vec3, radius: number): T[] {
    const out: T[] = [];
    for (let i = -1; i <= 1; i++)
      for (let j = -1; j <= 1; j++)
        for (let k = -1; k <= 1; k++)
          for (const e of this.cells.get(this.key(at, i, j, k)) ?? [])
            if (distance(e.at, at) < radius) out.push(e.item);
    return out;
  }

  private key(at: Vec3, i: number, j: number, k: number): string {
    const c = this.cell;
    return `${Math.floor(at[0] / c) + i},${Math.floor(at[1] / c) + j},${Math.floor(at[2] / c) + k}`;
  }
}

/**
 * Pairs each of `from` with one of `to`, the nearest pairs first: in rounds, in each of which everyone left looks for its nearest and the
 * nearest of those pairs are made.
 */
export function nearestPairs<A, B>(
  from: readonly { item: A; at: Vec3 }[],
  to: readonly { item: B; at: Vec3 }[],
): [A, B][] {
  const out: [A, B][] = [];
  let left = [...from];
  let right = [...to];
  while (left.length > 0 && right.length > 0) {
    const finder = new NearestFinder(right);
    const pairs = left.map((a) => ({ a, b: finder.nearest(a.at) }));
    pairs.sort((p, q) => p.b.distance - q.b.distance);
    const used = new Set<unknown>();
    for (const { a, b } of pairs) {
      if (used.has(b.entry)) continue;
      used.add(a).add(b.entry);
      out.push([a.item, b.entry.item]);
    }
    left = left.filter((a) => !used.has(a));
    right = right.filter((b) => !used.has(b));
  }
  return out;
}

/** Points sorted along X; the nearest is looked for outward from where it would stand. */
class NearestFinder<B> {
  private readonly sorted: { item: B; at: Vec3 }[];

  constructor(points: readonly { item: B; at: Vec3 }[]) {
    this.sorted = [...points].sort((p, q) => p.at[0] - q.at[0] || p.at[1] - q.at[1] || p.at[2] - q.at[2]);
  }

  nearest(at: Vec3): { entry: { item: B; at: Vec3 }; distance: number } {
    const { sorted } = this;
    let low = 0;
    let high = sorted.length;
    while (low < high) {
      const m = (low + high) >> 1;
      if (sorted[m]!.at[0] < at[0]) low = m + 1;
      else high = m;
    }
    let best = { entry: sorted[Math.min(low, sorted.length - 1)]!, distance: Infinity };
    const look = (i: number): boolean => {
      const entry = sorted[i];
      if (!entry || Math.abs(entry.at[0] - at[0]) > best.distance) return false;
      const d = distance(entry.at, at);
      if (d < best.distance) best = { entry, distance: d };
      return true;
    };
    for (let i = low; look(i); i++);
    for (let i = low - 1; look(i); i--);
    return best;
  }
}
