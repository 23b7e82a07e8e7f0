import type { Row } from '../job/derive.ts';
import { formatLength, type LengthUnit } from '../units/length.ts';

/** A hole's place as it is listed: program coordinates and depth as text in the job's unit. */
export interface HoleLine {
  label: string;
  callout: string;
  x: string;
  y: string;
  z: string;
  depth: string;
}

/** All holes of rows, in their order, with the places that their programs use; bosses with how far down their threads are made. */
export function holeLines(rows: readonly Row[], unit: LengthUnit): HoleLine[] {
  const say = (v: number): string => formatLength(v, unit, unit === 'mm' ? 3 : 4);
  return rows.flatMap((row) => {
    const made = row.holes.length > 0 ? row.holes : (row.operations[0]?.work ?? []);
    return made.map((h) => ({
      label: h.label,
      callout: row.calloutText,
      x: say(h.x),
      y: say(h.y),
      z: say(h.entryZ),
      depth: say('depth' in h ? h.depth : h.entryZ - h.z),
    }));
  });
}

const HEAD = (unit: LengthUnit): string[] => {
  const u = unit === 'mm' ? 'mm' : 'in';
  return ['hole', 'callout', `X ${u}`, `Y ${u}`, `Z of entry ${u}`, `depth ${u}`];
};
const cells = (h: HoleLine): string[] => [h.label, h.callout, h.x, h.y, h.z, h.depth];

/** As comma-separated values (RFC 4180): a head, then a line a hole. */
export function holeCsv(lines: readonly HoleLine[], unit: LengthUnit): string {
  const quoted = (v: string): string => (/[",\r\n]/.test(v) ? `"${v.replace(/"/g, '""')}"` : v);
  return [HEAD(unit), ...lines.map(cells)].map((r) => r.map(quoted).join(',')).join('\r\n') + '\r\n';
}

/** As tab-separated text, which tables of other programs take from the clipboard. */
export const holeTable = (lines: readonly HoleLine[], unit: LengthUnit): string =>
  [HEAD(unit), ...lines.map(cells)]
    .map((r) => r.map((v) => v.replace(/[\t\r\n]/g, ' ')).join('\t'))
    .join('\n');
