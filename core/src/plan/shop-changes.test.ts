import { describe, expect, it } from 'vitest';
import { LIBRARY } from '../testing/fixtures.ts';
import { shopChanges } from './shop-changes.ts';

const file = () => JSON.parse(JSON.stringify(LIBRARY)) as typeof LIBRARY;

describe('what a shop’s file would change', () => {
  it('is nothing of its own file', () => {
    const all = Object.values(LIBRARY).reduce((n, l) => n + l.length, 0);
    expect(shopChanges(LIBRARY, file())).toMatchObject({ changes: [], same: all, left: [] });
  });
  it('names what is new and what is other, by field', () => {
    const other = file();
    other.tools[0]!.stickOut += 3;
    other.machines.push({ ...other.machines[0]!, id: 'new', name: 'new mill' });
    expect(shopChanges(LIBRARY, other)!.changes).toEqual([
      {
        list: 'tools',
        id: other.tools[0]!.id,
        name: other.tools[0]!.description,
        kind: 'changed',
        fields: ['stickOut'],
      },
      { list: 'machines', id: 'new', name: 'new mill', kind: 'new', fields: [] },
    ]);
  });
  it('names what cannot be read and goes on with the rest', () => {
    const { left, changes } = shopChanges(LIBRARY, { tools: [{ id: 'x' }], holders: file().holders })!;
    expect(left[0]).toContain('tools x');
    expect(changes).toEqual([]);
  });
  it.each([[null], ['text'], [{}], [{ tools: 'many' }]])('%o is no shop’s file', (document) => {
    expect(shopChanges(LIBRARY, document)).toBeNull();
  });
});
