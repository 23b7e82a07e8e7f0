import { toFrame } from '../geometry/frame.ts';
import type { SetupFrame, StockBody } from '../setup/setup-frame.ts';
import { Cavities, union } from './cavities.ts';
import type { Fill, GridPlace } from './grid.ts';
import type { PartColumns } from './part.ts';

/** Where the part's outline is looked for round a place, for stock that stands wider than it. */
const ROUND = 16;

/** What a setup's stock has in each column before anything is cut in it. Program coordinates, mm. */
export function stockFill(
  { body, part: box }: SetupFrame,
  part: PartColumns | null,
  cavities: Cavities,
  margin: number,
): Fill {
  if (!body.standsProud && part)
    return (x, y, i, j) => {
      const own = part.heights(i, j);
      // An open end of a slot is open to the air beside the part.
      const isBeside = x < box.min[0] || x > box.max[0] || y < box.min[1] || y > box.max[1];
      const filled = isBeside ? [] : cavities.at(x, y);
      return filled.length === 0 ? own : union([...own, ...filled]);
    };
  switch (body.shape) {
    case 'cylinder':
      return barFill(body);
    case 'outline':
      return part ? outlineFill(body, part, margin) : boxFill(body);
    default:
      return boxFill(body);
  }
}

const boxFill =
  ({ box }: StockBody): Fill =>
  (x, y) =>
    x >= box.min[0] && x <= box.max[0] && y >= box.min[1] && y <= box.max[1]
      ? [box.min[2], box.max[2]]
      : null;

function barFill({ box, along, radius }: StockBody): Fill {
  const middle = (k: 0 | 1 | 2): number => (box.min[k] + box.max[k]) / 2;
  const inside = (v: number, k: 0 | 1 | 2): boolean => v >= box.min[k] && v <= box.max[k];
  if (along === 'z')
    return (x, y) => (Math.hypot(x - middle(0), y - middle(1)) <= radius ? [box.min[2], box.max[2]] : null);
  return (x, y) => {
    const aside = along === 'x' ? y - middle(1) : x - middle(0);
    if (Math.abs(aside) > radius || !inside(along === 'x' ? x : y, along === 'x' ? 0 : 1)) return null;
    const half = Math.sqrt(radius * radius - aside * aside);
    return [middle(2) - half, middle(2) + half];
  };
}

function outlineFill({ box }: StockBody, part: PartColumns, margin: number): Fill {
  const { x0, y0, cell } = part.place;
  const isPart = (x: number, y: number): boolean =>
    part.heights(Math.floor((x - x0) / cell), Math.floor((y - y0) / cell)).length > 0;
  return (x, y) => {
    const near = Array.from({ length: margin > 0 ? ROUND : 0 }, (_, k) => (2 * Math.PI * k) / ROUND);
    const isOver =
      isPart(x, y) || near.some((a) => isPart(x + margin * Math.cos(a), y + margin * Math.sin(a)));
    return isOver ? [box.min[2], box.max[2]] : null;
  };
}

/** A grid over a setup's stock and part, its cells counted from the part file's origin: setups of one job share their borders. */
export function gridPlace({ frame, stock, part }: SetupFrame, cell: number): GridPlace {
  const origin = toFrame(frame, [0, 0, 0]);
  const from = (k: 0 | 1): number =>
    origin[k] + cell * (Math.floor((Math.min(stock.min[k], part.min[k]) - origin[k]) / cell - 1e-9) - 1);
  const [x0, y0] = [from(0), from(1)];
  const count = (k: 0 | 1, start: number): number =>
    Math.ceil((Math.max(stock.max[k], part.max[k]) - start) / cell) + 1;
  return { x0, y0, cell, nx: count(0, x0), ny: count(1, y0) };
}
