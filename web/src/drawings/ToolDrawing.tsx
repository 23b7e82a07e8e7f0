import type { Holder, Tool } from '@yellow-pin/core/tools/schema';
import { ink } from '../look/palette.ts';
import { cuttingMarks } from './cutting-marks.ts';
import { silhouettePath } from './tool-outline.ts';

interface Props {
  tool: Tool;
  holder: Holder | null;
  width: number;
  height: number;
}

/** A tool as it stands in its holder, to scale, tip down. */
export function ToolDrawing({ tool, holder, width, height }: Props) {
  const steps = holder?.steps ?? [];
  const total = tool.stickOut + steps.reduce((n, s) => n + s.length, 0);
  const widest = Math.max(tool.diameter, tool.shankDiameter, ...steps.map((s) => s.diameter));
  const k = Math.min((width - 6) / widest, (height - 6) / total);
  let at = tool.stickOut;
  const blocks = steps.map((s) => {
    const block = { y: -(at + s.length) * k, h: s.length * k, w: s.diameter * k };
    at += s.length;
    return block;
  });
  return (
    <svg
      width={width}
      height={height}
      viewBox={`${-width / 2} ${3 - height} ${width} ${height}`}
      role="img"
      aria-label={`${tool.description}${holder ? ` in ${holder.description}` : ''}`}
      strokeLinejoin="round"
    >
      {blocks.map((b) => (
        <rect
          key={b.y}
          x={-b.w / 2}
          y={b.y}
          width={b.w}
          height={b.h}
          fill={ink('metal')}
          stroke={ink('ink')}
          strokeWidth="1.1"
        />
      ))}
      <path
        d={silhouettePath(tool, k, tool.stickOut)}
        fill={ink('tool')}
        stroke={ink('ink')}
        strokeWidth="1.2"
      />
      <path d={cuttingMarks(tool, k, tool.stickOut)} fill="none" stroke={ink('ink')} strokeWidth="0.9" />
    </svg>
  );
}
