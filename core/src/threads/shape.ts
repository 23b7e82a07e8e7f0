import { TAPERED_PIPE, WHITWORTH_TAPERED } from './standards.ts';
import { minorDiameter, pitchDiameter, taperedPipe, whitworth, type Thread } from './thread.ts';

const INCH = 25.4;

/** Taper of pipe threads on the diameter: 1:16 (ASME B1.20.1, ISO 7-1). */
export const PIPE_TAPER = 1 / 16;

/** Inside: cut into a hole's wall; outside: into a boss. */
export type ThreadSide = 'inside' | 'outside';

/** Angle between a thread's flanks, degrees: 55 of Whitworth pipe threads, 60 of all others here. */
export const flankAngle = ({ form, designation }: Pick<Thread, 'form' | 'designation'>): 55 | 60 =>
  form === 'pipe-parallel' || (form === 'pipe-tapered' && !isNpt(designation)) ? 55 : 60;

const isNpt = (designation: string): boolean => /NPTF?$/.test(designation);

/** What the tables say of a tapered thread: its start inside and outside by the pitch diameter, and its length, mm. */
interface Taper {
  inside: number;
  outside: number;
  length: number;
}

/**
 * Inside a taper begins at its gauge plane: NPT has its pitch diameter E1 there (ASME B1.20.1), R and Rc their gauge diameter (ISO 7-1).
 * Outside it begins at the small end: E0, and the gauge diameter less the taper over the gauge length. Full thread: L2, and the useful
 * length. Null for one that is in no table.
 */
function taperOf({ designation, pitch, majorDiameter }: Thread): Taper | null {
  const size = designation.replace(/^R\S*\s+|-[\d.]+ NPTF?$/g, '');
  if (isNpt(designation)) {
    const row = TAPERED_PIPE.find((p) => p.size === size);
    if (!row) return null;
    const { e0, e1 } = taperedPipe(majorDiameter / INCH, pitch / INCH, row.l1);
    return { inside: e1 * INCH, outside: e0 * INCH, length: row.l2 * INCH };
  }
  const row = WHITWORTH_TAPERED.find((p) => p.size === size);
  if (!row) return null;
  const inside = majorDiameter - WHITWORTH_DEPTH * pitch;
  return { inside, outside: inside - row.gauge * PIPE_TAPER, length: row.useful };
}

/** How far below its start a tapered thread is to be full where nobody says it, mm; null for one that no table has. */
export const taperedLength = (thread: Thread): number | null => taperOf(thread)?.length ?? null;

/** Heights of a pipe thread's profile, in pitches: Whitworth (ISO 7-1), and NPT at its tallest (ASME B1.20.1). */
const WHITWORTH_DEPTH = 0.640327;
const NPT_HEIGHT = 0.8;

/** mm. */
export interface ThreadSizes {
  major: number;
  pitch: number;
  minor: number;
}

const sizesAbout = (pitch: number, height: number): ThreadSizes => ({
  major: pitch + height,
  pitch,
  minor: pitch - height,
});

/**
 * Major, pitch and minor diameter of a thread at a depth below its start, mm: one everywhere of a straight thread (ISO 724, ASME B1.1,
 * ISO 228-1); of a tapered one inside it falls by 1/16 of the way, outside it grows.
 */
export function threadSizes(thread: Thread, side: ThreadSide = 'inside', below = 0): ThreadSizes {
  const { form, majorDiameter: major, pitch } = thread;
  if (form === 'pipe-tapered') {
    const height = (flankAngle(thread) === 55 ? WHITWORTH_DEPTH : NPT_HEIGHT) * pitch;
    const start = taperOf(thread)?.[side] ?? major - height;
    return sizesAbout(start + (side === 'inside' ? -1 : 1) * below * PIPE_TAPER, height);
  }
  if (form === 'pipe-parallel') {
    const { pitchDiameter: middle, minorDiameter: minor } = whitworth(major, pitch);
    return { major, pitch: middle, minor };
  }
  return { major, pitch: pitchDiameter(major, pitch), minor: minorDiameter(major, pitch) };
}
