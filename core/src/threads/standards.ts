import type { Thread } from './thread.ts';

const INCH = 25.4;

/** ISO 261 sizes: nominal, coarse pitch, then fine pitches, mm. */
const METRIC: [number, number, ...number[]][] = [
  [1.6, 0.35],
  [2, 0.4],
  [2.5, 0.45],
  [3, 0.5, 0.35],
  [3.5, 0.6],
  [4, 0.7, 0.5],
  [5, 0.8, 0.5],
  [6, 1, 0.75],
  [7, 1],
  [8, 1.25, 1, 0.75],
  [10, 1.5, 1.25, 1],
  [12, 1.75, 1.5, 1.25, 1],
  [14, 2, 1.5, 1.25],
  [16, 2, 1.5, 1],
  [18, 2.5, 2, 1.5],
  [20, 2.5, 2, 1.5, 1],
  [22, 2.5, 2, 1.5],
  [24, 3, 2, 1.5],
  [27, 3, 2],
  [30, 3.5, 2, 1.5],
  [33, 3.5, 2],
  [36, 4, 3, 2, 1.5],
  [42, 4.5, 3, 2],
  [48, 5, 3, 2],
];

/** Tap drills that are not nominal minus pitch rounded to 0.05, as in the usual tables, mm. */
const METRIC_TAP_DRILL: Record<string, number> = {
  '1.6x0.35': 1.25,
  '2.5x0.45': 2.05,
  '3.5x0.6': 2.9,
  '8x1.25': 6.8,
  '12x1.75': 10.2,
  '10x1.25': 8.8,
  '12x1.25': 10.8,
  '14x1.25': 12.8,
  '8x0.75': 7.25,
  '6x0.75': 5.25,
  '3x0.35': 2.65,
};

/** ASME B1.1 sizes: name, nominal inch, threads per inch, series, tap drill inch. */
const UNIFIED: [string, number, number, 'UNC' | 'UNF', number][] = [
  ['2', 0.086, 56, 'UNC', 0.07],
  ['2', 0.086, 64, 'UNF', 0.07],
  ['4', 0.112, 40, 'UNC', 0.089],
  ['4', 0.112, 48, 'UNF', 0.0935],
  ['5', 0.125, 40, 'UNC', 0.1015],
  ['6', 0.138, 32, 'UNC', 0.1065],
  ['6', 0.138, 40, 'UNF', 0.113],
  ['8', 0.164, 32, 'UNC', 0.136],
  ['8', 0.164, 36, 'UNF', 0.136],
  ['10', 0.19, 24, 'UNC', 0.1495],
  ['10', 0.19, 32, 'UNF', 0.159],
  ['12', 0.216, 24, 'UNC', 0.177],
  ['1/4', 0.25, 20, 'UNC', 0.201],
  ['1/4', 0.25, 28, 'UNF', 0.213],
  ['5/16', 0.3125, 18, 'UNC', 0.257],
  ['5/16', 0.3125, 24, 'UNF', 0.272],
  ['3/8', 0.375, 16, 'UNC', 0.3125],
  ['3/8', 0.375, 24, 'UNF', 0.332],
  ['7/16', 0.4375, 14, 'UNC', 0.368],
  ['7/16', 0.4375, 20, 'UNF', 0.3906],
  ['1/2', 0.5, 13, 'UNC', 0.4219],
  ['1/2', 0.5, 20, 'UNF', 0.4531],
  ['9/16', 0.5625, 12, 'UNC', 0.4844],
  ['9/16', 0.5625, 18, 'UNF', 0.5156],
  ['5/8', 0.625, 11, 'UNC', 0.5312],
  ['5/8', 0.625, 18, 'UNF', 0.5781],
  ['3/4', 0.75, 10, 'UNC', 0.6562],
  ['3/4', 0.75, 16, 'UNF', 0.6875],
  ['7/8', 0.875, 9, 'UNC', 0.7656],
  ['7/8', 0.875, 14, 'UNF', 0.8125],
  ['1', 1, 8, 'UNC', 0.875],
  ['1', 1, 12, 'UNF', 0.9219],
];

/** ASME B1.20.1: size, D, threads per inch, L1, L2, tap drill, inches. */
export const TAPERED_PIPE: {
  size: string;
  d: number;
  tpi: number;
  l1: number;
  l2: number;
  tapDrill: number;
}[] = [
  { size: '1/16', d: 0.3125, tpi: 27, l1: 0.16, l2: 0.2611, tapDrill: 0.25 },
  { size: '1/8', d: 0.405, tpi: 27, l1: 0.1615, l2: 0.2639, tapDrill: 0.332 },
  { size: '1/4', d: 0.54, tpi: 18, l1: 0.2278, l2: 0.4018, tapDrill: 0.4375 },
  { size: '3/8', d: 0.675, tpi: 18, l1: 0.24, l2: 0.4078, tapDrill: 0.5625 },
  { size: '1/2', d: 0.84, tpi: 14, l1: 0.32, l2: 0.5337, tapDrill: 0.7031 },
  { size: '3/4', d: 1.05, tpi: 14, l1: 0.339, l2: 0.5457, tapDrill: 0.9062 },
  { size: '1', d: 1.315, tpi: 11.5, l1: 0.4, l2: 0.6828, tapDrill: 1.1406 },
  { size: '1 1/4', d: 1.66, tpi: 11.5, l1: 0.42, l2: 0.7068, tapDrill: 1.5 },
  { size: '1 1/2', d: 1.9, tpi: 11.5, l1: 0.42, l2: 0.7235, tapDrill: 1.7344 },
  { size: '2', d: 2.375, tpi: 11.5, l1: 0.436, l2: 0.7565, tapDrill: 2.2188 },
];

/** ISO 7-1: size, basic gauge length and useful thread length at it, and the usual drill where no reamer follows, mm. */
export const WHITWORTH_TAPERED: readonly {
  size: string;
  gauge: number;
  useful: number;
  tapDrill: number;
}[] = [
  { size: '1/16', gauge: 4, useful: 6.5, tapDrill: 6.3 },
  { size: '1/8', gauge: 4, useful: 6.5, tapDrill: 8.4 },
  { size: '1/4', gauge: 6, useful: 9.7, tapDrill: 11.2 },
  { size: '3/8', gauge: 6.4, useful: 10.1, tapDrill: 14.75 },
  { size: '1/2', gauge: 8.2, useful: 13.2, tapDrill: 18.25 },
  { size: '3/4', gauge: 9.5, useful: 14.5, tapDrill: 23.75 },
  { size: '1', gauge: 10.4, useful: 16.8, tapDrill: 30 },
  { size: '1 1/4', gauge: 12.7, useful: 19.1, tapDrill: 38.5 },
  { size: '1 1/2', gauge: 12.7, useful: 19.1, tapDrill: 44.5 },
  { size: '2', gauge: 15.9, useful: 23.4, tapDrill: 56 },
];

const trim = (v: number): string => String(Math.round(v * 1000) / 1000);

function metric(nominal: number, pitch: number, coarse: boolean): Thread {
  const listed = METRIC_TAP_DRILL[`${nominal}x${pitch}`];
  return {
    designation: `M${trim(nominal)}x${trim(pitch)}`,
    form: 'metric',
    majorDiameter: nominal,
    pitch,
    tapDrill: listed ?? Math.round((nominal - pitch) * 100) / 100,
    coarse,
    hand: 'right',
  };
}

/** Every thread of the tables, metric coarse and fine first, then unified, then tapered pipe. */
export const THREADS: readonly Thread[] = [
  ...METRIC.flatMap(([nominal, coarse, ...fine]) => [
    metric(nominal, coarse, true),
    ...fine.map((p) => metric(nominal, p, false)),
  ]),
  ...UNIFIED.map(([name, nominal, tpi, series, drill]): Thread => ({
    designation: `${name}-${tpi} ${series}`,
    form: 'unified',
    majorDiameter: nominal * INCH,
    pitch: INCH / tpi,
    tapDrill: drill * INCH,
    coarse: series === 'UNC',
    hand: 'right',
  })),
  ...TAPERED_PIPE.map((p): Thread => ({
    designation: `${p.size}-${p.tpi} NPT`,
    form: 'pipe-tapered',
    majorDiameter: p.d * INCH,
    pitch: INCH / p.tpi,
    tapDrill: p.tapDrill * INCH,
    coarse: true,
    hand: 'right',
  })),
];

/** A thread of a size and pitch outside the tables: tap drill is nominal less pitch. */
export function metricThread(nominal: number, pitch: number): Thread {
  return metric(nominal, pitch, false);
}

/** Coarse pitch for a metric nominal, mm, if ISO 261 has it. */
export const coarsePitch = (nominal: number): number | undefined => METRIC.find(([n]) => n === nominal)?.[1];
