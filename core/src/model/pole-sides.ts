import type { Flat } from './triangulate.ts';

/** Pieces in which a pole is stretched all round. */
export const POLE_STEPS = 24;

/**
 * A pole is one place and a whole side of the picture: where the border beside it rises and falls, triangles must not span it from one end to
 * the other. Puts points along such a side, all of them the pole; gives whether it did.
 */
export function stretchPoles(loops: Flat[][], step: number): boolean {
  let done = false;
  loops.forEach((loop, l) => {
    if (!loop.some((f, i) => loop[i + 1 === loop.length ? 0 : i + 1]!.point === f.point)) return;
    const isPoleSide = loop.map((f, i) => loop[(i + 1) % loop.length]!.point === f.point);
    const heights = loop.flatMap(({ v }, i) =>
      isPoleSide[i] || isPoleSide[(i + loop.length - 1) % loop.length] ? [] : [v],
    );
    if (isLevel(heights)) return;
    loops[l] = loop.flatMap((f, i) => {
      const g = loop[(i + 1) % loop.length]!;
      const n = isPoleSide[i] ? Math.max(1, Math.ceil(Math.abs(g.u - f.u) / step)) : 1;
      done ||= n > 1;
      return Array.from({ length: n }, (_, k) => (k === 0 ? f : { ...f, u: f.u + (k / n) * (g.u - f.u) }));
    });
  });
  return done;
}

/** Whether a border runs at one height, but for rounding. */
function isLevel(heights: readonly number[]): boolean {
  let [low, high] = [Infinity, -Infinity];
  for (const v of heights) [low, high] = [Math.min(low, v), Math.max(high, v)];
  return high - low < 1e-6;
}

/** The triangles that have three places. */
export function withoutFlat(triangles: readonly number[], flat: readonly Flat[]): number[] {
  const out: number[] = [];
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!];
    const [p, q, r] = [flat[a]!.point, flat[b]!.point, flat[c]!.point];
    if (p !== q && q !== r && r !== p) out.push(a, b, c);
  }
  return out;
}
