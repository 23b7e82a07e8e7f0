import type { Tool } from '@yellow-pin/core/tools/schema';
import { ink } from '../look/palette.ts';
import { cuttingMarks } from './cutting-marks.ts';
import { silhouettePath } from './tool-outline.ts';

interface Props {
  tool: Tool;
  width: number;
  height: number;
  /** Pixels per mm; without it the picture is of the cutting end as wide as it fits: its point tells the tools apart. */
  scale?: number;
}

/** A tool in a small picture, tip down, with what cuts marked by kind. */
export function ToolSilhouette({ tool, width, height, scale }: Props) {
  const k = scale ?? (width - 4) / Math.max(tool.diameter, 0.6 * tool.shankDiameter);
  const shown = (height - 1) / k;
  return (
    <svg
      width={width}
      height={height}
      viewBox={`${-width / 2} ${-height} ${width} ${height}`}
      role="img"
      aria-label={tool.description}
    >
      <g transform="translate(0,-1)" strokeLinejoin="round">
        <path d={silhouettePath(tool, k, shown)} fill={ink('tool')} stroke={ink('ink')} strokeWidth="1" />
        <path
          d={cuttingMarks(tool, k, shown)}
          fill="none"
          stroke={ink(tool.thread ? 'thread' : 'ink')}
          strokeWidth="0.9"
        />
      </g>
    </svg>
  );
}
