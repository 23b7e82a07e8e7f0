import { describe, expect, it } from 'vitest';
import type { StackStep } from '../features/hole/schema.ts';
import { hole } from '../testing/fixtures.ts';
import { chooseDirections, setupsFor } from './choose-setups.ts';

const cyl = (diameter: number, length: number): StackStep => ({ shape: 'cylinder', diameter, length });
const through = (stack: StackStep[]) =>
  hole({ kind: 'through', bottom: { shape: 'open' }, depth: 30, stack });

describe('the directions that a part is made from', () => {
  it('are as few as reach everything', () => {
    expect(chooseDirections([through([cyl(8, 30)]), hole()])).toEqual([[0, 0, 1]]);
    expect(chooseDirections([])).toEqual([[0, 0, 1]]);
    const side = hole({ axis: [1, 0, 0], reachableFrom: [[1, 0, 0]] });
    expect(chooseDirections([hole(), hole(), side])).toEqual([
      [0, 0, 1],
      [1, 0, 0],
    ]);
  });

  it('look at every end of a hole that widens: what is on the far side is made from there', () => {
    const below = through([cyl(7.3, 22), cyl(14, 8)]);
    // Alone it is made from its wide end whole; with what needs the top, from both.
    expect(chooseDirections([below])).toEqual([[0, 0, -1]]);
    expect(chooseDirections([below, hole(), hole()])).toEqual([
      [0, 0, 1],
      [0, 0, -1],
    ]);
    expect(chooseDirections([through([cyl(14, 8), cyl(7.3, 14), cyl(14, 8)])])).toHaveLength(2);
  });

  it('leave out an end that no tool reaches', () => {
    const shut = {
      ...through([cyl(7.3, 22), cyl(14, 8)]),
      reachableFrom: [[0, 0, 1]] as [number, number, number][],
    };
    expect(chooseDirections([shut])).toEqual([[0, 0, 1]]);
  });
});

describe('setups for directions', () => {
  it('are named by the side that is up, each on its own work offset', () => {
    const setups = setupsFor([
      [0, 0, 1],
      [1, 0, 0],
      [0, 0, -1],
    ]);
    expect(setups.map((s) => [s.name, s.workOffset])).toEqual([
      ['top up', 'G54'],
      ['right up', 'G55'],
      ['bottom up', 'G56'],
    ]);
    const askew = setupsFor([
      [0.6, 0, 0.8],
      [0, 0.6, 0.8],
    ]);
    expect(askew.map((s) => s.name)).toEqual(['tilted 1', 'tilted 2']);
  });
});
