import { NEAR_FLOOR } from './finder.ts';
import type { CheckContext } from '../checks/check.ts';

/**
 * Top of the stock that still stands over a place when a line of the text is run, program coordinates, mm: it goes down with each area that
 * is milled over the place before. -Infinity where the stock stands no higher than the part.
 */
export function stockBefore(
  { space, madeEarlier, milledAreas }: Pick<CheckContext, 'space' | 'madeEarlier' | 'milledAreas'>,
  x: number,
  y: number,
  line: number,
): number {
  const stock = space.stockOver(x, y, 0);
  if (stock === -Infinity) return stock;
  const isMade = (feature: string): boolean =>
    madeEarlier.has(feature) ||
    milledAreas.some(
      ({ area: { view }, low, line: at }) =>
        view.feature.id === feature && at < line && low <= view.shape.floor + NEAR_FLOOR,
    );
  const levels = space
    .openingsOver(x, y, 0, -Infinity)
    .filter((o) => o.clearsStock && isMade(o.feature))
    .map((o) => o.bottom);
  return Math.min(stock, ...levels);
}
