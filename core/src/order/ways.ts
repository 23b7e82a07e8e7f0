import { z } from 'zod';
import { travelOrder } from './travel.ts';

/** Ways round the holes of a size (N48). */
export const VISIT_WAYS = ['nearest next', 'as picked', 'in rows', 'in columns', 'round a circle'] as const;
export type VisitWay = (typeof VISIT_WAYS)[number];

export const visitSchema = z.object({
  by: z.enum(VISIT_WAYS),
  /** Labels of holes as they were picked; those that are not among them follow as they are listed. */
  picked: z.array(z.string().max(40)).max(5000).default([]),
});
export type Visit = z.infer<typeof visitSchema>;

interface Place {
  label: string;
  x: number;
  y: number;
}

/** Holes whose other coordinate differs by no more than this lie in one row, mm. */
const SAME_ROW = 0.5;

/** A hole's number in its size: a newer part may give the size another letter. */
const numberOf = (label: string): string => label.replace(/^[A-Za-z]+/, '');

/** Holes in the order in which they are gone to: nearest next where nothing is said. */
export function visitOrder<T extends Place>(holes: T[], visit: Visit | undefined): T[] {
  switch (visit?.by) {
    case 'as picked': {
      const rank = new Map(visit.picked.map((label, i) => [numberOf(label), i]));
      const at = (h: T): number => rank.get(numberOf(h.label)) ?? visit.picked.length;
      // Sorting is stable: what was not picked keeps its place among its like.
      return [...holes].sort((a, b) => at(a) - at(b));
    }
    case 'in rows':
      return inRows(
        holes,
        (h) => h.x,
        (h) => h.y,
      );
    case 'in columns':
      return inRows(
        holes,
        (h) => h.y,
        (h) => h.x,
      );
    case 'round a circle':
      return roundCircle(holes);
    case 'nearest next':
    case undefined:
      return travelOrder(holes);
  }
}

/** Row after row, there and back: each begins where the last one ended. */
function inRows<T>(holes: readonly T[], along: (h: T) => number, across: (h: T) => number): T[] {
  const rows: T[][] = [];
  let last = -Infinity;
  for (const h of [...holes].sort((a, b) => across(a) - across(b) || along(a) - along(b))) {
    if (across(h) - last > SAME_ROW) rows.push([]);
    last = across(h);
    rows[rows.length - 1]?.push(h);
  }
  return rows.flatMap((row, i) => row.sort((a, b) => (i % 2 === 0 ? 1 : -1) * (along(a) - along(b))));
}

/** Counter-clockwise round the middle of all of them, from the one nearest the front left. */
function roundCircle<T extends { x: number; y: number }>(holes: readonly T[]): T[] {
  const n = Math.max(1, holes.length);
  const [cx, cy] = [holes.reduce((s, h) => s + h.x, 0) / n, holes.reduce((s, h) => s + h.y, 0) / n];
  const angle = (h: T): number => Math.atan2(h.y - cy, h.x - cx);
  const round = [...holes].sort((a, b) => angle(a) - angle(b));
  const first = round.reduce((m, h, i) => {
    const best = round[m];
    return best && h.x + h.y < best.x + best.y - 1e-9 ? i : m;
  }, 0);
  return [...round.slice(first), ...round.slice(0, first)];
}
