import type { OperationKind } from '../kind.ts';
import { planStrip, STRIP_NUMBERS } from '../grooves/strip.ts';
import { STRIP_CHOICES } from '../grooves/strip-way.ts';

/** Mills a groove or a channel along its middle line, by a cutter as wide as it or along both its walls (handbook, N71). */
export const grooveMillKind: OperationKind = {
  kind: 'groove-mill',
  cuts: ['grooves'],
  label: 'groove',
  toolKinds: ['end-mill'],
  rank: 2.3,
  makes: ['strip'],
  numbers: STRIP_NUMBERS,
  choices: STRIP_CHOICES,
  plan: planStrip,
};
