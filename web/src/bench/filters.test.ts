import { describe, expect, it } from 'vitest';
import { BOUNDS, hole, LIBRARY, plan } from '@yellow-pin/core/testing/fixtures';
import { deriveJob } from '@yellow-pin/core/job/derive';
import { choices, EVERYTHING, narrowTest } from './filters.ts';

const at = (x: number, z: number, diameter: number, axis: [number, number, number] = [0, 0, 1]) =>
  hole({
    entry: [x, 20, z],
    axis,
    reachableFrom: [axis],
    stack: [{ shape: 'cylinder', diameter, length: 20 }],
  });
const job = deriveJob({
  features: [at(10, 0, 5), at(30, -10, 6), at(50, 0, 8, [1, 0, 0])],
  bounds: BOUNDS,
  plan: plan(),
  library: LIBRARY,
});
const frame = job.setups[0]!.frame;
const shown = (n: Partial<typeof EVERYTHING>) =>
  job.rows.filter(narrowTest({ ...EVERYTHING, ...n }, frame, 'mm').test).map((r) => r.tag);

describe('the worksheet narrowed down', () => {
  it('by size or range, in either unit', () => {
    expect(shown({ range: '5' })).toHaveLength(1);
    expect(shown({ range: '5 – 6' })).toHaveLength(2);
    expect(shown({ range: '0.19in to 0.24in' })).toHaveLength(2);
    expect(narrowTest({ ...EVERYTHING, range: 'wide' }, frame, 'mm').error).toContain('wide');
  });
  it('by level, direction and kind', () => {
    expect(choices(job.rows, frame, 'mm')).toEqual({
      families: ['hole'],
      directions: ['+X', '+Z'],
      levels: ['0', '-10'],
    });
    expect(shown({ level: '-10' })).toHaveLength(1);
    expect(shown({ direction: '+X' })).toHaveLength(1);
    expect(shown({ family: 'slot' })).toHaveLength(0);
  });
});
