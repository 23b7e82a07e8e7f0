import { describe, expect, it } from 'vitest';
import { search } from './search.ts';

const things = [
  { kind: 'row', name: 'A', text: '4.2 ↧14 ×8, Holes, blind' },
  { kind: 'row', name: 'D', text: 'M8×1.25 – 6H ↧16 ×4, Threaded holes' },
  { kind: 'tool', name: 'T4', text: 'drill ⌀4.2' },
  { kind: 'place', name: 'c', text: 'Code' },
];
const texts = (typed: string) => search(things, typed).map((t) => t.name);

describe('search', () => {
  it('finds by every word, in any order and by the signs as they are typed', () => {
    expect(texts('m8x1.25')).toEqual(['D']);
    expect(texts('4.2')).toEqual(['A', 'T4']);
    expect(texts('drill 4.2')).toEqual(['T4']);
    expect(texts('holes blind')).toEqual(['A']);
    expect(texts('nothing like it')).toEqual([]);
  });
  it('puts the one of that name first', () => {
    expect(texts('c')[0]).toBe('c');
    expect(texts('d')[0]).toBe('D');
  });
  it('gives everything, to a bound, where nothing is typed', () => {
    expect(texts('')).toHaveLength(4);
    expect(
      search(
        Array.from({ length: 500 }, () => things[0]!),
        '',
      ),
    ).toHaveLength(40);
  });
});
