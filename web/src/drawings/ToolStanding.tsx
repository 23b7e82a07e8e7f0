import type { Tool } from '@yellow-pin/core/tools/schema';
import { ink } from '../look/palette.ts';
import { cuttingMarks } from './cutting-marks.ts';
import { silhouettePath } from './tool-outline.ts';

/** A tool in a section, its tip at a place in px, `k` px per mm. */
export const ToolStanding = ({
  tool,
  k,
  at,
  opacity,
}: {
  tool: Tool;
  k: number;
  at: { x: number; y: number };
  opacity: number;
}) => (
  <g transform={`translate(${at.x},${at.y})`} strokeLinejoin="round">
    <path
      d={silhouettePath(tool, k)}
      fill={ink('tool')}
      fillOpacity={opacity}
      stroke={ink('ink')}
      strokeWidth="1.2"
    />
    <path d={cuttingMarks(tool, k)} fill="none" stroke={ink('ink')} strokeOpacity="0.45" strokeWidth="0.8" />
  </g>
);
