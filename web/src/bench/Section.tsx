import { useId, useRef, useState, type PointerEvent } from 'react';
import type { PlannedOperation, Row } from '@yellow-pin/core/job/derive';
import type { HoleView } from '@yellow-pin/core/operations/hole-view';
import { formatLength, type LengthUnit } from '@yellow-pin/core/units/length';
import { LengthField } from '../shared/LengthField.tsx';
import { silhouettePath } from '../shared/tool-outline.ts';
import { drawSection, HEIGHT, WIDTH, type Dimension } from './section-drawing.ts';
import { override } from './store.ts';

interface Props {
  row: Row;
  view: HoleView;
  operation: PlannedOperation | null;
  unit: LengthUnit;
}

/** What the depth handle moves, for each kind of operation that has a depth of its own. */
const HANDLE: Record<string, string[]> = { drill: ['depth', 'breakThrough'], tap: ['threadDepth'], counterbore: ['depth'] };

/** The hole cut open, the tool at its final depth, every depth a dimension to type or drag. */
export function Section({ row, view, operation, unit }: Props) {
  const id = useId();
  const [editing, setEditing] = useState<string | null>(null);
  const drag = useRef<{ y: number; value: number } | null>(null);
  const d = drawSection(view, operation, row.thread?.majorDiameter ?? null);
  const say = (mm: number) => formatLength(mm, unit, unit === 'mm' ? 2 : 4);
  const handle = operation?.parameters.find((p) => p.editable && (HANDLE[operation.kind] ?? []).includes(p.key)) ?? null;
  const onDrag = {
    onPointerDown: (e: PointerEvent<SVGElement>) => {
      if (!handle) return;
      e.stopPropagation();
      e.currentTarget.setPointerCapture(e.pointerId);
      drag.current = { y: e.clientY, value: Number(handle.value) };
    },
    onPointerMove: (e: PointerEvent<SVGElement>) => {
      if (!drag.current || !handle || !operation) return;
      const step = unit === 'mm' ? 0.1 : 0.127;
      const value = Math.max(0, Math.round((drag.current.value + (e.clientY - drag.current.y) / d.k) / step) * step);
      if (Math.abs(value - Number(handle.value)) > 1e-9) override(row.size.key, operation.key, handle.key, Math.round(value * 1e4) / 1e4);
    },
    onPointerUp: () => (drag.current = null),
    onPointerCancel: () => (drag.current = null),
  };
  return (
    <div style={{ position: 'relative', width: WIDTH, height: HEIGHT }} data-testid="section">
      <svg width={WIDTH} height={HEIGHT} role="img" aria-label={`Section of ${view.label}${operation ? `, ${operation.label} to ${say(d.tip)} below the entry` : ''}`}>
        <defs>
          <pattern id={`${id}h`} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line y2="7" stroke="#a2a5a8" />
          </pattern>
          <clipPath id={`${id}c`}>
            <rect width={WIDTH} height={HEIGHT} />
          </clipPath>
        </defs>
        <rect x={d.centre - d.half} y={d.y(0)} width={2 * d.half} height={d.bottomY - d.y(0)} fill={`url(#${id}h)`} stroke="#22262b" strokeWidth="1.4" />
        <path d={d.hole} fill="#fffdf6" stroke="#22262b" strokeWidth="1.4" />
        {d.thread && <path d={d.thread} stroke="#65458f" strokeWidth="1.8" strokeDasharray="4 3" />}
        <line x1={d.centre} y1="6" x2={d.centre} y2={HEIGHT - 2} stroke="#585e66" strokeDasharray="9 3 2 3" strokeWidth="0.7" />
        <line x1="6" x2={2 * d.centre - 6} y1={d.r.y} y2={d.r.y} stroke="#22262b" strokeDasharray="7 3 2 3" strokeWidth="0.9" />
        <text x={2 * d.centre - 2} y={d.r.y - 4} fontSize="11" fill="#585e66" fontFamily="var(--mono)">
          R +{say(d.r.label)}
        </text>
        {operation && (
          <g clipPath={`url(#${id}c)`}>
            <path
              d={silhouettePath(operation.tool, d.k)}
              transform={`translate(${d.centre},${d.tipY})`}
              fill="#cfd3d5"
              fillOpacity="0.82"
              stroke="#22262b"
              strokeWidth="1.2"
              strokeLinejoin="round"
            />
          </g>
        )}
        {d.dimensions.map((dim) => (
          <DimensionLine key={dim.parameter.key} dim={dim} y={d.y} x={columnX(dim.column)} />
        ))}
        {operation && (
          <circle
            cx={d.centre}
            cy={d.tipY}
            r="5"
            fill="#f6bd0b"
            stroke="#22262b"
            strokeWidth="1.3"
            style={{ cursor: handle ? 'ns-resize' : 'default', touchAction: 'none' }}
            {...onDrag}
          >
            <title>{handle ? `Drag to change: ${handle.label}` : 'tool tip'}</title>
          </circle>
        )}
      </svg>
      {operation &&
        d.dimensions.map((dim) => {
          const p = dim.parameter;
          const style = { position: 'absolute' as const, left: columnX(dim.column) + 5, top: dim.labelY - 11, zIndex: editing === p.key ? 2 : 1 };
          if (editing === p.key) {
            return (
              <span key={p.key} style={style}>
                <LengthField
                  value={Number(p.value)}
                  unit={unit}
                  label={p.label}
                  width={64}
                  autoFocus
                  onChange={(v) => override(row.size.key, operation.key, p.key, v)}
                  onDone={() => setEditing(null)}
                />
              </span>
            );
          }
          return (
            <button
              key={p.key}
              className="num dim-label"
              disabled={!p.editable}
              title={`${p.label}${p.relation ? `: ${p.relation}` : ''}`}
              aria-label={`${p.label} ${say(Number(p.value))}`}
              onClick={(e) => (e.stopPropagation(), setEditing(p.key))}
              style={{
                ...style,
                border: `1px solid ${p.editable ? '#8d9096' : '#d8d2c3'}`,
                borderRadius: 3,
                background: '#fff',
                padding: '1px 5px',
                fontSize: 12,
                color: 'inherit',
              }}
            >
              {say(Number(p.value))}
            </button>
          );
        })}
    </div>
  );
}

const columnX = (column: number): number => 156 + 44 * column;

function DimensionLine({ dim, y, x }: { dim: Dimension; y(d: number): number; x: number }) {
  const [a, b] = [y(dim.from), Math.min(HEIGHT - 3, y(dim.to))];
  return (
    <g stroke="#22262b" fill="none" strokeWidth="1">
      <path d={`M${x} ${a}V${b}M${x - 4} ${a}h8M${x - 4} ${b}h8`} />
      <path d={`M148 ${a}H${x - 6}M148 ${b}H${x - 6}`} strokeWidth="0.5" stroke="#a2a5a8" />
    </g>
  );
}
