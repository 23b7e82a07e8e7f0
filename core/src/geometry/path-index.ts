import { BoxGrid, type Box2 } from './box-grid.ts';
import { besidePath } from './parallel.ts';
import { segmentPoint, type Segment, type Vec2 } from './path.ts';

/** The box round a piece; an arc is taken by points on it and what it bulges between them. */
export function boxOfSegment(s: Segment): Box2 {
  const n = s.kind === 'arc' ? Math.max(2, Math.ceil(Math.abs(s.turn) / BULGE)) : 1;
  const points = Array.from({ length: n + 1 }, (_, i) => segmentPoint(s, i / n));
  const more = s.kind === 'arc' ? s.radius * (1 - Math.cos(Math.abs(s.turn) / n / 2)) : 0;
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
  return [Math.min(...xs) - more, Math.min(...ys) - more, Math.max(...xs) + more, Math.max(...ys) + more];
}

/** An arc is looked at in pieces that turn no more than this, radians. */
const BULGE = 0.5;

/** A chain of which it is asked again and again how near a place is to it. */
export class PathIndex {
  private readonly grid: BoxGrid<Segment>;

  /** `cell`: about as far as is asked, mm. */
  constructor(path: readonly Segment[], cell: number) {
    this.grid = new BoxGrid(Math.max(cell, 1e-3));
    for (const s of path) this.grid.add(s, boxOfSegment(s));
  }

  /** How far a place is from the chain, mm; Infinity where it is farther than `within`. */
  distance(p: Vec2, within: number): number {
    const off = this.grid
      .near(p[0], p[1], within)
      .reduce((least, s) => Math.min(least, Math.abs(besidePath([s], p).off)), Infinity);
    return off <= within ? off : Infinity;
  }
}
