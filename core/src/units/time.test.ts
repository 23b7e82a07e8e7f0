import { expect, it } from 'vitest';
import { clockTime } from './time.ts';

it('times are minutes and seconds', () => {
  expect([0, 5.4, 59.6, 3725].map(clockTime)).toEqual(['00:00', '00:05', '01:00', '62:05']);
});
