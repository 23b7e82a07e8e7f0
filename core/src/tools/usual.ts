import type { Library } from '../plan/library.ts';
import type { ToolNeed } from './find.ts';
import { toolKind } from './kinds/registry.ts';
import type { Tool, ToolKind } from './schema.ts';

/** Length of a shank that a holder takes, and how far the flutes stand clear of its nose, mm. */
const HELD = 35;
const CLEAR = 5;

/** The lowest number that no tool of a list has: its place in the magazine. */
export function freeNumber(tools: readonly Tool[]): number {
  const taken = new Set(tools.map((t) => t.number));
  let n = 1;
  while (taken.has(n)) n++;
  return n;
}

/** The holder that the shop uses for such tools: of its tools of that kind the nearest in size has it; the first holder where there is none. */
export function usualHolder(
  library: Pick<Library, 'tools' | 'holders'>,
  kind: ToolKind,
  diameter: number,
): string {
  const nearest = library.tools
    .filter((t) => t.kind === kind)
    .sort((a, b) => Math.abs(a.diameter - diameter) - Math.abs(b.diameter - diameter))[0];
  return nearest?.holderId ?? library.holders[0]?.id ?? '';
}

/**
 * A tool that would do for a need, of the usual proportions of its kind, in the shop's usual holder, on a number that is free: to be checked
 * against the one in the drawer before it is taken. Lengths in mm. Null where the need names no size.
 */
export function usualTool(need: ToolNeed, library: Pick<Library, 'tools' | 'holders'>): Tool | null {
  const spec = toolKind(need.kind);
  const shape = spec.usual(need);
  if (!shape) return null;
  const size = shape.thread ? shape.thread.designation : `\u2300${shape.sizeName}`;
  const angle = spec.isCone && shape.pointAngleDeg !== undefined ? ` ${shape.pointAngleDeg}°` : '';
  const used = new Set(library.tools.map((t) => t.id));
  const base = `own-${need.kind}-${shape.sizeName.replace(/[^A-Za-z0-9.]+/g, '_')}`;
  let id = base;
  for (let n = 2; used.has(id); n++) id = `${base}-${n}`;
  const lead = shape.thread && shape.thread.lead !== 'plug' ? ` ${shape.thread.lead.replace('-', ' ')}` : '';
  return {
    ...shape,
    id,
    kind: need.kind,
    number: freeNumber(library.tools),
    description: `${spec.label} ${size}${angle}${lead}`.slice(0, 80),
    overallLength: Math.max(shape.fluteLength, shape.neckLength ?? 0) + HELD,
    stickOut: Math.max(shape.fluteLength, shape.neckLength ?? 0) + CLEAR,
    holderId: usualHolder(library, need.kind, shape.diameter),
  };
}
