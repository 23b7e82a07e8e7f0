import { describe, expect, it } from 'vitest';
import { itemsOf } from './list-file.ts';

const table = (text: string) => ({ items: text.split('\n'), left: [] });

describe('a file that is taken into one of the shop’s lists', () => {
  it('is a list, a whole shop, or a table where the list has one', () => {
    expect(itemsOf('tools', 'a.json', '[1, 2]')).toEqual({ items: [1, 2], left: [] });
    expect(itemsOf('tools', 'a.json', '{"tools": [3], "holders": [4]}', table).items).toEqual([3]);
    expect(itemsOf('holders', 'a.json', '{"tools": [3], "holders": [4]}').items).toEqual([4]);
    expect(itemsOf('tools', 'a.csv', 'a,b\nc,d', table).items).toEqual(['a,b', 'c,d']);
  });

  it('says what is wrong with it, by its name', () => {
    const wrong = (text: string) => itemsOf('methods', 'mine.json', text).left[0]!;
    expect(wrong('a,b')).toMatchObject({ place: 'mine.json' });
    expect(wrong('a,b').message).toContain('no JSON');
    expect(wrong('{"tools": []}').message).toContain('no list of methods');
    expect(wrong('{"methods": 7}').message).toContain('no list of methods');
    expect(wrong('null').message).toContain('no list of methods');
  });
});
