import { useId } from 'react';
import type { Holder, Tool } from '@yellow-pin/core/tools/schema';
import { toolProfile } from '@yellow-pin/core/tools/profile';
import { formatLength, type LengthUnit } from '@yellow-pin/core/units/length';
import { cuttingMarks } from '../drawings/cutting-marks.ts';
import { silhouettePath } from '../drawings/tool-outline.ts';
import { ink } from '../look/palette.ts';

interface Props {
  tool: Tool;
  holder: Holder | null;
  unit: LengthUnit;
  width: number;
  height: number;
}

/** A length along the tool: from its tip up to `to`, drawn in a column of its own. */
interface Span {
  label: string;
  to: number;
}

const COLUMN = 27;
const LEFT = 34;
const BELOW = 46;
/** How far up the holder is drawn, in stick-outs; how much room a tool has beside itself. */
const HOLDER_SHOWN = 1.35;
const TOOL_SHARE = 1.5;

const clamp = (x: number, most: number): number => Math.max(-most, Math.min(most, x));

/** A tool in its holder, to scale with its tip down, with its numbers as dimensions on it. */
export function ToolFigure({ tool, holder, unit, width, height }: Props) {
  const say = (mm: number): string => formatLength(mm, unit, unit === 'mm' ? 2 : 4);
  const profile = toolProfile(tool, holder);
  // Of the holder as much as shows how the tool stands in it: the tool itself is to be seen.
  const top = Math.min(Math.max(...profile.map((p) => p.z)), HOLDER_SHOWN * tool.stickOut);
  const slim = 2 * Math.max(...profile.filter((p) => p.part !== 'holder').map((p) => p.r));
  const spans: Span[] = [
    { label: say(tool.fluteLength), to: tool.fluteLength },
    ...(tool.neckLength === undefined ? [] : [{ label: say(tool.neckLength), to: tool.neckLength }]),
    { label: say(tool.stickOut), to: tool.stickOut },
  ];
  const right = COLUMN * spans.length + 8;
  const room = width - LEFT - right;
  const k = Math.min(room / (TOOL_SHARE * slim), (height - BELOW - 6) / top);
  const r = (tool.diameter / 2) * k;
  const half = room / 2;
  const high = Math.min(height, top * k + BELOW + 6);
  const clip = useId();
  const holderSteps = profile.filter((p) => p.part === 'holder');
  const outline = [
    ...holderSteps.map((p) => [p.r, p.z]),
    ...[...holderSteps].reverse().map((p) => [-p.r, p.z]),
  ]
    .map(([x = 0, z = 0]) => `${clamp(x * k, half).toFixed(1)} ${(-z * k).toFixed(1)}`)
    .join('L');
  const axis = LEFT + half;
  return (
    <svg
      width={width}
      height={high}
      viewBox={`${-axis} ${BELOW - high} ${width} ${high}`}
      role="img"
      aria-label={`${tool.description}${holder ? ` in ${holder.description}` : ''}`}
      strokeLinejoin="round"
      fontSize="12"
      fontFamily="var(--yp-fonts-mono)"
      fill={ink('ink')}
    >
      <clipPath id={clip}>
        <rect x={-half - 1} y={-top * k} width={2 * half + 2} height={top * k} />
      </clipPath>
      {outline !== '' && (
        <path
          d={`M${outline}Z`}
          clipPath={`url(#${clip})`}
          fill={ink('metal')}
          stroke={ink('ink')}
          strokeWidth="1.1"
        />
      )}
      <path
        d={silhouettePath(tool, k, tool.stickOut)}
        fill={ink('tool')}
        stroke={ink('ink')}
        strokeWidth="1.2"
      />
      <path
        d={cuttingMarks(tool, k, tool.stickOut)}
        fill="none"
        stroke={ink(tool.thread || tool.threadForm ? 'thread' : 'ink')}
        strokeWidth="0.9"
      />
      <path
        d={`M0 ${BELOW - 34}V${-top * k - 4}`}
        stroke={ink('edge')}
        strokeWidth="0.7"
        strokeDasharray="9 3 2 3"
      />
      {spans.map((s, i) => (
        <Upright key={i} x={half + 14 + i * COLUMN} from={i === 0 ? r : half} to={s.to * k} label={s.label} />
      ))}
      <path d={`M${-r} 4V24M${r} 4V24M${-r} 19H${r}`} stroke={ink('edge')} strokeWidth="0.8" fill="none" />
      <text x="0" y="37" textAnchor="middle">
        ⌀{say(tool.diameter)}
        {tool.pointAngleDeg === undefined ? '' : `  ${Math.round(tool.pointAngleDeg * 10) / 10}°`}
      </text>
    </svg>
  );
}

/** A length from the tip up, with its figure turned along it. */
function Upright({ x, from, to, label }: { x: number; from: number; to: number; label: string }) {
  return (
    <g>
      <path
        d={`M${from + 3} ${-to}H${x + 4}M4 0H${x + 4}M${x} 0V${-to}M${x - 2.5} -5L${x} 0L${x + 2.5} -5M${x - 2.5} ${5 - to}L${x} ${-to}L${x + 2.5} ${5 - to}`}
        stroke={ink('edge')}
        strokeWidth="0.8"
        fill="none"
      />
      <text transform={`translate(${x + 12} ${-to / 2}) rotate(-90)`} textAnchor="middle">
        {label}
      </text>
    </g>
  );
}
