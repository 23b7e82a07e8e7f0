import { THREADS } from './standards.ts';
import { whitworth, type Thread } from './thread.ts';

const INCH = 25.4;

/** ISO 228-1 and ISO 7-1: size, threads per inch, major diameter and the usual drill for a parallel thread, mm. */
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
];

const pipe = (name: string, form: Thread['form']): Thread[] =>
  PIPE.map(([size, tpi, majorDiameter, drill]) => {
    const pitch = Math.round((INCH / tpi) * 1000) / 1000;
    return {
      designation: `${name} ${size}`,
      form,
      majorDiameter,
      pitch,
      // A tapered thread's hole depends on how it is made: by then only its narrow end is known.
      tapDrill: form === 'pipe-tapered' ? whitworth(majorDiameter, pitch).minorDiameter : drill,
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
  ...UNIFIED.map(([name, inches, tpi, series]): Thread => ({
    designation: `${name}-${tpi} ${series}`,
    form: 'unified',
    majorDiameter: inches * INCH,
    pitch: INCH / tpi,
    tapDrill: (inches - 1 / tpi) * INCH,
    coarse: series === 'UNC',
    hand: 'right',
  })),
  ...pipe('G', 'pipe-parallel'),
  ...pipe('Rp', 'pipe-parallel'),
  ...pipe('Rc', 'pipe-tapered'),
  ...DRYSEAL,
];
