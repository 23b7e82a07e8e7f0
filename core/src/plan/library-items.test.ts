import { describe, expect, it } from 'vitest';
import { SHIPPED_METHODS } from '../methods/shipped.ts';
import { LIBRARY, TOOLS } from '../testing/fixtures.ts';
import { LISTS, readItem } from './library-items.ts';

const tool = { ...TOOLS[0]!, id: 'new', number: null };

describe('what goes into the shop’s lists', () => {
  it('is taken where it is sound', () => {
    expect(readItem('tools', tool, LIBRARY)).toEqual({ item: tool });
    for (const m of SHIPPED_METHODS) expect(readItem('methods', m, LIBRARY)).toEqual({ item: m });
  });

  it.each([
    ['a number that holds another tool', { number: TOOLS[1]!.number }, 'is free'],
    ['a holder that there is not', { holderId: 'gone' }, 'gone'],
    ['a shape that cannot be', { fluteLength: 900 }, 'longer than the whole tool'],
    ['a negative stick-out', { stickOut: -3 }, 'stickOut'],
    ['no diameter', { diameter: undefined }, 'diameter'],
  ])('%s is refused with the reason', (_, change, words) => {
    const read = readItem('tools', { ...tool, ...change }, LIBRARY);
    expect('why' in read && read.why).toContain(words);
  });

  it('a method names kinds and numbers that there are, and sums that say something', () => {
    const method = SHIPPED_METHODS[0]!;
    const why = (operations: unknown): string => {
      const read = readItem('methods', { ...method, operations }, LIBRARY);
      return 'why' in read ? read.why : '';
    };
    expect(why([{ kind: 'hammer' }])).toContain('there is no "hammer"');
    expect(why([{ kind: 'spot', set: { depht: 3 } }])).toContain(
      '"depht" is no number of it. It has rim, tip, share, dwell',
    );
    expect(why([{ kind: 'spot', set: { rim: 'length + 1' } }])).toContain('"length"');
    expect(why([{ kind: 'drill', set: { cycle: 'sideways' } }])).toContain('use one of straight');
    expect(why([{ kind: 'drill', set: { cycle: 'dwell' } }])).toBe('');
    expect(why([{ kind: 'drill', or: ['hammer'] }])).toContain('in its place');
  });

  it('what others need stays: a holder with tools in it, the only material', () => {
    expect(LISTS.holders.kept(LIBRARY.holders[0]!, LIBRARY)).toContain('tools stand in it');
    expect(LISTS.materials.kept(LIBRARY.materials[0]!, LIBRARY)).toContain('only material');
    expect(LISTS.tools.kept(TOOLS[0]!, LIBRARY)).toBeNull();
  });
});
