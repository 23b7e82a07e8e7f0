import { describe, expect, it } from 'vitest';
import { moveTime } from './time.ts';

describe('moveTime (handbook numbers)', () => {
  it('long and short moves', () => {
    expect(moveTime(100, 250, 3000)).toBeCloseTo(0.4833, 4);
    expect(moveTime(10, 250, 3000)).toBeCloseTo(0.1155, 4);
  });
  it('joins without a jump where the full speed is just reached', () => {
    const s = (250 * 250) / 3000;
    expect(moveTime(s - 1e-9, 250, 3000)).toBeCloseTo(moveTime(s, 250, 3000), 6);
  });
  it('takes no time for no way', () => expect(moveTime(0, 250, 3000)).toBe(0));
});
