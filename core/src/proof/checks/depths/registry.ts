import type { ToolKind } from '../../../tools/schema.ts';
import { boredDepths } from './bored.ts';
import type { DepthCheck } from './common.ts';
import { drillDepths } from './drill.ts';
import { spotDepths } from './spot.ts';
import { counterboreDepths, countersinkDepths, rimDepths } from './steps.ts';
import { tapDepths } from './tap.ts';

/** How each kind of tool's depth in a hole is judged: a line each. */
export const DEPTH_CHECKS: Record<ToolKind, DepthCheck> = {
  'spot-drill': spotDepths,
  drill: drillDepths,
  reamer: boredDepths,
  countersink: countersinkDepths,
  counterbore: counterboreDepths,
  tap: tapDepths,
  'end-mill': boredDepths,
  'boring-bar': boredDepths,
  'centre-drill': spotDepths,
  'core-drill': drillDepths,
  // Fed sideways, or breaking a rim that need not be in the model: no cycle line of theirs is as deep as a hole.
  'thread-mill': boredDepths,
  't-cutter': boredDepths,
  'dovetail-cutter': boredDepths,
  'chamfer-mill': rimDepths,
  'back-chamfer-cutter': boredDepths,
  'corner-rounding-cutter': boredDepths,
  lollipop: boredDepths,
};
