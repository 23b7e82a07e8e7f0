import { describe, expect, it } from 'vitest';
import { grooveRow, ringGroove, slot, tSlot } from '../testing/grooves.ts';
import { methodFromRow, matchedRows } from '../job/method-from-row.ts';
import { methodSchema } from './schema.ts';
import { SHIPPED_METHODS } from './shipped.ts';
import { whenInWords } from './words.ts';

const shipped = (id: string) => SHIPPED_METHODS.find((m) => m.id === id)!;

describe('methods for slots and grooves', () => {
  it('are offered by family, ends and depth, the first that the tools can do taken', () => {
    expect(grooveRow(slot()).methods.map((m) => m.id)).toEqual(['slot', 'slot-by-hole', 'key-way']);
    expect(grooveRow(slot({}, 2)).methods.map((m) => m.id)).toEqual(['slot', 'key-way']);
    expect(grooveRow(slot({ depth: 9 })).methods.map((m) => m.id)).toContain('slot-in-circles');
    expect(grooveRow(ringGroove(15, 6, 3)).methods.map((m) => m.id)).toEqual(['groove', 'seal-groove']);
    expect(grooveRow(tSlot()).method?.id).toBe('t-slot');
  });

  it('that leave the head of a T-slot, or are for something else, are refused', () => {
    const only = grooveRow(tSlot(), { method: 't-slot', operations: shipped('slot').operations });
    expect(only.reasons[0]).toMatch(/none of its operations makes the head/);
    expect(grooveRow(slot(), { method: 'groove' }).reasons[0]).toMatch(/does not fit/);
  });

  it('are saved from a row with what was typed, without its depth, and offered for the next of the kind', () => {
    const typed = { 'groove-mill': { perPass: 0.4, depth: 2.9, cutter: 'narrower' } };
    const row = grooveRow(ringGroove(15, 7, 3), { typed });
    const saved = methodFromRow(
      row,
      shipped('groove'),
      { overrides: typed },
      { id: 'own', name: 'seal groove 1.6' },
    )!;
    expect(methodSchema.parse(saved)).toEqual(saved);
    expect(saved).toMatchObject({
      family: 'face-groove',
      when: { width: { from: 7, to: 7 }, through: false, ends: ['closed'] },
    });
    expect(saved.operations[0]!.set).toEqual({ perPass: 0.4, cutter: 'narrower' });
    const next = grooveRow(ringGroove(25, 7, 2), { methods: [saved] });
    expect(next.method?.id).toBe('own');
    expect(next.operations[0]!.parameters.find((p) => p.key === 'perPass')?.value).toBe(0.4);
    expect(matchedRows(saved, [next, grooveRow(slot())], 'alu')).toEqual([next]);
    expect(whenInWords(saved, String)).toBe('grooves in a face, blind, from 7 to 7 wide, ends closed');
  });

  it('may say numbers in widths and depths', () => {
    const method = methodSchema.parse({
      ...shipped('slot'),
      id: 'own',
      operations: [{ kind: 'slot-mill', set: { perPass: '0.1 * width' } }],
    });
    const row = grooveRow(slot({ width: 12 }), { methods: [method] });
    expect(row.operations[0]!.parameters.find((p) => p.key === 'perPass')?.value).toBeCloseTo(1.2, 9);
  });
});
