import { at } from '../../lists.ts';
import { CYCLE_NUMBERS } from '../cycles.ts';
import { letter } from './blocks.ts';

/** Places of letters in {@link Block.words}. */
export const D = letter('D');
export const F = letter('F');
export const H = letter('H');
export const I = letter('I');
export const J = letter('J');
export const K = letter('K');
export const L = letter('L');
export const P = letter('P');
export const Q = letter('Q');
export const R = letter('R');
export const S = letter('S');
export const T = letter('T');
export const U = letter('U');
export const X = letter('X');
export const Y = letter('Y');
export const Z = letter('Z');
export const AXES = [X, Y, Z] as const;

export const has = (words: Float64Array, l: number): boolean => !Number.isNaN(at(words, l));

/** G words that move: four straight or round, and the cycles. */
export const MOVING = new Set([0, 1, 2, 3, ...CYCLE_NUMBERS]);
/** G words without motion of their own that may stand in any block. */
export const SETTINGS = new Set([
  17, 18, 19, 20, 21, 40, 41, 42, 43, 49, 53, 54, 55, 56, 57, 58, 59, 80, 90, 91, 94, 95, 98, 99, 28, 30, 4,
  90.1, 91.1,
]);
export const M_WORDS = new Set([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 19, 29, 30, 98, 99]);
