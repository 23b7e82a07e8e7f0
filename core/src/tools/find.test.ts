import { describe, expect, it } from 'vitest';
import { drill, tap, TOOLS } from '../testing/fixtures.ts';
import { sizedTools, tooShort } from './find.ts';

const say = (mm: number) => `${mm} mm`;
const idOf = (tools: Parameters<typeof sizedTools>[0], need: Parameters<typeof sizedTools>[1]) => {
  const found = sizedTools(tools, need, say);
  return 'tools' in found ? found.tools[0]!.id : found.missing;
};

describe('sizedTools', () => {
  it('takes the exact size and never a near one', () => {
    expect(idOf(TOOLS, { kind: 'drill', diameter: 6.8 })).toBe('drill-6.8');
    expect(idOf(TOOLS, { kind: 'drill', diameter: 6.7 })).toBe('No drill ⌀6.7 mm in the tool list.');
  });
  it('takes the nearest of sizes that count as one', () => {
    const list = [drill(1, 5.1), drill(2, 5.1054)];
    expect(idOf(list, { kind: 'drill', diameter: 5.1054 })).toBe('drill-5.1054');
    expect(idOf(list, { kind: 'drill', diameter: 5.1 })).toBe('drill-5.1');
  });
  it('takes the shortest first', () => {
    const list = [
      { ...drill(1, 5, 120), id: 'long' },
      { ...drill(2, 5, 40), id: 'short' },
    ];
    expect(idOf(list, { kind: 'drill', diameter: 5 })).toBe('short');
    const need = { kind: 'drill' as const, diameter: 5, reach: 200 };
    expect(tooShort(list, need, say)).toBe(
      'No drill ⌀5 mm reaches 200 mm deep: the longest has 120 mm of flute.',
    );
  });
  it('prefers what is in the magazine', () => {
    const list = [
      { ...drill(1, 5, 30), id: 'drawer', number: null },
      { ...drill(2, 5, 90), id: 'magazine' },
    ];
    expect(idOf(list, { kind: 'drill', diameter: 5 })).toBe('magazine');
  });
  it('matches taps by thread, hand, style and lead in the order wanted', () => {
    const need = (leads: string[], hand: 'right' | 'left' = 'right') => ({
      kind: 'tap' as const,
      thread: { designation: 'M8x1.25', hand, leads },
    });
    expect(idOf(TOOLS, need(['bottoming', 'plug']))).toContain('bottoming');
    expect(idOf(TOOLS, need(['plug', 'bottoming']))).toContain('plug');
    expect(idOf(TOOLS, need(['plug'], 'left'))).toContain('left');
    expect(idOf(TOOLS, need(['spiral-point'], 'left'))).toBe('No left-hand tap M8x1.25 in the tool list.');
    expect(
      idOf([tap(1, 'M5x0.8', 5, 0.8)], {
        kind: 'tap',
        thread: { designation: 'M6x1', hand: 'right', style: 'forming' },
      }),
    ).toBe('No forming tap M6x1 in the tool list.');
  });
});
