import { describe, expect, it } from 'vitest';
import type { Correction } from '@yellow-pin/core/corrections/schema';
import { correctionInWords } from './words.ts';

const target = (family = 'hole') => ({
  family,
  at: [0, 0, 0] as [number, number, number],
  axis: [0, 0, 1] as [number, number, number],
});
const say = (c: Correction, unit: 'mm' | 'inch' = 'mm') => correctionInWords(c, unit);

describe('corrections in words', () => {
  it('say what, how many and how far, in the job’s unit', () => {
    const levels = {
      id: 'c',
      kind: 'levels' as const,
      targets: [target(), target()],
      raiseTop: 0,
      lowerBottom: 0,
      depth: 12.7,
    };
    expect(say(levels)).toBe('2 holes: depth 12.7');
    expect(say(levels, 'inch')).toBe('2 holes: depth 0.5');
    expect(say({ ...levels, depth: null, raiseTop: -1, lowerBottom: 2 })).toBe(
      '2 holes: top lowered by 1, bottom lowered by 2',
    );
    expect(say({ id: 'c', kind: 'dismiss', targets: [target('slot')] })).toBe('1 slot dismissed');
    expect(say({ id: 'c', kind: 'dismiss', targets: [target('slot'), target()] })).toBe(
      '2 features dismissed',
    );
    expect(say({ id: 'c', kind: 'approach', targets: [target()], from: [0, 0, -1] })).toBe(
      '1 hole made from -Z',
    );
    expect(say({ id: 'c', kind: 'split', targets: [target()], from: 8, to: 22 })).toBe(
      '1 hole split between 8 and 22',
    );
    expect(
      say({
        id: 'c',
        kind: 'made',
        feature: {
          family: 'hole',
          entry: [1, 2, 0],
          axis: [0, 0, 1],
          diameter: 6,
          depth: 9,
          through: false,
          faces: [],
        },
      }),
    ).toBe('hole ⌀6 put in at 1, 2, 0');
  });
});
