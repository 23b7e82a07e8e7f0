import { describe, expect, test } from 'vitest';
import { drill } from '../testing/fixtures.ts';
import { hitInWords } from './choose-tool.ts';

describe('what of a tool would stand in the part', () => {
  const context = { say: (mm: number) => String(+mm.toFixed(3)) };
  const words = (part: 'cutting' | 'shank' | 'holder', diameter: number): string =>
    hitInWords(context, drill(3, 8), { part, diameter, height: -4, depth: 1.25 });

  test('is told with how wide it is there, and with the tool that would not', () => {
    expect(words('cutting', 8)).toMatch(
      /^the flutes of .* \(⌀8\) would stand in the part, 1.25 deep at Z -4\..*narrower one\.$/,
    );
    expect(words('holder', 40)).toMatch(/^the holder of .* \(⌀40\) would .*longer or slimmer one\.$/);
  });

  test('is its tip where it has no width: no narrower tool has another', () => {
    expect(words('cutting', 0)).toMatch(
      /^the tip of .* would stand in the part, 1.25 deep at Z -4\. Look at/,
    );
    expect(words('cutting', 0)).not.toMatch(/⌀0|narrower/);
  });
});
