import { TOOL_KINDS } from '@yellow-pin/core/tools/kinds/registry';
import type { Tool, ToolKind } from '@yellow-pin/core/tools/schema';

/** A tool of its kind's usual shape, with what is said otherwise. */
export function testTool(kind: ToolKind, diameter: number, part: Partial<Tool> = {}): Tool {
  const usual = TOOL_KINDS.find((k) => k.kind === kind)?.usual({ kind, diameter });
  if (!usual) throw new RangeError(`no usual ${kind}`);
  const shape = { ...usual, ...part };
  const reach = Math.max(shape.fluteLength, shape.neckLength ?? 0);
  return {
    ...shape,
    id: `test-${kind}-${diameter}`,
    kind,
    number: null,
    description: `${kind.replace('-', ' ')} \u2300${diameter} test`,
    overallLength: reach + 40,
    stickOut: reach + 6,
    holderId: 'er16',
  };
}
