import { describe, expect, it } from 'vitest';
import { LIBRARY } from '../testing/fixtures.ts';
import { librarySchema, readLibraryRows, withJobTools } from './library.ts';

const stored = () => JSON.parse(JSON.stringify(LIBRARY)) as typeof LIBRARY;

describe('stored libraries', () => {
  it('a tool of a kind that is not known is left out and named; the rest is read', () => {
    const rows = stored();
    const { library, left } = readLibraryRows({
      ...rows,
      tools: [...rows.tools, { ...rows.tools[0]!, id: 'x', kind: 'lathe-bit' }],
    });
    expect(library.tools).toHaveLength(LIBRARY.tools.length);
    expect(left).toEqual([expect.stringContaining('tools x: kind')]);
  });
  it('lists written before newer numbers existed are read with the usual ones', () => {
    const rows = stored();
    const old = rows.materials.map(({ pecking: _, ...m }) => ({
      ...m,
      // One entry for each kind, as it was once.
      cutting: Object.fromEntries(m.cutting.map(({ kinds, maxFeedPerTurn: __, ...d }) => [kinds[0], d])),
    }));
    const { harmless: _, riseOrder: __, ...machine } = rows.machines[0]!;
    const read = librarySchema.parse({ ...rows, materials: old, machines: [machine] });
    expect(read.materials[0]!.pecking).toEqual({ chipBreakFrom: 3, fullRetractFrom: 5 });
    const was = rows.materials[0]!.cutting[0]!;
    expect(read.materials[0]!.cutting[0]).toMatchObject({ kinds: was.kinds, vc: was.vc });
    expect(read.machines[0]!.riseOrder).toBe('unknown');
  });
  it('cutting data of a kind that came later is kept', () => {
    const rows = stored();
    const later = { kinds: ['of tomorrow'], vc: 90, carbideFactor: 2, feedShare: 0.01, maxFeedPerTurn: 0.2 };
    rows.materials[0]!.cutting.push(later);
    expect(librarySchema.parse(rows).materials[0]!.cutting).toContainEqual(later);
  });
});

describe('a job’s own tools', () => {
  const own = (id: string, number: number | null) => ({ ...LIBRARY.tools[0]!, id, number });
  it('stand after the shop’s, which go first where both name one', () => {
    const first = LIBRARY.tools[0]!;
    const { tools } = withJobTools(LIBRARY, {
      tools: [own('mine', 99), { ...first, diameter: 1 }],
      loaded: {},
    });
    expect(tools).toHaveLength(LIBRARY.tools.length + 1);
    expect(tools[0]).toEqual(first);
    expect(withJobTools({ ...LIBRARY, tools }, { tools: [own('mine', 99)], loaded: {} }).tools).toEqual(
      tools,
    );
  });
  it('lose a number that another tool has: no program calls the wrong one', () => {
    const taken = LIBRARY.tools[0]!.number;
    const { tools } = withJobTools(LIBRARY, {
      tools: [own('a', taken), own('b', 99), own('c', 99)],
      loaded: {},
    });
    expect(tools.slice(-3).map((t) => t.number)).toEqual([null, 99, null]);
  });
});
