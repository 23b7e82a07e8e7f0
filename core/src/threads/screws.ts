import { at } from '../lists.ts';
/** ISO 273 clearance holes, cap-head counterbores and 90° countersunk heads by screw, mm (handbook: holes for screws). */
const SCREWS: readonly {
  screw: string;
  clearance: readonly [fine: number, medium: number, coarse: number];
  counterbore: number;
  countersunk: number | null;
}[] = [
  { screw: 'M3', clearance: [3.2, 3.4, 3.6], counterbore: 6.5, countersunk: 6.5 },
  { screw: 'M4', clearance: [4.3, 4.5, 4.8], counterbore: 8, countersunk: 9.4 },
  { screw: 'M5', clearance: [5.3, 5.5, 5.8], counterbore: 10, countersunk: 10.4 },
  { screw: 'M6', clearance: [6.4, 6.6, 7], counterbore: 11, countersunk: 12.6 },
  { screw: 'M8', clearance: [8.4, 9, 10], counterbore: 15, countersunk: 17.3 },
  { screw: 'M10', clearance: [10.5, 11, 12], counterbore: 18, countersunk: 20 },
  { screw: 'M12', clearance: [13, 13.5, 14.5], counterbore: 20, countersunk: 24 },
  { screw: 'M16', clearance: [17, 17.5, 18.5], counterbore: 26, countersunk: null },
];
const FITS = ['fine', 'medium', 'coarse'] as const;
/** Sizes this near the table's are the table's, mm; heads are opened somewhat wider at will. */
const SAME = 0.06;
const HEAD_SLACK = 0.6;

export interface Clearance {
  screw: string;
  fit: (typeof FITS)[number];
}

/** The screw whose clearance hole has that diameter and a head opened to `head`: a counterbore, or a countersink of 90°. */
export function clearanceFor(
  diameter: number,
  head: number,
  kind: 'counterbore' | 'countersink',
): Clearance | null {
  for (const s of SCREWS) {
    const fit = s.clearance.findIndex((d) => Math.abs(d - diameter) <= SAME);
    const own = kind === 'counterbore' ? s.counterbore : s.countersunk;
    if (fit >= 0 && own !== null && Math.abs(own - head) <= HEAD_SLACK)
      return { screw: s.screw, fit: at(FITS, fit) };
  }
  return null;
}
