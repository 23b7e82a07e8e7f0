import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { PALETTE, type Ink } from './palette.ts';

/** Relative luminance and contrast of WCAG 2.2. */
const channel = (v: number): number => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
const luminance = (hex: string): number => {
  const [r, g, b] = [1, 3, 5].map((i) => channel(parseInt(hex.slice(i, i + 2), 16) / 255)) as [
    number,
    number,
    number,
  ];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
};
const contrast = (a: string, b: string): number => {
  const [x, y] = [luminance(a), luminance(b)].sort((p, q) => q - p) as [number, number];
  return (x + 0.05) / (y + 0.05);
};

const GROUNDS: Ink[] = ['paper', 'sheet', 'field', 'hand', 'hand-soft', 'hover'];
const TEXTS: Ink[] = ['ink', 'quiet', 'error', 'warning'];

describe.each<[0 | 1, string]>([
  [0, 'light'],
  [1, 'dark'],
])('the palette by day and night (%d, %s)', (mode) => {
  it.each(TEXTS.flatMap((t) => GROUNDS.map((g) => [t, g] as const)))(
    '%s on %s reads well (AA)',
    (text, ground) =>
      expect(contrast(PALETTE[text][mode], PALETTE[ground][mode])).toBeGreaterThanOrEqual(4.5),
  );
  it.each([
    ['on-yellow', 'yellow'],
    ['error-ink', 'error-ground'],
    ['sheet', 'ink'],
    ['ink', 'trough'],
  ] as const)('%s on %s reads well (AA)', (text, ground) =>
    expect(contrast(PALETTE[text][mode], PALETTE[ground][mode])).toBeGreaterThanOrEqual(4.5),
  );
  it('edges and signs stand out from their grounds', () => {
    for (const [line, ground] of [
      ['edge', 'field'],
      ['thread', 'hollow'],
      ['holding', 'sheet'],
    ] as const)
      expect(contrast(PALETTE[line][mode], PALETTE[ground][mode])).toBeGreaterThanOrEqual(3);
  });
});

it('the style sheet names no colour of its own', () => {
  const css = readFileSync(new URL('../app.css', import.meta.url), 'utf8');
  expect(css.match(/#[0-9a-f]{3,8}\b|\brgba?\(|\bhsla?\(/gi)).toBeNull();
});
