import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { VISIT_WAYS, visitOrder, type VisitWay } from './ways.ts';

const grid = [0, 1, 2].flatMap((j) =>
  [0, 1, 2].map((i) => ({ label: `A${3 * j + i + 1}`, x: 10 * i, y: 10 * j })),
);
const labels = (by: VisitWay, list = grid, picked: string[] = []): string =>
  visitOrder(list, { by, picked })
    .map((h) => h.label)
    .join(' ');

describe('ways round the holes of a size', () => {
  it('go in rows and in columns, there and back', () => {
    expect(labels('in rows')).toBe('A1 A2 A3 A6 A5 A4 A7 A8 A9');
    expect(labels('in columns')).toBe('A1 A4 A7 A8 A5 A2 A3 A6 A9');
  });

  it('go round a circle from the front left', () => {
    const round = [10, 100, 190, 280].map((a, i) => ({
      label: `A${i + 1}`,
      x: 20 * Math.cos((a * Math.PI) / 180),
      y: 20 * Math.sin((a * Math.PI) / 180),
    }));
    expect(labels('round a circle', round)).toBe('A3 A4 A1 A2');
  });

  it('go as they were picked, the rest behind as it is listed', () => {
    expect(labels('as picked', grid, ['A9', 'A2', 'gone'])).toBe('A9 A2 A1 A3 A4 A5 A6 A7 A8');
  });

  it('keep what was picked when a revision gives the size another letter', () => {
    const renamed = grid.map((h) => ({ ...h, label: h.label.replace('A', 'C') }));
    expect(labels('as picked', renamed, ['A9', 'A2'])).toBe('C9 C2 C1 C3 C4 C5 C6 C7 C8');
  });

  it('visit every hole once, whatever the way', () => {
    const places = fc.array(fc.tuple(fc.integer({ min: 0, max: 90 }), fc.integer({ min: 0, max: 90 })), {
      maxLength: 30,
    });
    fc.assert(
      fc.property(fc.constantFrom(...VISIT_WAYS), places, (by, list) => {
        const holes = list.map(([x, y], i) => ({ label: `A${i + 1}`, x, y }));
        const visited = visitOrder(holes, { by, picked: ['A3', 'A1'] });
        expect(visited.map((h) => h.label).sort()).toEqual(holes.map((h) => h.label).sort());
      }),
    );
  });
});
