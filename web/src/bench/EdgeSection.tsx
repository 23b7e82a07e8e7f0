import { Box } from '@chakra-ui/react';
import { useId } from 'react';
import type { PlannedOperation, Row } from '@yellow-pin/core/job/derive';
import type { EdgeView } from '@yellow-pin/core/operations/edge-view';
import { formatLength, type LengthUnit } from '@yellow-pin/core/units/length';
import { HatchAndFrame } from '../drawings/Hatch.tsx';
import { ToolStanding } from '../drawings/ToolStanding.tsx';
import { drawEdgeSection, EDGE_HEIGHT, EDGE_WIDTH } from '../drawings/edge-section.ts';
import { override } from '../job/store.ts';
import { ink } from '../look/palette.ts';
import { DragHandle } from './DragHandle.tsx';
import { NumbersBelow } from './NumbersBelow.tsx';
import { useDrag } from './use-drag.ts';

interface Props {
  row: Row;
  view: EdgeView;
  operation: PlannedOperation | null;
  unit: LengthUnit;
}

/** What is typed beneath the section; the tip is dragged by the last of them that an operation has. */
const IN_SECTION: readonly string[] = ['width', 'clearance'];

/** The corner cut open, the cutter's flank on it as it stands in the last pass, and how far its tip goes below. */
export function EdgeSection({ row, view, operation, unit }: Props) {
  const id = useId();
  const d = drawEdgeSection(view, operation);
  const numbers = (operation?.parameters ?? []).filter((p) => p.editable && IN_SECTION.includes(p.key));
  const handle = numbers.find((p) => p.key === 'clearance') ?? null;
  const set = (key: string, v: number): void => {
    if (operation) override(row.size.key, operation.key, key, v);
  };
  const onDrag = useDrag({
    value: handle ? Number(handle.value) : null,
    along: 'y',
    scale: d.k,
    step: unit === 'mm' ? 0.05 : 0.0254,
    onChange: (v) => set('clearance', v),
  });
  const say = (mm: number): string => formatLength(mm, unit, unit === 'mm' ? 2 : 4);
  return (
    <Box width={`${EDGE_WIDTH}px`} data-testid="edge-section">
      <svg
        width={EDGE_WIDTH}
        height={EDGE_HEIGHT}
        role="img"
        aria-label={`Section of ${view.label}${d.deep && operation ? `, ${operation.label}, tip ${say(d.deep.mm)} below the edge` : ''}`}
      >
        <HatchAndFrame id={id} width={EDGE_WIDTH} height={EDGE_HEIGHT} />
        <g clipPath={`url(#${id}c)`}>
          <path d={d.metal} fill={`url(#${id}h)`} stroke={ink('ink')} strokeWidth="1.4" />
          {d.floor !== null && (
            <g>
              <rect
                x={EDGE_WIDTH - 90}
                y={d.floor}
                width="90"
                height={Math.max(0, EDGE_HEIGHT - d.floor)}
                fill={`url(#${id}h)`}
              />
              <path
                d={`M${EDGE_WIDTH - 90} ${d.floor}H${EDGE_WIDTH}`}
                stroke={ink('ink')}
                strokeWidth="1.4"
              />
            </g>
          )}
          {operation && d.tool && (
            <g>
              <ToolStanding tool={operation.tool} k={d.k} at={d.tool} opacity={0.55} />
              <path
                d={`M${d.tool.x} ${d.tool.y + 8}V0`}
                stroke={ink('quiet')}
                strokeDasharray="9 3 2 3"
                strokeWidth="0.7"
              />
            </g>
          )}
          <path d={d.wanted} fill="none" stroke={ink('ink')} strokeWidth="2" strokeDasharray="6 3" />
        </g>
        {d.deep && (
          <g stroke={ink('ink')} strokeWidth="1" fill="none">
            <path d={`M16 ${d.deep.from}V${d.deep.to}M12 ${d.deep.from}h8M12 ${d.deep.to}h8`} />
            <text
              x="22"
              y={(d.deep.from + d.deep.to) / 2 + 4}
              fontSize="12"
              fill={ink('ink')}
              stroke={ink('paper')}
              strokeWidth="3"
              paintOrder="stroke"
              fontFamily="var(--yp-fonts-mono)"
            >
              {say(d.deep.mm)}
            </text>
          </g>
        )}
        {d.tool && <DragHandle at={d.tool} handle={handle} name="tool tip" along="y" onDrag={onDrag} />}
      </svg>
      <NumbersBelow numbers={numbers} unit={unit} where="section" onChange={set} />
    </Box>
  );
}
