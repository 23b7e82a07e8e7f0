import type { Tool } from '@yellow-pin/core/tools/schema';

/** Half-outline of a tool from its tip (0) upward: [height, radius] pairs, mm. */
export function toolOutline(tool: Tool): [number, number][] {
  const r = tool.diameter / 2;
  const tip = tool.tipDiameter / 2;
  const cone = tool.pointAngleDeg !== undefined && tool.kind !== 'tap' ? (r - tip) / Math.tan((tool.pointAngleDeg * Math.PI) / 360) : 0;
  if (tool.kind === 'tap') {
    const lead = { plug: 4, bottoming: 1.5, 'spiral-point': 4 }[tool.thread!.lead] * tool.thread!.pitch;
    const core = r - 0.6 * tool.thread!.pitch;
    return [
      [0, 0],
      [0, core * 0.8],
      [lead, r],
      [tool.fluteLength, r],
      [tool.fluteLength + 1, core],
      [tool.stickOut, tool.shankDiameter / 2],
    ];
  }
  const shank = tool.shankDiameter / 2;
  const flute = Math.max(cone + 0.01, Math.min(tool.fluteLength, tool.stickOut));
  return [
    [0, 0],
    [0, tip],
    [cone, r],
    [flute, r],
    [flute, shank],
    [Math.max(tool.stickOut, flute + 1), shank],
  ];
}

/** SVG path of the whole silhouette; `k` px per mm, tip at (0, 0), up is negative y. */
export function silhouettePath(tool: Tool, k: number, height = Infinity): string {
  const points = toolOutline(tool).map(([h, r]) => [Math.min(h, height) * k, r * k] as const);
  const right = points.map(([h, r]) => `${r.toFixed(2)} ${(-h).toFixed(2)}`);
  const left = [...points].reverse().map(([h, r]) => `${(-r).toFixed(2)} ${(-h).toFixed(2)}`);
  return `M${right.join('L')}L${left.join('L')}Z`;
}
