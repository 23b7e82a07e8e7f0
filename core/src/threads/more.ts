import { THREADS, WHITWORTH_TAPERED } from './standards.ts';
import type { Thread } from './thread.ts';

const INCH = 25.4;

/** ISO 228-1, and where ISO 7-1 has the size as well, that: size, threads per inch, major diameter and the usual drill for a parallel thread, mm. */
const PIPE: readonly (readonly [string, number, number, number])[] = [
  ['1/16', 28, 7.723, 6.8],
  ['1/8', 28, 9.728, 8.8],
  ['1/4', 19, 13.157, 11.8],
  ['3/8', 19, 16.662, 15.25],
  ['1/2', 14, 20.955, 19],
  ['5/8', 14, 22.911, 21],
  ['3/4', 14, 26.441, 24.5],
  ['7/8', 14, 30.201, 28.25],
  ['1', 11, 33.249, 30.75],
  ['1 1/4', 11, 41.91, 39.5],
  ['1 1/2', 11, 47.803, 45.25],
  ['2', 11, 59.614, 57],
];

type Series = 'UNC' | 'UNF' | 'UNEF';

/** ASME B1.1, what the first table leaves out: name, nominal inch, threads per inch, series. */
const UNIFIED: readonly (readonly [string, number, number, Series])[] = [
  ['0', 0.06, 80, 'UNF'],
  ['1', 0.073, 64, 'UNC'],
  ['1', 0.073, 72, 'UNF'],
  ['3', 0.099, 48, 'UNC'],
  ['3', 0.099, 56, 'UNF'],
  ['5', 0.125, 44, 'UNF'],
  ['12', 0.216, 28, 'UNF'],
  ['12', 0.216, 32, 'UNEF'],
  ['1/4', 0.25, 32, 'UNEF'],
  ['5/16', 0.3125, 32, 'UNEF'],
  ['3/8', 0.375, 32, 'UNEF'],
  ['7/16', 0.4375, 28, 'UNEF'],
  ['1/2', 0.5, 28, 'UNEF'],
  ['9/16', 0.5625, 24, 'UNEF'],
  ['5/8', 0.625, 24, 'UNEF'],
  ['11/16', 0.6875, 24, 'UNEF'],
  ['3/4', 0.75, 20, 'UNEF'],
  ['13/16', 0.8125, 20, 'UNEF'],
  ['7/8', 0.875, 20, 'UNEF'],
  ['15/16', 0.9375, 20, 'UNEF'],
  ['1', 1, 20, 'UNEF'],
  ['1 1/8', 1.125, 7, 'UNC'],
  ['1 1/8', 1.125, 12, 'UNF'],
  ['1 1/8', 1.125, 18, 'UNEF'],
  ['1 1/4', 1.25, 7, 'UNC'],
  ['1 1/4', 1.25, 12, 'UNF'],
  ['1 1/4', 1.25, 18, 'UNEF'],
  ['1 3/8', 1.375, 6, 'UNC'],
  ['1 3/8', 1.375, 12, 'UNF'],
  ['1 1/2', 1.5, 6, 'UNC'],
  ['1 1/2', 1.5, 12, 'UNF'],
  ['1 3/4', 1.75, 5, 'UNC'],
  ['2', 2, 4.5, 'UNC'],
  ['2 1/4', 2.25, 4.5, 'UNC'],
  ['2 1/2', 2.5, 4, 'UNC'],
  ['2 3/4', 2.75, 4, 'UNC'],
  ['3', 3, 4, 'UNC'],
  ['1 1/16', 1.0625, 18, 'UNEF'],
  ['1 3/16', 1.1875, 18, 'UNEF'],
  ['1 5/16', 1.3125, 18, 'UNEF'],
  ['1 3/8', 1.375, 18, 'UNEF'],
  ['1 7/16', 1.4375, 18, 'UNEF'],
  ['1 1/2', 1.5, 18, 'UNEF'],
  ['1 9/16', 1.5625, 18, 'UNEF'],
  ['1 5/8', 1.625, 18, 'UNEF'],
  ['1 11/16', 1.6875, 18, 'UNEF'],
];

/** Threads per inch of the constant-pitch series UN (ASME B1.1). */
const CONSTANT_PITCH: readonly number[] = [4, 6, 8, 12, 16, 20, 28, 32];

/**
 * A thread of the constant-pitch series (UN: pitches of ASME B1.1 on any nominal of a sixteenth), or a special one (UNS); null where the
 * series has no such thread. `name`: the size as it is said.
 */
export function unifiedBySeries(name: string, major: number, tpi: number, series: string): Thread | null {
  const isListed = CONSTANT_PITCH.includes(tpi) && Math.abs(major * 16 - Math.round(major * 16)) < 0.02;
  if (series !== 'UNS' && !(series === 'UN' && isListed)) return null;
  if (!(major > 0) || !(tpi > 0) || 1 / tpi > major / 3) return null;
  return unified(name, major, tpi, series);
}

const unified = (name: string, inches: number, tpi: number, series: string): Thread => ({
  designation: `${name}-${tpi} ${series}`,
  form: 'unified',
  majorDiameter: inches * INCH,
  pitch: INCH / tpi,
  tapDrill: (inches - 1 / tpi) * INCH,
  coarse: series === 'UNC',
  hand: 'right',
});

/** Sizes that ISO 7-1 has. */
const TAPERED_TOO = PIPE.filter(([size]) => WHITWORTH_TAPERED.some((t) => t.size === size));

const taperDrill = (size: string): number | undefined =>
  WHITWORTH_TAPERED.find((t) => t.size === size)?.tapDrill;

const pipe = (name: string, form: Thread['form'], sizes: typeof PIPE = TAPERED_TOO): Thread[] =>
  sizes.map(([size, tpi, majorDiameter, drill]) => {
    const pitch = Math.round((INCH / tpi) * 1000) / 1000;
    return {
      designation: `${name} ${size}`,
      form,
      majorDiameter,
      pitch,
      tapDrill: (form === 'pipe-tapered' ? taperDrill(size) : undefined) ?? drill,
      coarse: true,
      hand: 'right',
    };
  });

/** Dryseal threads have NPT's sizes (ASME B1.20.3), and are not NPT: they seal without paste. */
const DRYSEAL = THREADS.filter((t) => t.designation.endsWith(' NPT')).map((t): Thread => ({
  ...t,
  designation: t.designation.replace(' NPT', ' NPTF'),
}));

/** Threads that a print may name and that are never guessed from a hole's size. Tap drills of unified ones: nominal less pitch. */
export const NAMED_THREADS: readonly Thread[] = [
  ...THREADS,
  ...UNIFIED.map(([name, inches, tpi, series]) => unified(name, inches, tpi, series)),
  ...pipe('G', 'pipe-parallel', PIPE),
  ...pipe('Rp', 'pipe-parallel'),
  ...pipe('Rc', 'pipe-tapered'),
  ...pipe('R', 'pipe-tapered'),
  ...DRYSEAL,
];
