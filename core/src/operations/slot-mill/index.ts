import type { OperationKind } from '../kind.ts';
import { planStrip, STRIP_NUMBERS } from '../grooves/strip.ts';
import { STRIP_CHOICES } from '../grooves/strip-way.ts';

/** Mills a slot, or the throat over a wider head: as wide as its cutter down a ramp, or rough and then its walls (handbook, N70). */
export const slotMillKind: OperationKind = {
  kind: 'slot-mill',
  cuts: ['grooves'],
  label: 'slot',
  toolKinds: ['end-mill'],
  rank: 2.2,
  makes: ['strip', 'throat'],
  numbers: STRIP_NUMBERS,
  choices: STRIP_CHOICES,
  plan: planStrip,
};
