import { describe, expect, it } from 'vitest';
import type { HoleFeature, StackStep } from '../features/hole/schema.ts';
import { counterbored, drill, endMill, hole, reamer, rowOf } from '../testing/fixtures.ts';

const plain = (diameter: number, depth = 25) =>
  hole({ depth, stack: [{ shape: 'cylinder', diameter, length: depth }] });

describe('a method that is chosen', () => {
  it('is refused where it would leave out what the print asks for: no thread is lost without a word', () => {
    const row = rowOf(plain(6.8), { callout: 'M8x1.25 ↧16', method: 'drilled' });
    expect(row).toMatchObject({ state: 'open', notMade: 'to decide' });
    expect(row.operations).toEqual([]);
    expect(row.reasons.join()).toContain('it is for holes without a thread');
    expect(row.methods.map((m) => m.id)).toContain('tapped');
  });

  it('is obeyed with a warning where it only makes the hole otherwise than usual', () => {
    const more = [reamer(42, 8), drill(43, 7.8)];
    const row = rowOf(plain(8, 20), { callout: '⌀8 H7 ↧20', method: 'drilled', more });
    expect(row.state).toBe('planned');
    expect(row.remarks.map((r) => r.rule)).toEqual(
      expect.arrayContaining(['method-unfit', 'print-and-model']),
    );
  });

  it('that is gone from the list is said, and the best is taken', () => {
    const row = rowOf(plain(8.5, 20), { method: 'of-last-year' });
    expect(row).toMatchObject({ state: 'planned', method: { id: 'drilled' } });
    expect(row.remarks.map((r) => r.rule)).toContain('method-gone');
  });

  it('says what is missing for it, and takes no other', () => {
    const row = rowOf(plain(11, 20), { method: 'milled-small', more: [endMill(50, 20)] });
    expect(row).toMatchObject({ state: 'open', notMade: 'no tool' });
    expect(row.wants[0]?.kind).toBe('end-mill');
  });
});

describe('a kind that stands in for another', () => {
  it('is taken where the first has no tool, in any method; where neither has one, the first is asked for', () => {
    const stepped = { ...counterbored({ diameter: 20 }) };
    const tools = [reamer(42, 6.6), drill(43, 6.4), endMill(50, 10)];
    const row = rowOf(stepped, { callout: '⌀6.6 H7 THRU ⌴ ⌀20 ↧6.8', more: tools });
    expect(row.method?.id).toBe('reamed');
    expect(row.operations.map((o) => o.kind)).toEqual(['spot', 'drill', 'helical-bore', 'ream']);
    const none = rowOf(stepped, { more: [] });
    expect(none.notMade).toBe('no tool');
    expect(none.wants[0]).toMatchObject({ kind: 'counterbore', diameter: 20 });
  });
});

describe('operations that are changed for one size', () => {
  const cored = [{ kind: 'drill' }, { kind: 'ream' }].map((o) => ({ part: 'hole' as const, set: {}, ...o }));

  it('are made in place of the method’s, in their order', () => {
    const row = rowOf(plain(8.5, 20), { operations: [{ kind: 'drill', part: 'hole', set: {} }] });
    expect(row.operations.map((o) => o.kind)).toEqual(['drill']);
    expect(row.method?.name).toContain('changed here');
    expect(
      rowOf(plain(8, 20), { operations: cored, more: [reamer(42, 8)] }).operations.map((o) => o.kind),
    ).toEqual(['drill', 'ream']);
  });

  it('never leave out what the hole has, and the row says what', () => {
    const row = rowOf(plain(6.8), { callout: 'M8x1.25 ↧16', operations: cored.slice(0, 1) });
    expect(row).toMatchObject({ state: 'open', operations: [] });
    expect(row.reasons.join()).toContain('none of its operations makes its thread');
    const none = rowOf(plain(8.5), { operations: [{ kind: 'spot', part: 'hole', set: {} }] });
    expect(none.reasons.join()).toContain('the hole itself');
  });
});

describe('a tool that is chosen for an operation', () => {
  const long = { ...drill(60, 8.5, 140), id: 'long' };

  it('is taken before others that do, and all that do are named', () => {
    const usual = rowOf(plain(8.5, 20), { more: [long] }).operations.find((o) => o.kind === 'drill')!;
    expect(usual.tool.id).not.toBe('long');
    expect(usual.fits).toEqual(expect.arrayContaining(['long', usual.tool.id]));
    const row = rowOf(plain(8.5, 20), { more: [long], chosen: { drill: 'long' } });
    expect(row.operations.find((o) => o.kind === 'drill')!.tool.id).toBe('long');
    expect(row.remarks.map((r) => r.rule)).not.toContain('tool-unfit');
  });

  it('that does not do is said, and another is taken', () => {
    const row = rowOf(plain(8.5, 20), {
      more: [{ ...drill(61, 8.5, 5), id: 'stub' }],
      chosen: { drill: 'stub' },
    });
    expect(row.state).toBe('planned');
    expect(row.remarks.find((r) => r.rule === 'tool-unfit')?.message).toContain('does not do here');
  });
});

describe('a method that leaves out what opens on the far side', () => {
  const through = (stack: StackStep[], role: HoleFeature['role']): HoleFeature =>
    hole({ kind: 'through', bottom: { shape: 'open' }, depth: 20, role, stack });
  const only = [{ kind: 'drill', part: 'hole' as const, set: {} }];

  it('is refused, and told by name', () => {
    const bored = through(
      [
        { shape: 'cylinder', diameter: 8, length: 16 },
        { shape: 'cylinder', diameter: 14, length: 4 },
      ],
      'counterbored',
    );
    expect(rowOf(bored, { operations: only }).reasons.join()).toContain('the step on its far side');
    const sunk = through(
      [
        { shape: 'cylinder', diameter: 8, length: 16 },
        { shape: 'cone', startDiameter: 8, endDiameter: 16, angle: 90, length: 4 },
      ],
      'countersunk',
    );
    expect(rowOf(sunk, { operations: only }).reasons.join()).toContain('the countersink on its far side');
  });
});
