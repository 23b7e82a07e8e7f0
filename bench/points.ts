import type { Point } from '@yellow-pin/core/order/tour';

/** The same scattered points every time (a small linear congruential generator). */
export function randomPoints(n: number, seed = 1): Point[] {
  let s = seed;
  const next = (): number => (s = (Math.imul(s, 1664525) + 1013904223) >>> 0) / 4294967296;
  return Array.from({ length: n }, () => [next() * 1000, next() * 700] as const);
}
