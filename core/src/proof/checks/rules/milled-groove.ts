import type { CheckRule } from '../check.ts';
import { milledFindings } from './milled-floor.ts';

/** What was milled in slots, grooves and channels, as read from the text, against what is planned: depth, speed and feed. */
export const milledGroove: CheckRule = {
  rule: 'milled-groove',
  run: (c) => [...c.milledGrooves.flatMap((g) => milledFindings({ ...g, ...g.groove }, c))],
};
