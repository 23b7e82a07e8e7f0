import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HOLE_PARTS, type MethodOperation } from '@yellow-pin/core/methods/schema';
import { kindsMoved } from './kinds-moved.ts';

const op = (kind: string, part: MethodOperation['part'] = 'hole'): MethodOperation => ({
  kind,
  part,
  set: {},
});
const BEFORE = [op('spot'), op('drill'), op('drill', 'pointed steps'), op('tap', 'thread')];

describe('operations whose typed numbers would belong to others', () => {
  it('are those of a kind that was added, taken out, or moved past its like', () => {
    expect(kindsMoved(BEFORE, BEFORE.slice(1))).toEqual(['spot']);
    expect(kindsMoved(BEFORE, [...BEFORE, op('ream')])).toEqual(['ream']);
    // The second drill becomes the first: what was typed for the first is not its own.
    expect(kindsMoved(BEFORE, [op('spot'), op('drill', 'pointed steps'), op('tap', 'thread')])).toEqual([
      'drill',
    ]);
    expect(kindsMoved(BEFORE, [BEFORE[0]!, BEFORE[2]!, BEFORE[1]!, BEFORE[3]!])).toEqual(['drill']);
  });

  it('are none where kinds change places with others: each keeps its own', () =>
    expect(kindsMoved(BEFORE, [BEFORE[3]!, BEFORE[0]!, BEFORE[1]!, BEFORE[2]!])).toEqual([]));

  it('never are those of a kind that nothing happened to', () => {
    const list = fc.array(
      fc.record({
        kind: fc.constantFrom('spot', 'drill', 'ream'),
        part: fc.constantFrom(...HOLE_PARTS),
        set: fc.constant({}),
      }),
    );
    fc.assert(
      fc.property(list, (a) => {
        expect(kindsMoved(a, [...a])).toEqual([]);
        expect(kindsMoved(a, [op('bore'), ...a])).toEqual(['bore']);
      }),
    );
  });
});
