import { RIGID_TAP_BUILT_IN } from '@yellow-pin/core/code/profiles/schema';
import type { Library } from '@yellow-pin/core/plan/library';
import type { Material } from '@yellow-pin/core/cutting/material';
import type { Holder, Tool } from '@yellow-pin/core/tools/schema';
import { THREADS } from '@yellow-pin/core/threads/standards';
import { adjustedTaps } from './taps.ts';

/** The made-up shop's lists: Tidewrack Instruments. */
const INCH = 25.4;

const HOLDERS: Holder[] = [
  {
    id: 'er16',
    description: 'collet holder 16, short',
    steps: [
      { diameter: 28, length: 30 },
      { diameter: 50, length: 40 },
    ],
  },
  {
    id: 'er32',
    description: 'collet holder 32',
    steps: [
      { diameter: 50, length: 45 },
      { diameter: 63, length: 35 },
    ],
  },
  {
    id: 'chuck13',
    description: 'drill chuck 13',
    steps: [
      { diameter: 43, length: 70 },
      { diameter: 50, length: 30 },
    ],
  },
  {
    id: 'tap-holder',
    description: 'tap holder',
    steps: [
      { diameter: 32, length: 50 },
      { diameter: 50, length: 35 },
    ],
  },
  { id: 'weldon20', description: 'side-lock holder 20', steps: [{ diameter: 52, length: 60 }] },
];

const round = (v: number, digits = 2): number => Math.round(v * 10 ** digits) / 10 ** digits;

interface DrillSize {
  diameter: number;
  name: string;
  angle?: number;
  carbide?: boolean;
}

/** Flute length of a jobber drill, about that of the common standard lengths. */
const jobberFlute = (d: number): number => Math.round(10 + 11.5 * Math.pow(d, 0.82));
const shownSize = (s: DrillSize): string => (/^[0-9.]+$/.test(s.name) ? `⌀${s.name}` : s.name);

function drill(s: DrillSize, flute = jobberFlute(s.diameter), suffix = ''): Omit<Tool, 'number'> {
  return {
    id: `drill-${s.name.replace('/', '_').replace('#', 'n')}${suffix}`,
    kind: 'drill',
    description: `drill ${shownSize(s)}${suffix ? ' long' : ''}`,
    diameter: round(s.diameter, 4),
    sizeName: s.name,
    pointAngleDeg: s.angle ?? 118,
    tipDiameter: 0,
    fluteLength: flute,
    overallLength: flute + 35,
    shankDiameter: round(s.diameter, 3),
    stickOut: flute + 5,
    holderId: s.diameter > 13 ? 'er32' : 'chuck13',
    cutterMaterial: s.carbide ? 'carbide' : 'hss',
  };
}

const METRIC_DRILLS: number[] = [
  1, 1.5, 2, 2.5, 3, 3.3, 3.5, 4, 4.2, 4.5, 5, 5.5, 6, 6.6, 6.8, 7, 7.5, 8, 8.5, 9, 9.5, 10, 10.2, 10.5, 11,
  12, 13, 14, 15, 16, 17.5, 18, 19, 20,
];
const INCH_DRILLS: [string, number][] = [
  ['1/8', 0.125],
  ['3/16', 0.1875],
  ['1/4', 0.25],
  ['5/16', 0.3125],
  ['3/8', 0.375],
  ['1/2', 0.5],
  ['1in', 1],
  ['#36', 0.1065],
  ['#29', 0.136],
  ['#25', 0.1495],
  ['#21', 0.159],
  ['#7', 0.201],
  ['#3', 0.213],
  ['F', 0.257],
  ['I', 0.272],
  ['K', 0.281],
  ['Q', 0.332],
  ['U', 0.368],
  ['27/64', 0.4219],
];

const spot = (diameter: number, angle: number): Omit<Tool, 'number'> => ({
  id: `spot-${diameter}-${angle}`,
  kind: 'spot-drill',
  description: `spot drill ⌀${diameter} ${angle}°`,
  diameter,
  sizeName: String(diameter),
  pointAngleDeg: angle,
  tipDiameter: 0,
  fluteLength: diameter * 2.5,
  overallLength: 80,
  shankDiameter: diameter,
  stickOut: 35,
  holderId: 'er16',
  cutterMaterial: 'carbide',
});

const countersink = (diameter: number, angle: number, tip: number): Omit<Tool, 'number'> => ({
  id: `csk-${diameter}-${angle}`,
  kind: 'countersink',
  description: `countersink ⌀${diameter} ${angle}°`,
  diameter,
  sizeName: String(diameter),
  pointAngleDeg: angle,
  tipDiameter: tip,
  fluteLength: diameter,
  overallLength: 70,
  shankDiameter: Math.min(diameter, 10),
  stickOut: 40,
  holderId: 'er16',
  cutterMaterial: 'hss',
});

const counterbore = (diameter: number, name = String(diameter)): Omit<Tool, 'number'> => ({
  id: `cbore-${name.replace('/', '_')}`,
  kind: 'counterbore',
  description: `counterbore ${/\//.test(name) ? name : `⌀${name}`}`,
  diameter: round(diameter, 4),
  sizeName: name,
  tipDiameter: 0,
  fluteLength: 30,
  overallLength: 90,
  shankDiameter: Math.min(round(diameter, 2), 12.5),
  stickOut: 45,
  holderId: 'weldon20',
  cutterMaterial: 'hss',
});

const reamer = (diameter: number): Omit<Tool, 'number'> => ({
  id: `reamer-${diameter}`,
  kind: 'reamer',
  description: `reamer ⌀${diameter} H7`,
  diameter,
  sizeName: `${diameter} H7`,
  tipDiameter: 0,
  fluteLength: Math.round(15 + 3 * diameter),
  overallLength: Math.round(60 + 6 * diameter),
  shankDiameter: diameter,
  stickOut: Math.round(30 + 4 * diameter),
  holderId: 'er16',
  cutterMaterial: 'hss',
});

/** A flat carbide end mill; one with a neck reaches that far. */
const endMill = (diameter: number, reach?: number): Omit<Tool, 'number'> => ({
  id: `mill-${diameter}${reach === undefined ? '' : '-long'}`,
  kind: 'end-mill',
  description: `end mill ⌀${diameter}${reach === undefined ? '' : ' long'}`,
  diameter,
  sizeName: String(diameter),
  tipDiameter: 0,
  fluteLength: Math.round(2.2 * diameter + 4),
  overallLength: (reach ?? Math.round(2.2 * diameter + 4)) + 40,
  shankDiameter: Math.max(6, diameter),
  stickOut: (reach ?? Math.round(2.2 * diameter + 4)) + 6,
  holderId: diameter > 12 ? 'weldon20' : 'er16',
  cutterMaterial: 'carbide',
  teeth: diameter < 6 ? 3 : 4,
  cornerRadius: 0,
  rampAngleDeg: 5,
  ...(reach === undefined ? {} : { neckDiameter: round(0.93 * diameter, 2), neckLength: reach }),
});

/** Magazine places: what stays in the machine has a number; the rest lies in the drawer. */
function numbered(list: Omit<Tool, 'number'>[]): Tool[] {
  return list.map((t, i) => ({ ...t, number: i + 1 }));
}

/** Cutting data of a metal; `most` is the feed a turn that no drill of it goes above, mm. */
const data = (
  spotVc: number,
  drillVc: number,
  feed: number,
  tapVc: number,
  most: number,
  carbideFactor = 2.2,
): Material['cutting'] => [
  {
    kinds: ['spot-drill'],
    vc: spotVc,
    carbideFactor: 1.5,
    feedShare: feed * 0.6,
    maxFeedPerTurn: most * 0.4,
  },
  { kinds: ['drill'], vc: drillVc, carbideFactor, feedShare: feed, maxFeedPerTurn: most },
  {
    kinds: ['reamer'],
    vc: drillVc * 0.4,
    carbideFactor: 1.5,
    feedShare: feed * 1.5,
    maxFeedPerTurn: most * 1.5,
  },
  {
    kinds: ['countersink', 'counterbore'],
    vc: drillVc * 0.5,
    carbideFactor: 1.5,
    feedShare: feed * 0.6,
    maxFeedPerTurn: most * 0.5,
  },
  { kinds: ['tap'], vc: tapVc, carbideFactor: 1.5, feedShare: 0, maxFeedPerTurn: 10 },
  // Fed by the tooth.
  { kinds: ['end-mill'], vc: drillVc, carbideFactor, feedShare: feed * 0.35, maxFeedPerTurn: most * 0.3 },
  {
    kinds: ['end-mill'],
    below: 6,
    vc: drillVc * 0.8,
    carbideFactor,
    feedShare: feed * 0.3,
    maxFeedPerTurn: most * 0.2,
  },
  { kinds: ['boring-bar'], vc: drillVc, carbideFactor, feedShare: feed * 0.15, maxFeedPerTurn: 0.12 },
];

const DEEP = [
  { overDiameters: 5, speedFactor: 0.85, feedFactor: 0.9 },
  { overDiameters: 8, speedFactor: 0.7, feedFactor: 0.8 },
  { overDiameters: 12, speedFactor: 0.6, feedFactor: 0.7 },
];

/** From how many diameters chips are broken, and from how many the drill comes out each time. */
const LONG_CHIPS = { chipBreakFrom: 3, fullRetractFrom: 5 };
const TOUGH = { chipBreakFrom: 2.5, fullRetractFrom: 4 };
const SHORT_CHIPS = { chipBreakFrom: 4, fullRetractFrom: 8 };

const MATERIALS: Material[] = [
  {
    id: 'aluminium-6082',
    name: 'aluminium 6082',
    cutting: data(80, 75, 0.022, 18, 0.32),
    pecking: LONG_CHIPS,
    deepHoles: DEEP,
  },
  {
    id: 'steel-s355',
    name: 'structural steel S355',
    cutting: data(35, 28, 0.018, 10, 0.26),
    pecking: LONG_CHIPS,
    deepHoles: DEEP,
  },
  {
    id: 'steel-42crmo4',
    name: 'heat-treated steel 42CrMo4',
    cutting: data(22, 18, 0.014, 6, 0.2),
    pecking: LONG_CHIPS,
    deepHoles: DEEP,
  },
  {
    id: 'stainless-316',
    name: 'stainless steel 316L',
    cutting: data(18, 14, 0.015, 5, 0.2),
    pecking: TOUGH,
    deepHoles: DEEP,
  },
  {
    id: 'brass-cuzn39',
    name: 'brass CuZn39Pb3',
    cutting: data(70, 65, 0.022, 18, 0.35),
    pecking: SHORT_CHIPS,
    deepHoles: DEEP,
  },
  {
    id: 'acetal',
    name: 'acetal',
    cutting: data(80, 70, 0.028, 20, 0.4),
    pecking: LONG_CHIPS,
    deepHoles: DEEP,
  },
];

const TOOLS: Tool[] = numbered([
  spot(10, 90),
  spot(10, 120),
  spot(16, 90),
  spot(16, 120),
  spot(6, 90),
  spot(6, 120),
  ...METRIC_DRILLS.map((d) => drill({ diameter: d, name: String(d) })),
  drill({ diameter: 6.6, name: '6.6' }, 105, '-long'),
  drill({ diameter: 5.5, name: '5.5' }, 95, '-long'),
  ...INCH_DRILLS.map(([name, d]) => drill({ diameter: d * INCH, name })),
  reamer(4),
  reamer(6),
  reamer(8),
  reamer(10),
  countersink(12.4, 90, 0.2),
  countersink(20, 90, 0.4),
  countersink(12.4, 82, 0.2),
  countersink(25, 90, 0.5),
  counterbore(8),
  counterbore(10),
  counterbore(11),
  counterbore(15),
  counterbore(16),
  counterbore(18),
  counterbore(22),
  counterbore(0.4375 * INCH, '7/16'),
  ...adjustedTaps(THREADS),
  // Every tenth from 1 to 13 that is not above: on places behind the others, so that theirs stay what they were.
  ...Array.from({ length: 121 }, (_, i) => (10 + i) / 10)
    .filter((d) => !METRIC_DRILLS.includes(d))
    .map((d) => drill({ diameter: d, name: String(d) })),
  ...[2, 3, 4, 5, 6, 8, 10, 12, 16, 20].map((d) => endMill(d)),
  // Relieved behind the flutes, for deep bores.
  endMill(10, 45),
  endMill(16, 65),
  endMill(20, 80),
  ...[3, 5, 7, 9, 11, 12, 13, 14, 15, 16].map(reamer),
]);

export const SHOP: Library = {
  tools: TOOLS,
  holders: HOLDERS,
  materials: MATERIALS,
  machines: [{ ...RIGID_TAP_BUILT_IN, magazineSize: 240 }],
  methods: [],
};
