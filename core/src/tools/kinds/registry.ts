import type { ToolKind } from '../schema.ts';
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
  drillTool,
  reamerTool,
  countersinkTool,
  counterboreTool,
  tapTool,
  endMillTool,
  boringBarTool,
];

const BY_KIND = new Map(TOOL_KINDS.map((k) => [k.kind, k]));

/** The kind of that name; throws a RangeError for one that is not registered. */
export function toolKind(kind: ToolKind): ToolKindSpec {
  const found = BY_KIND.get(kind);
  if (!found) throw new RangeError(`unknown kind of tool ${kind}`);
  return found;
}
