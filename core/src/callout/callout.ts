import { coarsePitch, metricThread, THREADS } from '../threads/standards.ts';
import type { Thread } from '../threads/thread.ts';
import { formatLength, parseLength, type LengthUnit } from '../units/length.ts';

/** What a callout on a print says of a hole. Lengths in mm. */
export interface Callout {
  diameter?: number;
  thread?: Thread;
  /** Depth of full thread, or of the hole where there is no thread; absent when not said. */
  depth?: number;
  through: boolean;
  counterbore?: { diameter: number; depth?: number };
  countersink?: { diameter: number; angleDeg: number };
  count?: number;
}

export class CalloutError extends Error {}

const DIAMETER = String.raw`(?:[⌀∅Øø]|dia\.?\s*)`;
const NUMBER = String.raw`(\d+(?:\s+\d+\/\d+|\/\d+|[.,]\d+)?|[.,]\d+)`;
const DOWN = String.raw`(?:↧|deep|depth|x\s*(?=[\d.]+\s*deep))`;

/**
 * Reads a callout as printed: `M6x1 - 6H ↧12`, `1/4-20 UNC-2B THRU`, `⌀6.6 THRU ⌴ ⌀11 ↧6.8`, `⌵ ⌀12.4 X 90°`.
 * ↧ may be typed as "deep", ⌴ as "cbore", ⌵ as "csk", ⌀ as "dia". Throws {@link CalloutError} with the part that is not understood.
 */
export function parseCallout(text: string, unit: LengthUnit): Callout {
  let rest = text.trim().replace(/×/g, 'x').replace(/\s+/g, ' ');
  if (rest === '') throw new CalloutError('Type the callout as printed, such as M8x1.25 - 6H ↧16.');
  const out: Callout = { through: false };
  const take = (pattern: string, use: (m: RegExpExecArray) => void): boolean => {
    const m = new RegExp(`^\\s*(?:${pattern})\\s*`, 'i').exec(rest);
    if (!m || m[0].trim() === '') return false;
    use(m);
    rest = rest.slice(m[0].length);
    return true;
  };
  const length = (s: string): number => parseLength(s, unit);
  let where: 'hole' | 'counterbore' = 'hole';
  const rules: [string, (m: RegExpExecArray) => void][] = [
    [String.raw`(\d+)\s?x(?=\s*(?:${DIAMETER}|M\d|\d+[/-]))`, (m) => (out.count = Number(m[1]))],
    [String.raw`(?:⌴|c'?bore|counterbore)\s*${DIAMETER}?\s*${NUMBER}`, (m) => ((out.counterbore = { diameter: length(m[1]!) }), (where = 'counterbore'))],
    [
      String.raw`(?:⌵|csk|c'?sink|countersink)\s*${DIAMETER}?\s*${NUMBER}\s*(?:x\s*)?(?:(\d+(?:\.\d+)?)\s*°?)?`,
      (m) => (out.countersink = { diameter: length(m[1]!), angleDeg: m[2] ? Number(m[2]) : 90 }),
    ],
    [String.raw`M\s?${NUMBER}\s*(?:x\s*(\d*[.,]?\d+))?(?:\s*-?\s*(\d[A-Za-z]+))?`, (m) => (out.thread = metricFrom(m))],
    [String.raw`(?:#)?(\d+(?:\/\d+)?)\s*-\s*(\d+(?:\.\d+)?)\s*(UNC|UNF|NPT|NPTF)?(?:\s*-?\s*(\d[AB]))?`, (m) => (out.thread = inchFrom(m))],
    [String.raw`(?:-\s*)?(LH|left)\b`, () => out.thread && (out.thread = { ...out.thread, hand: 'left' })],
    [String.raw`(?:-\s*)?(\d[A-Ha-h]|\d[AB])\b`, (m) => out.thread && (out.thread = { ...out.thread, toleranceClass: m[1]! })],
    [String.raw`thru(?:\s+all)?|through|all through`, () => (out.through = true)],
    [
      String.raw`${DOWN}\s*${NUMBER}(?:\s*(mm|in|"))?`,
      (m) => {
        const depth = length(m[1]! + (m[2] ?? ''));
        if (where === 'counterbore' && out.counterbore && out.counterbore.depth === undefined) out.counterbore.depth = depth;
        else out.depth = depth;
      },
    ],
    [String.raw`${DIAMETER}\s*${NUMBER}(?:\s*(mm|in|"))?`, (m) => (out.diameter = length(m[1]! + (m[2] ?? '')))],
    [String.raw`[-,;]`, () => undefined],
  ];
  while (rest.trim() !== '') {
    if (!rules.some(([pattern, use]) => take(pattern, use))) {
      throw new CalloutError(`"${rest.trim()}" in the callout is not understood. Write it as on a print, such as ⌀6.6 THRU ⌴ ⌀11 ↧6.8.`);
    }
  }
  if (!out.diameter && !out.thread && !out.counterbore && !out.countersink) throw new CalloutError('The callout names no diameter and no thread.');
  return out;
}

const decimal = (s: string): number => Number(s.replace(',', '.'));

function metricFrom(m: RegExpExecArray): Thread {
  const nominal = decimal(m[1]!);
  const pitch = m[2] ? decimal(m[2]) : coarsePitch(nominal);
  if (pitch === undefined) throw new CalloutError(`M${m[1]} has no coarse pitch in the table: write the pitch, as in M${m[1]}x1.`);
  const known = THREADS.find((t) => t.form === 'metric' && t.majorDiameter === nominal && Math.abs(t.pitch - pitch) < 1e-9);
  if (pitch <= 0 || pitch > nominal / 2) throw new CalloutError(`A pitch of ${m[2]} does not go with M${m[1]}.`);
  const thread = known ?? metricThread(nominal, pitch);
  return m[3] ? { ...thread, toleranceClass: m[3] } : thread;
}

function inchFrom(m: RegExpExecArray): Thread {
  const [, size, tpi, series, fit] = m;
  const wanted = `${size}-${tpi}`;
  const thread = THREADS.find((t) => t.designation.startsWith(`${wanted} `) && (!series || t.designation.endsWith(series.toUpperCase().replace('NPTF', 'NPT'))));
  if (!thread) throw new CalloutError(`${wanted}${series ? ` ${series}` : ''} is not in the thread tables (ASME B1.1, B1.20.1).`);
  return fit ? { ...thread, toleranceClass: fit.toUpperCase() } : thread;
}

/** The callout in print style, in the job's unit. */
export function formatCallout(c: Callout, unit: LengthUnit): string {
  const n = (v: number) => formatLength(v, unit, unit === 'mm' ? 2 : 4);
  const parts: string[] = [];
  if (c.thread) parts.push(`${c.thread.designation.replace('x', '×')}${c.thread.toleranceClass ? ` – ${c.thread.toleranceClass}` : ''}${c.thread.hand === 'left' ? ' LH' : ''}`);
  else if (c.diameter !== undefined) parts.push(`⌀${n(c.diameter)}`);
  if (c.through) parts.push('THRU');
  else if (c.depth !== undefined) parts.push(`↧${n(c.depth)}`);
  if (c.counterbore) parts.push(`⌴ ⌀${n(c.counterbore.diameter)}${c.counterbore.depth !== undefined ? ` ↧${n(c.counterbore.depth)}` : ''}`);
  if (c.countersink) parts.push(`⌵ ⌀${n(c.countersink.diameter)} × ${Math.round(c.countersink.angleDeg * 100) / 100}°`);
  return parts.join(' ');
}
