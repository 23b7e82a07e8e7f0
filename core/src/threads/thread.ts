import { z } from 'zod';

/** A thread as it is made: all lengths in mm. */
export const threadSchema = z.object({
  designation: z.string().max(60),
  form: z.enum(['metric', 'unified', 'pipe-parallel', 'pipe-tapered']),
  majorDiameter: z.number().positive(),
  pitch: z.number().positive(),
  tapDrill: z.number().positive(),
  coarse: z.boolean(),
  hand: z.enum(['right', 'left']),
  /** Threads that wind side by side; one where nothing is said. */
  starts: z.number().int().min(1).max(6).optional(),
  /** Tolerance class as printed, such as 6H or 2B. */
  toleranceClass: z.string().max(20).optional(),
});
export type Thread = z.infer<typeof threadSchema>;

/** Most threads that wind side by side here. */
export const MOST_STARTS = 6;

/** How many threads wind side by side. */
export const startsOf = ({ starts = 1 }: Pick<Thread, 'starts'>): number => starts;

/** Way along the axis in one turn, mm: pitch × starts. */
export const leadOf = (t: Pick<Thread, 'pitch' | 'starts'>): number => t.pitch * startsOf(t);

/** Pitch diameter of a 60° thread, mm: D − 0.649519·P (ISO 724, ASME B1.1). */
export const pitchDiameter = (major: number, pitch: number): number => major - 0.649519 * pitch;

/** Minor diameter of a 60° internal thread, mm: D1 = D − 1.082532·P (ISO 724, ASME B1.1). */
export const minorDiameter = (major: number, pitch: number): number => major - 1.082532 * pitch;

/** Height of the fundamental triangle of a 60° thread, mm: H = 0.866025·P (ISO 68-1). */
export const fundamentalHeight = (pitch: number): number => 0.866025 * pitch;

/** Pitch and minor diameter of a 55° Whitworth pipe thread (ISO 228-1, ISO 7-1), mm. */
export function whitworth(major: number, pitch: number): { pitchDiameter: number; minorDiameter: number } {
  const depth = 0.640327 * pitch;
  return { pitchDiameter: major - depth, minorDiameter: major - 2 * depth };
}

/** Thread engagement left by a drilled hole, percent: (D − hole)/(1.299038·P)·100. */
export const engagementPercent = (major: number, pitch: number, hole: number): number =>
  ((major - hole) / (1.299038 * pitch)) * 100;

/** Hole for a forming tap, mm: D − 0.0068·%·P, with the thread wanted in percent (65 is usual). */
export const formingHole = (major: number, pitch: number, percent = 65): number =>
  major - 0.0068 * percent * pitch;

/** Tapered pipe thread E0 and E1, all inches: E0 = D − (0.05·D + 1.1)·P, E1 = E0 + L1/16 (ASME B1.20.1). */
export function taperedPipe(major: number, pitch: number, l1: number): { e0: number; e1: number } {
  const e0 = major - (0.05 * major + 1.1) * pitch;
  return { e0, e1: e0 + l1 / 16 };
}

export const TAP_LEADS = ['plug', 'bottoming', 'spiral-point', 'semi-bottoming', 'taper'] as const;
export type TapLead = (typeof TAP_LEADS)[number];

/** Threads that a tap's lead takes before it cuts full thread. */
export const LEAD_THREADS: Readonly<Record<TapLead, number>> = {
  plug: 4,
  bottoming: 1.5,
  'spiral-point': 4,
  'semi-bottoming': 2.5,
  taper: 8,
};

/** Depth of the tap's tip for a wanted depth of full thread, mm. */
export const tapDepth = (fullThread: number, pitch: number, lead: TapLead): number =>
  fullThread + LEAD_THREADS[lead] * pitch;

/** Least depth to which the drill's full diameter must go for that tap depth, mm: one pitch beyond. */
export const drillDepthForTap = (tap: number, pitch: number): number => tap + pitch;
