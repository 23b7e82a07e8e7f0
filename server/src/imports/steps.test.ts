import { describe, expect, it } from 'vitest';
import { ReadingSteps } from './steps.ts';

describe('the steps of a reading', () => {
  it('are said as they come, and a long one with its seconds', () => {
    const said: string[] = [];
    const steps = new ReadingSteps((share, text) => said.push(`${share} ${text}`));
    steps.tick(500);
    steps.step(0.1, 'reading solids', 1000);
    steps.tick(1500);
    steps.tick(2900);
    steps.tick(3000);
    steps.tick(3400);
    steps.tick(4000);
    steps.step(0.4, 'reading solids', 4500);
    steps.step(0.9, 'finding features', 6000);
    steps.tick(7000);
    expect(said).toEqual([
      '0.1 reading solids',
      '0.1 reading solids, 2 s',
      '0.1 reading solids, 3 s',
      '0.4 reading solids, 3 s',
      '0.9 finding features',
    ]);
  });
});
