import { describe, expect, it } from 'vitest';
import { BOUNDS, hole, LIBRARY, plan } from '../testing/fixtures.ts';
import { produceJob } from '../job/produce.ts';
import { bodiesByNumber, cellFor } from './setup-metal.ts';

const bodiesOf = bodiesByNumber(LIBRARY.tools, LIBRARY.holders);
/** The cell for a plate with so many holes of one size. */
function cell(count: number): number {
  const side = Math.ceil(Math.sqrt(count));
  const features = Array.from({ length: count }, (_, n) =>
    hole({ id: `H${n}`, entry: [20 * (n % side), 20 * Math.floor(n / side), 0] }),
  );
  const bounds = { min: BOUNDS.min, max: [20 * side, 20 * side, 0] as [number, number, number] };
  return cellFor(
    produceJob({ features, bounds, plan: plan(), library: LIBRARY, name: 'plate' }).programs,
    bodiesOf,
  );
}

describe('the size of a cell', () => {
  it('is a fortieth of the smallest tool, and larger only where a program is long', () => {
    expect(cell(1)).toBeCloseTo(6.8 / 40, 6);
    expect(cell(100)).toBeCloseTo(6.8 / 40, 6);
    const [many, more] = [cell(1600), cell(3600)];
    expect(many).toBeGreaterThan(cell(1));
    // As many columns for more holes: cells grow as the root of them, to within the stock's border.
    expect(more / many).toBeCloseTo(Math.sqrt(3600 / 1600), 1);
  });
  it('is something where nothing is cut', () => expect(cellFor([], bodiesOf)).toBeGreaterThan(0));
});
