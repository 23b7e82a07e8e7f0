import { Box, Button } from '@chakra-ui/react';
import { useId, useState } from 'react';
import type { PlannedOperation, Row } from '@yellow-pin/core/job/derive';
import { formatLength, type LengthUnit } from '@yellow-pin/core/units/length';
import { HatchAndFrame } from '../drawings/Hatch.tsx';
import { ToolStanding } from '../drawings/ToolStanding.tsx';
import { LengthField } from '../kit/LengthField.tsx';
import { ink } from '../look/palette.ts';
import { silhouettePath } from '../drawings/tool-outline.ts';
import { drawSection, HEIGHT, WIDTH, type Dimension, type Drawn } from '../drawings/section-drawing.ts';
import { override } from '../job/store.ts';
import { DragHandle } from './DragHandle.tsx';
import { useDrag } from './use-drag.ts';

interface Props {
  row: Row;
  view: Drawn;
  operation: PlannedOperation | null;
  unit: LengthUnit;
}

/** What the depth handle moves, for each kind of operation that has a depth of its own. */
const HANDLE: Record<string, string[]> = {
  drill: ['depth', 'breakThrough'],
  tap: ['threadDepth'],
  'thread-mill': ['threadDepth'],
  'outside-thread-mill': ['threadDepth'],
  counterbore: ['depth'],
  'helical-bore': ['depth', 'breakThrough'],
  'slot-mill': ['depth', 'breakThrough'],
  'groove-mill': ['depth', 'breakThrough'],
  ream: ['breakThrough'],
  bore: ['breakThrough'],
};

/** The hole cut open, the tool at its final depth, every depth a dimension to type or drag. */
export function Section({ row, view, operation, unit }: Props) {
  const id = useId();
  const [editing, setEditing] = useState<string | null>(null);
  const d = drawSection(view, operation, row.thread);
  const say = (mm: number) => formatLength(mm, unit, unit === 'mm' ? 2 : 4);
  const handle =
    operation?.parameters.find((p) => p.editable && (HANDLE[operation.kind] ?? []).includes(p.key)) ?? null;
  const onDrag = useDrag({
    value: handle ? Number(handle.value) : null,
    along: 'y',
    scale: d.k,
    step: unit === 'mm' ? 0.1 : 0.127,
    onChange: (v) => {
      if (handle && operation) override(row.size.key, operation.key, handle.key, v);
    },
  });
  return (
    <Box position="relative" width={`${WIDTH}px`} height={`${HEIGHT}px`} data-testid="section">
      <svg
        width={WIDTH}
        height={HEIGHT}
        role="img"
        aria-label={`Section of ${view.label}${operation ? `, ${operation.label} to ${say(d.tip)} below the entry` : ''}`}
      >
        <HatchAndFrame id={id} width={WIDTH} height={HEIGHT} />
        <path d={d.metal} fill={`url(#${id}h)`} stroke={ink('ink')} strokeWidth="1.4" />
        <path d={d.hole} fill={ink('hollow')} stroke={ink('ink')} strokeWidth="1.4" />
        {d.thread && <path d={d.thread} stroke={ink('thread')} strokeWidth="1.8" strokeDasharray="4 3" />}
        {d.profile && <path d={d.profile} fill="none" stroke={ink('thread')} strokeWidth="1.5" />}
        <line
          x1={d.centre}
          y1="6"
          x2={d.centre}
          y2={HEIGHT - 2}
          stroke={ink('quiet')}
          strokeDasharray="9 3 2 3"
          strokeWidth="0.7"
        />
        <line
          x1="6"
          x2={2 * d.centre - 6}
          y1={d.r.y}
          y2={d.r.y}
          stroke={ink('ink')}
          strokeDasharray="7 3 2 3"
          strokeWidth="0.9"
        />
        <text
          x={2 * d.centre - 2}
          y={d.r.y - 4}
          fontSize="11"
          fill={ink('quiet')}
          fontFamily="var(--yp-fonts-mono)"
        >
          R +{say(d.r.label)}
        </text>
        {operation && (
          <g clipPath={`url(#${id}c)`}>
            {d.ghosts.map((g) => (
              <path
                key={g.name}
                d={silhouettePath(operation.tool, d.k)}
                transform={`translate(${g.x},${g.y})`}
                fill="none"
                stroke={ink('quiet')}
                strokeWidth="1"
                strokeDasharray="3 2"
              >
                <title>{`cutter at its ${g.name}`}</title>
              </path>
            ))}
            <ToolStanding tool={operation.tool} k={d.k} at={{ x: d.toolX, y: d.tipY }} opacity={0.82} />
          </g>
        )}
        {d.dimensions.map((dim) => (
          <DimensionLine key={dim.parameter.key} dim={dim} y={d.y} x={columnX(dim.column)} />
        ))}
        {operation && (
          <DragHandle
            at={{ x: d.toolX, y: d.tipY }}
            handle={handle}
            name="tool tip"
            along="y"
            onDrag={onDrag}
          />
        )}
      </svg>
      {operation &&
        d.dimensions.map((dim) => {
          const p = dim.parameter;
          const place = {
            position: 'absolute',
            left: `${columnX(dim.column) + 5}px`,
            top: `${dim.labelY - 12}px`,
            zIndex: editing === p.key ? 2 : 1,
          } as const;
          if (editing === p.key) {
            return (
              <Box key={p.key} as="span" {...place}>
                <LengthField
                  value={Number(p.value)}
                  unit={unit}
                  label={p.label}
                  width="64px"
                  autoFocus
                  onChange={(v) => override(row.size.key, operation.key, p.key, v)}
                  onDone={() => setEditing(null)}
                />
              </Box>
            );
          }
          return (
            <Button
              key={p.key}
              {...place}
              size="2xs"
              height="24px"
              paddingInline="5px"
              fontFamily="mono"
              fontSize="12px"
              cursor={p.editable ? 'text' : 'default'}
              borderColor={p.editable ? 'edge' : 'rule'}
              _disabled={{ opacity: 1 }}
              disabled={!p.editable}
              title={`${p.label}${p.relation ? `: ${p.relation}` : ''}`}
              aria-label={`${p.label} ${say(Number(p.value))}`}
              onClick={(e) => {
                e.stopPropagation();
                setEditing(p.key);
              }}
            >
              {say(Number(p.value))}
            </Button>
          );
        })}
    </Box>
  );
}

const columnX = (column: number): number => 156 + 44 * column;

function DimensionLine({ dim, y, x }: { dim: Dimension; y(d: number): number; x: number }) {
  const [a, b] = [y(dim.from), Math.min(HEIGHT - 3, y(dim.to))];
  return (
    <g stroke={ink('ink')} fill="none" strokeWidth="1">
      <path d={`M${x} ${a}V${b}M${x - 4} ${a}h8M${x - 4} ${b}h8`} />
      <path d={`M148 ${a}H${x - 6}M148 ${b}H${x - 6}`} strokeWidth="0.5" stroke={ink('hatch')} />
    </g>
  );
}
