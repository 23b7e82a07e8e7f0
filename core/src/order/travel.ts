import { at } from '../lists.ts';
import { shortestTour } from './tour.ts';

/** Tours worked out lately: spot, drill and tap visit the same holes, and a changed number moves none. */
const lately = new Map<string, number[]>();
const KEPT = 200;

/** First the hole nearest the front left, then the shortest way on. */
export function travelOrder<T extends { x: number; y: number }>(holes: T[]): T[] {
  if (holes.length < 3) return holes;
  const key = holes.map((h) => `${h.x},${h.y}`).join(' ');
  let order = lately.get(key);
  if (!order) {
    order = tourFromFrontLeft(holes);
    const oldest = lately.keys().next();
    if (lately.size >= KEPT && !oldest.done) lately.delete(oldest.value);
    lately.set(key, order);
  }
  return order.map((i) => at(holes, i));
}

function tourFromFrontLeft(holes: readonly { x: number; y: number }[]): number[] {
  const start = holes.reduce((m, h, i) => (h.x + h.y < at(holes, m).x + at(holes, m).y - 1e-9 ? i : m), 0);
  const rest = [start, ...holes.keys()].filter((k, i) => i === 0 || k !== start);
  return shortestTour(rest.map((k) => [at(holes, k).x, at(holes, k).y] as const)).order.map((i) =>
    at(rest, i),
  );
}
