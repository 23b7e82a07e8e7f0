import { describe, expect, it } from 'vitest';
import { hole } from '../testing/fixtures.ts';
import { narrowest } from './hole/recognise.ts';
import { featureSizes, tagLetters } from './sets.ts';

const plain = (diameter: number, depth: number, part = {}) =>
  hole({ depth, stack: [{ shape: 'cylinder', diameter, length: depth }], ...part });

describe('sizes', () => {
  it('puts equal shapes together and others apart', () => {
    const sizes = featureSizes([
      plain(5, 10),
      plain(5.001, 10.01),
      plain(5, 12),
      plain(6, 10),
      plain(5, 10, { kind: 'through', bottom: { shape: 'open' } }),
    ]);
    expect(sizes.map((s) => s.features.length).sort()).toEqual([1, 1, 1, 2]);
    expect(featureSizes([plain(5, 10), plain(5, 12)], { anyDepth: true })).toHaveLength(1);
  });
  it('takes a plate’s thickness for no size of its through holes', () => {
    const through = (depth: number) => plain(5, depth, { kind: 'through', bottom: { shape: 'open' } });
    expect(featureSizes([through(30), through(18)])).toHaveLength(1);
  });
  it('keeps sides apart', () =>
    expect(featureSizes([plain(5, 10), plain(5, 10, { axis: [1, 0, 0] })])).toHaveLength(2));
  it('gives the same key for the same shape in another file', () =>
    expect(featureSizes([plain(5, 10)])[0]!.key).toBe(
      featureSizes([plain(5, 10, { entry: [90, 1, 0] })])[0]!.key,
    ));
  it('letters tags without I and O', () => {
    expect([0, 7, 8, 13, 23, 24, 25].map(tagLetters)).toEqual(['A', 'H', 'J', 'P', 'Z', 'AA', 'AB']);
    expect(new Set(Array.from({ length: 700 }, (_, i) => tagLetters(i))).size).toBe(700);
  });
  it('knows the narrowest diameter', () => {
    expect(
      narrowest(
        hole({
          stack: [
            { shape: 'cylinder', diameter: 11, length: 5 },
            { shape: 'flat', startDiameter: 11, endDiameter: 6 },
            { shape: 'cylinder', diameter: 6, length: 5 },
          ],
        }),
      ),
    ).toBe(6);
    expect(
      narrowest(
        hole({ stack: [{ shape: 'cone', startDiameter: 10, endDiameter: 9, angle: 3.6, length: 16 }] }),
      ),
    ).toBe(9);
  });

  it('through holes that lean to either side are two sizes, and read from either end one', () => {
    const k = Math.SQRT1_2;
    const lean = (axis: [number, number, number]) =>
      hole({ kind: 'through', axis, reachableFrom: [axis, [-axis[0], -axis[1], -axis[2]]] });
    expect(featureSizes([lean([k, 0, k]), lean([-k, 0, k])])).toHaveLength(2);
    expect(featureSizes([lean([k, 0, k]), lean([-k, 0, -k])])).toHaveLength(1);
  });

  it('sizes on either side of a rounding border are one, and keep the key that decisions hang on', () => {
    const of = (diameter: number) => hole({ stack: [{ shape: 'cylinder', diameter, length: 20 }] });
    const [low, high] = [of(7.93749), of(7.93751)];
    expect(featureSizes([low, high])).toHaveLength(1);
    const { key } = featureSizes([low])[0]!;
    expect(featureSizes([high])[0]!.key).not.toBe(key);
    expect(featureSizes([high], { known: [key] })[0]!.key).toBe(key);
    expect(featureSizes([of(7.9), of(7.95)])).toHaveLength(2);
  });
});
