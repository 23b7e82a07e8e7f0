import type { Tool } from '@yellow-pin/core/tools/schema';
import { silhouettePath } from './tool-outline.ts';

/** A tool to scale in a small picture, with its cutting part hatched by kind. */
export function ToolSilhouette({ tool, width, height, scale }: { tool: Tool; width: number; height: number; scale?: number }) {
  // Without a scale of its own the picture is of the cutting end: its point tells the tools apart.
  const k = scale ?? (width - 4) / tool.diameter;
  const clip = (height - 1) / k;
  return (
    <svg width={width} height={height} viewBox={`${-width / 2} ${-height} ${width} ${height}`} role="img" aria-label={tool.description}>
      <path d={silhouettePath(tool, k, clip)} transform="translate(0,-1)" fill="#dfe1e1" stroke="#22262b" strokeWidth="1" strokeLinejoin="round" />
      {tool.kind === 'tap' && <path d={threadLines(tool, k, height)} stroke="#65458f" strokeWidth="0.9" fill="none" />}
    </svg>
  );
}

function threadLines(tool: Tool, k: number, height: number): string {
  const r = (tool.diameter / 2) * k;
  const to = Math.min(tool.fluteLength * k, height - 3);
  const step = Math.max(2.5, tool.thread!.pitch * k);
  let d = '';
  for (let y = 4; y < to; y += step) d += `M${-r} ${-y}L${r} ${-y - Math.min(2, step / 2)}`;
  return d;
}
