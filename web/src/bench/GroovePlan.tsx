import { Box } from '@chakra-ui/react';
import type { PlannedOperation, Row } from '@yellow-pin/core/job/derive';
import type { LengthUnit } from '@yellow-pin/core/units/length';
import {
  drawPlan,
  isAreaView,
  isEdgeView,
  PLAN_HEIGHT,
  PLAN_WIDTH,
  type PlanView,
} from '../drawings/groove-plan.ts';
import { override } from '../job/store.ts';
import { ink } from '../look/palette.ts';
import { DragHandle } from './DragHandle.tsx';
import { NumbersBelow } from './NumbersBelow.tsx';
import { useDrag } from './use-drag.ts';

interface Props {
  row: Row;
  view: PlanView;
  operation: PlannedOperation;
  unit: LengthUnit;
}

/** What lies in the plane, and is typed beneath the plan; the first of them that an operation has is dragged at its cutter. */
const IN_PLAN: readonly string[] = ['finishStock', 'stepover', 'narrower', 'pastStart', 'pastEnd'];

/** A groove, an area or an edge from above: its walls, the way of the cutter, and the numbers that lie in the plane. */
export function GroovePlan({ row, view, operation, unit }: Props) {
  const d = drawPlan(view, operation);
  const isFilled = isAreaView(view)
    ? view.shape.side !== 'outside'
    : isEdgeView(view)
      ? view.shape.closed && view.shape.side === 'inside'
      : !view.shape.isOneSided;
  const isUndercut = !isAreaView(view) && !isEdgeView(view) && view.shape.levels.length > 1;
  const numbers = operation.parameters.filter((p) => p.editable && IN_PLAN.includes(p.key));
  const [handle] = numbers;
  const set = (key: string, v: number): void => override(row.size.key, operation.key, key, v);
  const onDrag = useDrag({
    value: handle ? Number(handle.value) : null,
    along: 'x',
    // What lies in the plane is small: it is dragged slowly.
    scale: 4 * d.k,
    step: unit === 'mm' ? 0.05 : 0.0254,
    onChange: (v) => {
      if (handle) set(handle.key, v);
    },
  });
  return (
    <Box width={`${PLAN_WIDTH}px`} data-testid="plan">
      <svg
        width={PLAN_WIDTH}
        height={PLAN_HEIGHT}
        role="img"
        aria-label={`Plan of ${view.label}, ${operation.label}`}
      >
        {d.walls.map((w, i) => (
          <path
            key={i}
            d={w}
            fill={isFilled ? ink('hollow') : 'none'}
            fillRule="evenodd"
            stroke={ink('ink')}
            strokeWidth="1.4"
            strokeDasharray={i === 0 && d.walls.length > 1 && isUndercut ? '5 3' : undefined}
          />
        ))}
        <path d={d.middle} fill="none" stroke={ink('quiet')} strokeDasharray="9 3 2 3" strokeWidth="0.7" />
        <path d={d.leads} fill="none" stroke={ink('quiet')} strokeWidth="0.8" strokeDasharray="3 2" />
        <path d={d.cuts} fill="none" stroke={ink('ink')} strokeWidth="0.8" />
        <circle
          cx={d.cutter.x}
          cy={d.cutter.y}
          r={Math.max(3, d.cutter.r)}
          fill={ink('tool')}
          fillOpacity="0.25"
          stroke={ink('ink')}
          strokeWidth="1"
        />
        {handle && <DragHandle at={d.cutter} handle={handle} name="cutter" along="x" onDrag={onDrag} />}
      </svg>
      <NumbersBelow numbers={numbers} unit={unit} where="plan" onChange={set} />
    </Box>
  );
}
