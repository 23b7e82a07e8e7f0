import { describe, expect, it } from 'vitest';
import { cross, dot } from '../geometry/vec.ts';
import { hole } from '../testing/fixtures.ts';
import { chooseSides, setupsFor } from './choose-setups.ts';
import { newPlan, newSetup, planSchema, SIDES } from './plan.ts';
import { setupFrame, sideDirection, zeroInWords } from './setup-frame.ts';
import { toFrame } from '../geometry/frame.ts';

const bounds = { min: [10, 20, 30] as [number, number, number], max: [110, 80, 70] as [number, number, number] };

describe('setup frames', () => {
  it.each(SIDES)('%s is up, right-handed, zero on top of the stock', (side) => {
    const { frame, stock, part } = setupFrame(newSetup('s', 'n', side), bounds);
    expect(frame.z).toEqual(sideDirection(side));
    expect(dot(cross(frame.x, frame.y), frame.z)).toBeCloseTo(1);
    expect(stock.max[2]).toBeCloseTo(0);
    expect(part.min[0] + part.max[0]).toBeCloseTo(0);
    const size = part.max.map((v, i) => v - part.min[i]!).sort((a, b) => a - b);
    expect(size).toEqual([40, 60, 100]);
  });

  it('puts all 27 zeros on the stock box', () => {
    for (const x of [-1, 0, 1] as const)
      for (const y of [-1, 0, 1] as const)
        for (const z of [-1, 0, 1] as const) {
          const setup = {
            ...newSetup('s', 'n', '+Z'),
            zero: { of: 'stock' as const, x, y, z },
            stock: { state: 'block' as const, xLow: 2, xHigh: 4, yLow: 0, yHigh: 0, zLow: 0, zHigh: 3 },
          };
          const { frame, stock } = setupFrame(setup, bounds);
          const expected = [
            [8, 61, 114],
            [20, 50, 80],
            [30, 51.5, 73],
          ].map((p, i) => p[[x, y, z][i]! + 1]!);
          expect(frame.origin).toEqual(expected);
          expect(toFrame(frame, [8, 20, 30])).toEqual(stock.min.map((v) => v + 0));
        }
  });

  it('says zero in words', () => {
    const say = (x: -1 | 0 | 1, y: -1 | 0 | 1, z: -1 | 0 | 1) => zeroInWords({ ...newSetup('s', 'n', '+Z'), zero: { of: 'part', x, y, z } });
    expect(say(0, 0, 1)).toBe('centre, top of part');
    expect(say(-1, -1, 1)).toBe('left front corner, top of part');
    expect(say(1, 0, -1)).toBe('right edge, middle, bottom of part');
  });
});

describe('chosen sides', () => {
  const side = (d: [number, number, number]) => hole({ axis: d, reachableFrom: [d] });
  it('cover every reachable feature with the most rewarding first', () => {
    const features = [
      side([0, 1, 0]),
      side([0, 1, 0]),
      side([1, 0, 0]),
      hole({
        kind: 'through',
        axis: [0, 1, 0],
        reachableFrom: [
          [0, 1, 0],
          [0, -1, 0],
        ],
      }),
    ];
    expect(chooseSides(features)).toEqual(['+Y', '+X']);
    expect(setupsFor(['+Y', '+X']).map((s) => [s.name, s.workOffset])).toEqual([
      ['back up', 'G54'],
      ['right up', 'G55'],
    ]);
  });
  it('are the top where there is nothing to reach', () => expect(chooseSides([hole({ reachableFrom: [] })])).toEqual(['+Z']));
});

describe('the plan document', () => {
  it('passes its own schema and refuses nonsense', () => {
    const plan = newPlan('mm', 'm', 'x');
    expect(planSchema.parse(JSON.parse(JSON.stringify(plan)))).toEqual(plan);
    for (const wrong of [
      { ...plan, setups: [] },
      { ...plan, units: 'ell' },
      { ...plan, format: 'yellow-pin/plan@2' },
      { ...plan, setups: [{ ...plan.setups[0], clearance: -1 }] },
    ]) {
      expect(planSchema.safeParse(wrong).success).toBe(false);
    }
  });
});
