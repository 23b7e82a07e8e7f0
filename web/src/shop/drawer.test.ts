import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Tool } from '@yellow-pin/core/tools/schema';
import { drawerRows, filterTools, freePlaces, type DrawerFilter } from './drawer.ts';

const tool = (part: Partial<Tool>): Tool => ({
  id: `t${part.diameter ?? 8}${part.kind ?? ''}`,
  number: null,
  kind: 'drill',
  description: `drill ⌀${part.diameter ?? 8}`,
  diameter: 8,
  sizeName: '8',
  tipDiameter: 0,
  fluteLength: 60,
  overallLength: 100,
  shankDiameter: 8,
  stickOut: 65,
  holderId: 'h',
  cutterMaterial: 'hss',
  ...part,
});
const ALL: DrawerFilter = { search: '', kind: '', place: 'anywhere', from: null, to: null };
const LIST = [
  tool({ diameter: 8, number: 3 }),
  tool({ diameter: 5 }),
  tool({ kind: 'reamer', description: 'reamer ⌀6 H7', diameter: 6, number: 1 }),
];

describe('the drawer', () => {
  it('is narrowed by words, kind, place and diameter, all at once', () => {
    const ids = (f: Partial<DrawerFilter>): number[] =>
      filterTools(LIST, { ...ALL, ...f }).map((t) => t.diameter);
    expect(ids({})).toEqual([8, 5, 6]);
    expect(ids({ search: 'REAM h7' })).toEqual([6]);
    expect(ids({ search: 't3' })).toEqual([8]);
    expect(ids({ kind: 'drill', to: 6 })).toEqual([5]);
    expect(ids({ place: 'in the magazine' })).toEqual([8, 6]);
    expect(ids({ place: 'in the drawer', from: 5 })).toEqual([5]);
  });

  it('lies in rows by kind from thin to thick; the magazine by its places', () => {
    expect(drawerRows(LIST, 'anywhere').map((r) => [r.name, r.tools.map((t) => t.diameter)])).toEqual([
      ['drills', [5, 8]],
      ['reamers', [6]],
    ]);
    const inMachine = filterTools(LIST, { ...ALL, place: 'in the magazine' });
    expect(drawerRows(inMachine, 'in the magazine')[0]!.tools.map((t) => t.number)).toEqual([1, 3]);
  });

  it('knows which places are free', () => {
    expect(freePlaces(LIST, 8)).toBe('2, 4–8');
    expect(freePlaces(LIST, 1)).toBe('');
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 30 })), (numbers) => {
        const said = freePlaces(
          numbers.map((number) => tool({ number })),
          30,
        );
        const free =
          said === ''
            ? []
            : said.split(', ').flatMap((run) => {
                const [a, b] = run.split('–').map(Number);
                return Array.from({ length: (b ?? a!) - a! + 1 }, (_, i) => a! + i);
              });
        expect([...free, ...numbers].sort((x, y) => x - y)).toEqual(
          Array.from({ length: 30 }, (_, i) => i + 1),
        );
      }),
    );
  });
});
