import { at } from '../lists.ts';
import { NAMED_THREADS, unifiedBySeries } from '../threads/more.ts';
import { coarsePitch, metricThread, THREADS } from '../threads/standards.ts';
import type { Thread } from '../threads/thread.ts';
import { CalloutError } from './schema.ts';

const INCH = 25.4;
/** A number as written, with point or comma. */
export const decimal = (s: string): number => Number(s.replace(',', '.'));

/** A metric thread by nominal and pitch as written; the coarse pitch where none is. */
export function metricFrom(nominalText: string, pitchText: string | undefined): Thread {
  const nominal = decimal(nominalText);
  const pitch = pitchText ? decimal(pitchText) : coarsePitch(nominal);
  if (pitch === undefined)
    throw new CalloutError(
      `M${nominalText} has no coarse pitch in the table: write the pitch, as in M${nominalText}x1.`,
    );
  if (!(pitch > 0) || pitch > nominal / 2)
    throw new CalloutError(`A pitch of ${pitchText} does not go with M${nominalText}.`);
  const known = THREADS.find(
    (t) => t.form === 'metric' && t.majorDiameter === nominal && Math.abs(t.pitch - pitch) < 1e-9,
  );
  return known ?? metricThread(nominal, pitch);
}

const COUNTS: Readonly<Record<string, number>> = {
  two: 2,
  double: 2,
  three: 3,
  triple: 3,
  four: 4,
  five: 5,
  six: 6,
};

/** How many, as a figure or in words; NaN for anything else. */
export const countOf = (text: string): number => COUNTS[text.toLowerCase()] ?? Number(text);

/** `1 1/4`, `1-1/4`, `3/8` and plain numbers, inches; NaN for anything else. */
export function inches(text: string): number {
  const m = /^(?:(\d+)[\s-]+)?(\d+)\/(\d+)$/.exec(text.trim());
  return m ? Number(m[1] ?? 0) + Number(m[2]) / Number(m[3]) : decimal(text);
}

/** Gauge sizes are names, not inches: #10 is 0.190. */
const isGauge = (text: string): boolean => /^\d{1,2}$/.test(text);

/** A unified or NPT thread by size and threads an inch as written: gauge, fraction, mixed or decimal. */
export function unifiedFrom(size: string, tpi: string, series: string | undefined): Thread {
  const wanted = Number(tpi);
  const bySeries = NAMED_THREADS.filter(
    (t) =>
      (t.form === 'unified' || t.form === 'pipe-tapered') &&
      Math.abs(t.pitch - INCH / wanted) < 1e-6 &&
      (series ? t.designation.endsWith(` ${series.toUpperCase()}`) : !/NPTF$|^R/.test(t.designation)),
  );
  const value = inches(size);
  const found = bySeries.find((t) => {
    const name = t.designation.slice(0, t.designation.lastIndexOf('-'));
    if (isGauge(size)) return name === size;
    // NPT goes by the pipe's name, not by what it measures.
    if (t.form === 'pipe-tapered') return inches(name) === value;
    return Math.abs(t.majorDiameter - value * INCH) < 0.0006 * INCH;
  });
  const made = found ?? (series ? unifiedBySeries(size.trim(), value, wanted, series.toUpperCase()) : null);
  if (!made)
    throw new CalloutError(
      `${size}-${tpi}${series ? ` ${series}` : ''} is not in the thread tables (ASME B1.1, B1.20.1). Check size and threads per inch.`,
    );
  return made;
}

const PIPE_KINDS = ['G', 'Rp', 'Rc', 'R', 'NPT', 'NPTF'] as const;
export type PipeKind = (typeof PIPE_KINDS)[number];

/** The kind of a pipe thread as it is written; BSP is parallel unless it says taper. */
export function pipeKind(text: string): PipeKind {
  const kind = text.toUpperCase();
  if (kind === 'BSPT') return 'Rc';
  return PIPE_KINDS.find((k) => k.toUpperCase() === kind) ?? 'G';
}

/** A pipe thread by its kind and size. */
export function pipeFrom(kind: PipeKind, size: string): Thread {
  const value = inches(size);
  const found = NAMED_THREADS.find((t) => {
    if (kind === 'NPT' || kind === 'NPTF') {
      const m = /^(.*)-[\d.]+ (NPTF?)$/.exec(t.designation);
      return m !== null && m[2] === kind && inches(at(m, 1)) === value;
    }
    return t.designation.startsWith(`${kind} `) && inches(t.designation.slice(kind.length + 1)) === value;
  });
  if (!found) throw new CalloutError(`${kind} ${size} is not in the table of pipe threads. Check the size.`);
  return found;
}
