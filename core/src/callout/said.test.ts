import { expect, test } from 'vitest';
import { calloutSaid, calloutsSaid } from './said.ts';

test('a callout of a thread or a hole is known as one, in the unit of its file', () => {
  expect(calloutSaid({ text: 'M8x1.25 - 6H DEEP 12', unit: 'mm' })).toMatchObject({ threadDepth: 12 });
  expect(calloutSaid({ text: '⌀8 H7', unit: 'mm' })).toMatchObject({ diameter: 8, tolerance: { fit: 'H7' } });
  expect(calloutSaid({ text: '⌀.25 THRU', unit: 'inch' })?.diameter).toBeCloseTo(6.35, 9);
  // The same text in another unit is another callout.
  expect(calloutSaid({ text: '⌀8 H7', unit: 'inch' })?.diameter).toBeCloseTo(203.2, 9);
});

test('what is none is none, however often it is asked for', () => {
  for (let i = 0; i < 3; i++)
    for (const text of ['datum A', 'position 0.1 | A', 'hello', '', 'Ra 1.6', 'M8x1.25 DEEP 12.7'])
      expect(calloutSaid({ text, unit: 'mm' })).toBeNull();
});

test('features are alike by their callouts in any order, and by nothing else that is said', () => {
  const said = [
    { text: 'M8', unit: 'mm' as const },
    { text: '⌀6.8', unit: 'mm' as const },
    { text: 'datum A', unit: 'mm' as const },
  ];
  expect(calloutsSaid(said)).toEqual(calloutsSaid([...said].reverse()));
  expect(calloutsSaid(said)).toHaveLength(2);
});
