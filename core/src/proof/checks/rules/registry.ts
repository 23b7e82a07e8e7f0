import type { CheckRule } from '../check.ts';
import { coolant, dwells, limits, pecks, speedsAndFeeds } from './cutting-data.ts';
import { depths, flute } from './depths.ts';
import { milled } from './milled.ts';
import { milledArea } from './milled-area.ts';
import { milledEdge } from './milled-edge.ts';
import { entryHolesRule } from './entry-holes.ts';
import { milledGroove } from './milled-groove.ts';
import { milledThread } from './milled-thread.ts';
import { order, twice } from './order.ts';
import { coverage, highR, magazine, noHole, travel, unitsAndOffset } from './setup.ts';
import { size, tapFeedRule, toolAndCycle } from './tools.ts';
import { way } from './way/index.ts';

/** All rules, in the order in which their findings are listed. */
export const CHECK_RULES: readonly CheckRule[] = [
  unitsAndOffset,
  toolAndCycle,
  size,
  tapFeedRule,
  depths,
  milled,
  milledThread,
  entryHolesRule,
  milledGroove,
  milledArea,
  milledEdge,
  noHole,
  order,
  flute,
  speedsAndFeeds,
  limits,
  pecks,
  dwells,
  coolant,
  way,
  highR,
  travel,
  magazine,
  twice,
  coverage,
];
