import { areaMillKind } from './area-mill/index.ts';
import { backRimBreakKind } from './back-rim-break/index.ts';
import { boreGrooveKind } from './bore-groove/index.ts';
import { boreKind } from './bore/index.ts';
import { centreKind } from './centre/index.ts';
import { coreDrillKind } from './core-drill/index.ts';
import { cornerHoleKind } from './corner-hole/index.ts';
import { cornerMillKind } from './corner-mill/index.ts';
import { counterboreKind } from './counterbore/index.ts';
import { countersinkKind } from './countersink/index.ts';
import { dovetailMillKind } from './dovetail-mill/index.ts';
import { drillKind } from './drill/index.ts';
import { edgeBehindKind } from './edge-behind/index.ts';
import { edgeFollowKind } from './edge-follow/index.ts';
import { edgeMillKind } from './edge-mill/index.ts';
import { edgeRoundKind } from './edge-round/index.ts';
import { entryHoleKind } from './entry-hole/index.ts';
import { faceMillKind } from './face-mill/index.ts';
import { floorKind } from './floor/index.ts';
import { grooveMillKind } from './groove-mill/index.ts';
import { helicalBoreKind } from './helical-bore/index.ts';
import { helicalCountersinkKind } from './helical-countersink/index.ts';
import type { OperationKind } from './kind.ts';
import { outsideThreadMillKind } from './outside-thread-mill/index.ts';
import { pilotKind } from './pilot/index.ts';
import { reamKind } from './ream/index.ts';
import { rimBreakKind } from './rim-break/index.ts';
import { slotMillKind } from './slot-mill/index.ts';
import { spotKind } from './spot/index.ts';
import { wallMillKind } from './wall-mill/index.ts';
import { wallGrooveKind } from './wall-groove/index.ts';
import { threadMillKind } from './thread-mill/index.ts';
import { tSlotMillKind } from './t-slot-mill/index.ts';
import { tapKind } from './tap/index.ts';

/** All kinds of operation: a folder and a line each. */
export const OPERATION_KINDS: readonly OperationKind[] = [
  faceMillKind,
  wallMillKind,
  areaMillKind,
  cornerHoleKind,
  cornerMillKind,
  spotKind,
  centreKind,
  pilotKind,
  drillKind,
  coreDrillKind,
  counterboreKind,
  helicalBoreKind,
  floorKind,
  entryHoleKind,
  slotMillKind,
  grooveMillKind,
  tSlotMillKind,
  dovetailMillKind,
  boreGrooveKind,
  wallGrooveKind,
  countersinkKind,
  helicalCountersinkKind,
  rimBreakKind,
  backRimBreakKind,
  reamKind,
  boreKind,
  tapKind,
  threadMillKind,
  outsideThreadMillKind,
  edgeMillKind,
  edgeRoundKind,
  edgeBehindKind,
  edgeFollowKind,
];

/** The kind of that name; throws a RangeError for one that is not registered. */
export function operationKind(kind: string): OperationKind {
  const found = OPERATION_KINDS.find((k) => k.kind === kind);
  if (!found) throw new RangeError(`unknown operation kind ${kind}`);
  return found;
}
