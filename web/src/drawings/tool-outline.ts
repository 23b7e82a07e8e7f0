import { toolProfile } from '@yellow-pin/core/tools/profile';
import type { Tool } from '@yellow-pin/core/tools/schema';

/** Half-outline of a tool without its holder, from the axis at its tip upward: [height, radius] pairs, mm. */
export const toolOutline = (tool: Tool): [number, number][] => [
  [0, 0],
  ...toolProfile(tool, null).map((p): [number, number] => [p.z, p.r]),
];

/** SVG path of the whole silhouette; `k` px per mm, tip at (0, 0), up is negative y. */
export function silhouettePath(tool: Tool, k: number, height = Infinity): string {
  const points = toolOutline(tool).map(([h, r]) => [Math.min(h, height) * k, r * k] as const);
  const right = points.map(([h, r]) => `${r.toFixed(2)} ${(-h).toFixed(2)}`);
  const left = [...points].reverse().map(([h, r]) => `${(-r).toFixed(2)} ${(-h).toFixed(2)}`);
  return `M${right.join('L')}L${left.join('L')}Z`;
}
