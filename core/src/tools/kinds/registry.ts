import type { ToolKind } from '../schema.ts';
import { backChamferCutter } from './back-chamfer-cutter.ts';
import { centreDrill } from './centre-drill.ts';
import { chamferMill } from './chamfer-mill.ts';
import { coreDrillTool } from './core-drill.ts';
import { cornerRoundingCutter } from './corner-rounding-cutter.ts';
import { dovetailCutter } from './dovetail-cutter.ts';
import { lollipop } from './lollipop.ts';
import { tCutter } from './t-cutter.ts';
import { threadMill } from './thread-mill.ts';
import { counterboreTool } from './counterbore.ts';
import { boringBarTool } from './boring-bar.ts';
import { countersinkTool } from './countersink.ts';
import { drillTool } from './drill.ts';
import { endMillTool } from './end-mill.ts';
import type { ToolKindSpec } from './kind.ts';
import { reamerTool } from './reamer.ts';
import { spotDrill } from './spot-drill.ts';
import { tapTool } from './tap.ts';

/** All kinds of tool: a file and a line each. */
export const TOOL_KINDS: readonly ToolKindSpec[] = [
  spotDrill,
  centreDrill,
  drillTool,
  coreDrillTool,
  reamerTool,
  boringBarTool,
  countersinkTool,
  counterboreTool,
  tapTool,
  threadMill,
  endMillTool,
  tCutter,
  dovetailCutter,
  chamferMill,
  backChamferCutter,
  cornerRoundingCutter,
  lollipop,
];

const BY_KIND = new Map(TOOL_KINDS.map((k) => [k.kind, k]));

/** The kind of that name; throws a RangeError for one that is not registered. */
export function toolKind(kind: ToolKind): ToolKindSpec {
  const found = BY_KIND.get(kind);
  if (!found) throw new RangeError(`unknown kind of tool ${kind}`);
  return found;
}
