import { first as firstOf } from '../lists.ts';
import type { StackStep, ThreadCandidate } from '../features/hole/schema.ts';
import { minorDiameter, type Thread } from './thread.ts';
import { TAPERED_PIPE, THREADS } from './standards.ts';

/** How far a drawn diameter may be from a tap drill or minor diameter, mm. */
const CLOSE = 0.15;
const NOMINAL = 0.005;
const MOST = 6;

/**
 * What threads a hole of that stack may carry, likeliest first. Guesses only: a plain 5 mm dowel hole looks like an M6 tap drill.
 * Coarse before fine, the file's own unit system first, then the nearest size.
 */
export function threadCandidates(stack: StackStep[], units: 'mm' | 'inch'): ThreadCandidate[] {
  const taper = stack.find((s) => s.shape === 'cone' && Math.abs(s.angle - TAPER_ANGLE) < 0.05);
  if (taper?.shape === 'cone') return taperCandidates(Math.max(taper.startDiameter, taper.endDiameter));
  const diameters = stack.flatMap((s) => (s.shape === 'cylinder' ? [s.diameter] : []));
  if (diameters.length === 0) return [];
  const hole = Math.min(...diameters);
  const first = firstOf(stack);
  const rim = first.shape === 'cone' && first.startDiameter > first.endDiameter ? first.startDiameter : 0;
  const scored: Scored[] = [];
  for (const t of THREADS) {
    const s = t.form === 'pipe-tapered' ? null : score(t, hole, rim, units);
    if (s) scored.push(s);
  }
  scored.sort((a, b) => a.rank - b.rank || a.error - b.error);
  return scored.slice(0, MOST).map((s) => s.candidate);
}

/**
 * What threads a boss of that diameter may carry, likeliest first: it is drawn at the major diameter, or somewhat below. Guesses only.
 * Coarse before fine, the file's own unit system first.
 */
export function outsideCandidates(diameter: number, units: 'mm' | 'inch'): string[] {
  return THREADS.filter(
    (t) =>
      t.form !== 'pipe-tapered' &&
      t.majorDiameter - diameter > -NOMINAL &&
      t.majorDiameter - diameter < Math.min(CLOSE, 0.2 * t.pitch),
  )
    .map((t) => ({
      name: t.designation,
      rank: ((t.form === 'metric') === (units === 'mm') ? 0 : 2) + (t.coarse ? 0 : 1),
    }))
    .sort((a, b) => a.rank - b.rank)
    .slice(0, MOST)
    .map((t) => t.name);
}

/** Included angle of the 1:16 taper on diameter, degrees. */
export const TAPER_ANGLE = (360 / Math.PI) * Math.atan(1 / 32);

interface Scored {
  candidate: ThreadCandidate;
  rank: number;
  error: number;
}

function score(t: Thread, hole: number, rim: number, units: 'mm' | 'inch'): Scored | null {
  const foreign = (t.form === 'metric') === (units === 'mm') ? 0 : 2;
  const rank = foreign + (t.coarse ? 0 : 1);
  if (rim > t.majorDiameter && Math.abs(hole - t.majorDiameter) < NOMINAL) {
    return {
      candidate: { designation: t.designation, basis: 'major diameter' },
      rank: rank + 0.5,
      error: 0,
    };
  }
  const byDrill = Math.abs(hole - t.tapDrill);
  const byMinor = Math.abs(hole - minorDiameter(t.majorDiameter, t.pitch));
  const error = Math.min(byDrill, byMinor);
  // The width grows with the pitch only up to the stated limit: a small thread must not claim its neighbours' holes.
  if (error > Math.min(CLOSE, 0.2 * t.pitch)) return null;
  return {
    candidate: {
      designation: t.designation,
      basis: byDrill <= byMinor ? 'tap drill diameter' : 'minor diameter',
    },
    rank,
    error,
  };
}

function taperCandidates(mouth: number): ThreadCandidate[] {
  const inch = mouth / 25.4;
  return TAPERED_PIPE.map((p) => {
    // The mouth is drawn at the pitch diameter, at the minor diameter or at the major one: the nearest of the three counts.
    const e1 = p.d - (0.05 * p.d + 1.1) / p.tpi + p.l1 / 16;
    const error = Math.min(...[e1, e1 - 0.8 / p.tpi, e1 + 0.8 / p.tpi, p.d].map((d) => Math.abs(d - inch)));
    return { designation: `${p.size}-${p.tpi} NPT`, error };
  })
    .filter((c) => c.error < 0.03)
    .sort((a, b) => a.error - b.error)
    .map(({ designation }) => ({ designation, basis: 'taper' as const }));
}
