import { describe, expect, it } from 'vitest';
import { drill, tap, TOOLS } from '../testing/fixtures.ts';
import { findTool } from './find.ts';

const say = (mm: number) => `${mm} mm`;
const idOf = (tools: Parameters<typeof findTool>[0], need: Parameters<typeof findTool>[1]) => {
  const found = findTool(tools, need, say);
  return 'tool' in found ? found.tool.id : found.missing;
};

describe('findTool', () => {
  it('takes the exact size and never a near one', () => {
    expect(idOf(TOOLS, { kind: 'drill', diameter: 6.8 })).toBe('drill-6.8');
    expect(idOf(TOOLS, { kind: 'drill', diameter: 6.7 })).toBe('No drill ⌀6.7 mm in the tool list.');
  });
  it('takes the shortest that is long enough', () => {
    const list = [
      { ...drill(1, 5, 120), id: 'long' },
      { ...drill(2, 5, 40), id: 'short' },
    ];
    expect(idOf(list, { kind: 'drill', diameter: 5, reach: 30 })).toBe('short');
    expect(idOf(list, { kind: 'drill', diameter: 5, reach: 60 })).toBe('long');
    expect(idOf(list, { kind: 'drill', diameter: 5, reach: 200 })).toContain('the longest has 120 mm');
  });
  it('prefers what is in the magazine', () => {
    const list = [
      { ...drill(1, 5, 30), id: 'drawer', number: null },
      { ...drill(2, 5, 90), id: 'magazine' },
    ];
    expect(idOf(list, { kind: 'drill', diameter: 5 })).toBe('magazine');
  });
  it('matches taps by thread, hand, style and lead in the order wanted', () => {
    const need = (leads: string[], hand: 'right' | 'left' = 'right') => ({ kind: 'tap' as const, thread: { designation: 'M8x1.25', hand, leads } });
    expect(idOf(TOOLS, need(['bottoming', 'plug']))).toContain('bottoming');
    expect(idOf(TOOLS, need(['plug', 'bottoming']))).toContain('plug');
    expect(idOf(TOOLS, need(['plug'], 'left'))).toContain('left');
    expect(idOf(TOOLS, need(['spiral-point'], 'left'))).toBe('No left-hand tap M8x1.25 in the tool list.');
    expect(idOf([tap(1, 'M5x0.8', 5, 0.8)], { kind: 'tap', thread: { designation: 'M6x1', hand: 'right', style: 'forming' } })).toBe('No forming tap M6x1 in the tool list.');
  });
});
