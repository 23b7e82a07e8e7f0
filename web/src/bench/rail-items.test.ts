import { describe, expect, it } from 'vitest';
import { cutBefore, dropped, NEW_CUT, railItems } from './rail-items.ts';

const visits = ['spot', 'drill', 'tap'];

describe('what stands in the rail', () => {
  it('has a tile for a cut where there is something to cut', () => {
    expect(railItems(['spot'], [])).toEqual(['spot']);
    expect(railItems(visits, ['tap', 'gone', 'spot'])).toEqual([
      NEW_CUT,
      'spot',
      'drill',
      cutBefore('tap'),
      'tap',
    ]);
  });
  it('tools are moved among each other, whatever cuts stand between', () => {
    const items = railItems(visits, ['tap']);
    expect(dropped(items, ['tap'], 'spot', 'drill')).toEqual({ kind: 'visit', key: 'spot', before: 'tap' });
    expect(dropped(items, ['tap'], 'tap', 'spot')).toEqual({ kind: 'visit', key: 'tap', before: 'spot' });
    expect(dropped(items, ['tap'], 'drill', 'tap')).toEqual({ kind: 'visit', key: 'drill', before: null });
    expect(dropped(items, ['tap'], 'tap', 'tap')).toBeNull();
  });
  it('a cut is put where it is let go, moved, and taken out at either end', () => {
    const items = railItems(visits, ['tap']);
    expect(dropped(items, ['tap'], NEW_CUT, 'spot')).toEqual({ kind: 'splits', splits: ['tap', 'drill'] });
    expect(dropped(items, ['tap'], cutBefore('tap'), 'drill')).toEqual({ kind: 'splits', splits: ['drill'] });
    expect(dropped(items, ['tap'], cutBefore('tap'), 'tap')).toEqual({ kind: 'splits', splits: [] });
    expect(dropped(items, ['tap'], cutBefore('tap'), 'spot')).toEqual({ kind: 'splits', splits: [] });
  });
});
