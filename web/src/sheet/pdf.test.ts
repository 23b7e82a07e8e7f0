import { describe, expect, it } from 'vitest';
import type { FloorSheet } from '@yellow-pin/core/sheet/schema';
import { plainSigns, sheetPdf } from './pdf.ts';

const view = {
  right: 'X',
  up: 'Y',
  lines: [[0, 0, 40, 0, 40, 30]],
  stock: [
    [0, 0],
    [40, 30],
  ],
  keepOuts: [],
  tags: [{ label: 'A1', at: [10, 10] }],
} as const;
const sheet = (holes: number): FloorSheet => ({
  format: 'yellow-pin/floor-sheet@1',
  job: 'Cap',
  setupId: 's1',
  setup: 'top up',
  number: 1,
  of: 2,
  units: 'mm',
  machine: 'mill',
  material: 'aluminium',
  attitude: 'top up',
  workOffset: 'G54',
  zero: 'corner',
  clearance: '25 mm',
  stock: 'block 40 x 30 x 10 mm',
  saw: '40 mm × 30 mm × 10 mm',
  holding: 'not said',
  feedPercent: 100,
  seconds: 65,
  files: [{ name: 'cap.nc', lines: 20, sha256: 'ab' }],
  top: structuredClone(view) as unknown as FloorSheet['top'],
  front: structuredClone(view) as unknown as FloorSheet['front'],
  tools: [
    {
      number: 1,
      kind: 'drill',
      description: 'drill ⌀8',
      diameter: '8',
      flute: '60',
      stickOut: '70',
      makes: 'A',
      seconds: 65,
      outline: [
        [0, 0],
        [2.4, 4],
        [70, 4],
      ],
    },
  ],
  holes: Array.from({ length: holes }, (_, i) => ({
    label: `A${i + 1}`,
    callout: '⌀8 ↧12',
    x: '1',
    y: '2',
    z: '0',
    depth: '12',
  })),
  toKnow: [],
  handEdits: [],
  accepted: [],
  notMade: [],
});
const pages = async (sheets: FloorSheet[], paper: 'a4' | 'letter') => {
  const text = new TextDecoder('latin1').decode(await sheetPdf(sheets, paper));
  return {
    isPdf: text.startsWith('%PDF-'),
    sizes: [...text.matchAll(/\/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/g)].map((m) => [
      Number(m[1]),
      Number(m[2]),
    ]),
  };
};

describe('floor sheets as PDF', () => {
  it('have a page a setup at least, of the paper that is asked for', async () => {
    const a4 = await pages([sheet(3), sheet(0)], 'a4');
    expect(a4.isPdf).toBe(true);
    expect(a4.sizes).toHaveLength(2);
    expect(a4.sizes[0]![0]).toBeCloseTo(595.28, 0);
    expect((await pages([sheet(3)], 'letter')).sizes).toEqual([[612, 792]]);
  });
  it('go on over as many pages as there are holes', async () => {
    expect((await pages([sheet(200)], 'a4')).sizes.length).toBeGreaterThan(3);
  });
  it('say signs that the built-in faces lack', () => {
    expect(plainSigns('⌀8 ↧12 ⌴⌀14')).toBe('Ø8 deep 12 cbore Ø14');
    expect(plainSigns('M8×1.25 – 6H')).toBe('M8×1.25 - 6H');
    expect(plainSigns('漢')).toBe('?');
  });
});
