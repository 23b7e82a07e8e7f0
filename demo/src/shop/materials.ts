import type { Material } from '@yellow-pin/core/cutting/material';

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
    kinds: ['spot-drill', 'centre-drill'],
    vc: spotVc,
    carbideFactor: 1.5,
    feedShare: feed * 0.6,
    maxFeedPerTurn: most * 0.4,
  },
  { kinds: ['drill', 'core-drill'], vc: drillVc, carbideFactor, feedShare: feed, maxFeedPerTurn: most },
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
  {
    kinds: ['chamfer-mill', 'back-chamfer-cutter', 'corner-rounding-cutter', 'lollipop'],
    vc: drillVc,
    carbideFactor,
    feedShare: feed * 0.25,
    maxFeedPerTurn: most * 0.15,
  },
  {
    kinds: ['t-cutter', 'dovetail-cutter'],
    vc: drillVc * 0.6,
    carbideFactor,
    feedShare: feed * 0.1,
    maxFeedPerTurn: most * 0.12,
  },
  { kinds: ['thread-mill'], vc: drillVc, carbideFactor, feedShare: feed * 0.2, maxFeedPerTurn: most * 0.15 },
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

/** The made-up shop's materials. */
export const MATERIALS: Material[] = [
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
