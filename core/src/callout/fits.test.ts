import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fitLimits, gradeOf } from './fits.ts';

describe('fits of ISO 286-1', () => {
  it.each([
    ['H', 7, 8, 0, 15],
    ['H', 7, 10, 0, 15],
    ['H', 7, 10.001, 0, 18],
    ['H', 11, 50, 0, 160],
    ['F', 7, 25, 20, 41],
    ['G', 6, 40, 9, 25],
    ['E', 8, 6, 20, 38],
    ['D', 10, 100, 120, 260],
    ['JS', 7, 30, -10.5, 10.5],
  ])('%s%d at %d mm', (letter, grade, diameter, lower, upper) => {
    const limits = fitLimits(letter, grade, diameter);
    expect(limits.lower! * 1000).toBeCloseTo(lower, 6);
    expect(limits.upper! * 1000).toBeCloseTo(upper, 6);
  });
  it.each([
    [3, 10],
    [6, 12],
    [10, 15],
    [18, 18],
    [30, 21],
    [50, 25],
    [80, 30],
  ])('H7 up to %d mm is nought to +%d µm', (diameter, upper) => {
    const limits = fitLimits('H', 7, diameter);
    expect([limits.lower, Math.round(limits.upper! * 1000)]).toEqual([0, upper]);
  });
  it('keep their name where their limits are not known here', () => {
    expect(fitLimits('K', 7, 20)).toEqual({ fit: 'K7' });
    expect(fitLimits('H', 7, 600)).toEqual({ fit: 'H7' });
    expect(fitLimits('H', 4, 20)).toEqual({ fit: 'H4' });
  });
  it('are told apart by their grade', () => {
    const grade = fc.integer({ min: 5, max: 13 });
    fc.assert(
      fc.property(grade, fc.double({ min: 0.5, max: 500, noNaN: true }), (g, d) => {
        const { lower, upper } = fitLimits('F', g, d);
        expect(gradeOf(upper! - lower!, d)).toBe(g);
      }),
    );
    expect(gradeOf(5, 8)).toBeNull();
    expect(gradeOf(0.1, 900)).toBeNull();
  });
});
