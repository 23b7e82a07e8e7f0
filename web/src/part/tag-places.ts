/** Room that one tag takes, px. */
export const ROOM = 27;
/** A tag of what is in hand moves at most this far from its place, in steps round it. */
const RINGS = [34, 62, 90];
const DIRECTIONS = 12;

/** Where tags stand already, by squares as large as one tag: near ones are found without looking at all. */
export class Taken {
  private readonly cells = new Map<number, [number, number][]>();

  private key(x: number, y: number): number {
    return Math.floor(x / ROOM) * 65536 + Math.floor(y / ROOM);
  }

  isFree(x: number, y: number): boolean {
    for (let dx = -1; dx <= 1; dx++)
      for (let dy = -1; dy <= 1; dy++)
        for (const [a, b] of this.cells.get(this.key(x + dx * ROOM, y + dy * ROOM)) ?? [])
          if (Math.abs(a - x) < ROOM && Math.abs(b - y) < ROOM) return false;
    return true;
  }

  add(x: number, y: number): void {
    const key = this.key(x, y);
    const cell = this.cells.get(key);
    if (cell) cell.push([x, y]);
    else this.cells.set(key, [[x, y]]);
  }
}

/**
 * A place for a tag that points at (x, y): there where it is free; beside it, the nearest first, where it may be spread; null where it has
 * to give way. The place is taken.
 */
export function placeTag(taken: Taken, x: number, y: number, mayMove: boolean): [number, number] | null {
  if (taken.isFree(x, y)) {
    taken.add(x, y);
    return [x, y];
  }
  if (!mayMove) return null;
  for (const r of RINGS) {
    for (let i = 0; i < DIRECTIONS; i++) {
      // Upward first: a pin stands over what it points at.
      const angle = -Math.PI / 2 + (i % 2 === 0 ? 1 : -1) * Math.ceil(i / 2) * ((2 * Math.PI) / DIRECTIONS);
      const [u, v] = [x + r * Math.cos(angle), y + r * Math.sin(angle)];
      if (!taken.isFree(u, v)) continue;
      taken.add(u, v);
      return [u, v];
    }
  }
  return null;
}
