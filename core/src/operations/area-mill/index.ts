import type { OperationKind } from '../kind.ts';
import { planArea } from '../areas/area.ts';
import { AREA_CHOICES, AREA_NUMBERS, CORNERS, ENTRIES, ROUGHING } from '../areas/numbers.ts';

/** Clears a pocket or a step layer by layer and finishes its walls (handbook, N70, N74). */
export const areaMillKind: OperationKind = {
  kind: 'area-mill',
  cuts: ['areas'],
  label: 'clear',
  toolKinds: ['end-mill'],
  rank: -1,
  opensSolid: true,
  leavesFlat: true,
  makesAreas: ['closed', 'open'],
  numbers: AREA_NUMBERS,
  choices: { ...AREA_CHOICES, corners: CORNERS, entry: ENTRIES, rough: ROUGHING },
  plan: planArea,
};
