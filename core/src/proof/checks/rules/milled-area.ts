import type { CheckRule } from '../check.ts';
import { milledFindings } from './milled-floor.ts';

/**
 * What was milled at the floors of faces, steps, pockets and outlines, as read from the text, against what is planned. How far below a floor a
 * cutter goes on its way to a lower one is judged by what it meets there.
 */
export const milledArea: CheckRule = {
  rule: 'milled-area',
  run: (c) =>
    c.milledAreas.flatMap((m) => {
      const { view, row } = m.area;
      const own = c.setup.operations
        .filter((o) => o.tag === row.tag && o.tool.id === m.tool.id)
        .flatMap((o) => o.work.filter((w) => w.label === view.label));
      if (own.length === 0) return [];
      const planned = Math.min(...own.map((w) => w.z));
      return milledFindings({ ...m, view, row, low: Math.max(m.low, planned) }, c);
    }),
};
