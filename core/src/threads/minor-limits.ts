import { threadSizes } from './shape.ts';
import type { Thread } from './thread.ts';

const INCH = 25.4;

/** Limits of an inside thread's minor diameter, mm, and the class that they are of. */
export interface MinorLimits {
  min: number;
  max: number;
  of: string;
}

/** Tolerance grades of ISO 965-1 as shares of grade 6. */
const GRADES: Readonly<Record<string, number>> = { '4': 0.63, '5': 0.8, '6': 1, '7': 1.25, '8': 1.6 };

/** TD1 of ISO 228-1 by threads per inch, mm. */
const PIPE_TOLERANCE: readonly (readonly [tpi: number, mm: number])[] = [
  [28, 0.282],
  [19, 0.445],
  [14, 0.541],
  [11, 0.64],
];

/**
 * Between what the minor diameter of an inside thread may be: ISO 965-1 (6H where no class is said), ASME B1.1 (2B where none is said),
 * ISO 228-1. Null where the class is not known here, or the thread is tapered: its hole has no one diameter.
 */
export function minorLimits(thread: Thread): MinorLimits | null {
  const { form, pitch, toleranceClass } = thread;
  const { minor } = threadSizes(thread);
  if (form === 'pipe-tapered') return null;
  if (form === 'pipe-parallel') {
    const found = PIPE_TOLERANCE.find(([tpi]) => Math.abs(INCH / tpi - pitch) < 0.002);
    return found ? { min: minor, max: minor + found[1], of: 'ISO 228-1' } : null;
  }
  return form === 'metric'
    ? metricLimits(minor, pitch, toleranceClass ?? '6H')
    : unifiedLimits(thread.majorDiameter / INCH, pitch / INCH, toleranceClass ?? '2B');
}

/** The last grade and letter are those of the minor diameter: 6H, 5H6H. */
function metricLimits(minor: number, pitch: number, of: string): MinorLimits | null {
  const m = /(\d)([GH])$/.exec(of);
  const grade = m?.[1] === undefined ? undefined : GRADES[m[1]];
  if (!m || grade === undefined) return null;
  // TD1(6), micrometres: 433·P − 190·P^1.22 up to 0.8 mm pitch, 230·P^0.7 from 1 mm. EI of G: 15 + 11·P.
  const tolerance = pitch <= 0.8 ? 433 * pitch - 190 * pitch ** 1.22 : 230 * pitch ** 0.7;
  const min = minor + (m[2] === 'G' ? (15 + 11 * pitch) / 1000 : 0);
  return { min, max: min + (grade * tolerance) / 1000, of };
}

/** ASME B1.1; inches in, mm out. */
function unifiedLimits(major: number, pitch: number, of: string): MinorLimits | null {
  if (!/^[123]B$/.test(of)) return null;
  const min = major - 1.082532 * pitch;
  const max = min + (of === '3B' ? finerTolerance(major, pitch) : usualTolerance(major, pitch));
  return { min: min * INCH, max: max * INCH, of };
}

/** Tolerance of the minor diameter by pitch and diameter, inches, held between a least and 0.394 P (ASME B1.1). */
const byDiameter = (major: number, pitch: number, least: number): number =>
  Math.max(least, Math.min(0.394 * pitch, 0.05 * Math.cbrt(pitch ** 2) + (0.03 * pitch) / major - 0.002));

/** Classes 1B and 2B: from 1/4 in on by the pitch alone. */
function usualTolerance(major: number, pitch: number): number {
  const byPitch = pitch > 1 / 4 ? 0.15 * pitch : 0.25 * pitch - 0.4 * pitch ** 2;
  return major < 1 / 4 ? byDiameter(major, pitch, byPitch) : byPitch;
}

/** Class 3B: another least for 13 threads per inch and finer. */
const finerTolerance = (major: number, pitch: number): number =>
  byDiameter(major, pitch, pitch < 1 / 12.5 ? 0.23 * pitch - 1.5 * pitch ** 2 : 0.12 * pitch);
