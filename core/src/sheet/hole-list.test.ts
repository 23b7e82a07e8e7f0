import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hole, rowOf } from '../testing/fixtures.ts';
import { holeCsv, holeLines, holeTable, type HoleLine } from './hole-list.ts';

describe('the list of holes', () => {
  it('has the places of the program in the job’s unit', () => {
    const lines = holeLines([rowOf(hole({ entry: [25.4, 50.8, 0] }))], 'inch');
    expect(lines).toHaveLength(1);
    expect(Number(lines[0]!.depth)).toBeCloseTo(20 / 25.4, 3);
    expect(lines[0]!.label).toBe('A1');
  });
  const line: HoleLine = { label: 'A1', callout: 'M6, 2 "deep"', x: '1', y: '-2.5', z: '0', depth: '20' };
  it('is quoted where it must be', () => {
    expect(holeCsv([line], 'mm').split('\r\n')).toEqual([
      'hole,callout,X mm,Y mm,Z of entry mm,depth mm',
      'A1,"M6, 2 ""deep""",1,-2.5,0,20',
      '',
    ]);
  });
  it('has one line a hole and six columns as a table, whatever is in it', () => {
    fc.assert(
      fc.property(fc.array(fc.string(), { maxLength: 20 }), (texts) => {
        const table = holeTable(
          texts.map((callout) => ({ ...line, callout })),
          'mm',
        ).split('\n');
        expect(table).toHaveLength(texts.length + 1);
        expect(table.every((l) => l.split('\t').length === 6)).toBe(true);
      }),
    );
  });
});
