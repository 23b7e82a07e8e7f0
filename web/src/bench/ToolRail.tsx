import { DndContext, KeyboardSensor, PointerSensor, closestCenter, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { SortableContext, horizontalListSortingStrategy, sortableKeyboardCoordinates, useSortable } from '@dnd-kit/sortable';
import type { PlannedOperation } from '@yellow-pin/core/job/derive';
import type { ProducedSetup } from '@yellow-pin/core/job/produce';
import { moveTool, toolsInOrder } from '@yellow-pin/core/job/sequence';
import { ToolSilhouette } from '../shared/ToolSilhouette.tsx';
import { changePlan, usePick } from './store.ts';

interface Props {
  program: ProducedSetup | null;
  errors: number;
  warnings: number;
  onRefused(message: string): void;
}

/** The program as the machine will run it: a card a tool, its operations as bars as wide as their time. */
export function ToolRail({ program, errors, warnings, onRefused }: Props) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }), useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }));
  if (!program) {
    return (
      <footer className="rail" aria-label="Tool rail">
        <p className="quiet" style={{ padding: 16, margin: 0 }}>
          No tool runs in this setup yet. Plan a row of the worksheet, and its tools stand here in the order in which they run.
        </p>
      </footer>
    );
  }
  const { operations } = program.setup;
  const ids = toolsInOrder(operations);
  const drop = ({ active, over }: DragEndEvent): void => {
    if (!over || active.id === over.id) return;
    const [from, to] = [ids.indexOf(String(active.id)), ids.indexOf(String(over.id))];
    const before = from < to ? (ids[to + 1] ?? null) : String(over.id);
    const moved = moveTool(operations, String(active.id), before);
    if ('conflict' in moved) onRefused(moved.conflict.message);
    else changePlan({ toolOrder: moved.order });
  };
  const seconds = operationSeconds(program);
  return (
    <footer className="rail" aria-label="Tool rail">
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
        <SortableContext items={ids} strategy={horizontalListSortingStrategy}>
          <ol className="rail-scroll">
            {ids.map((id) => (
              <Card key={id} id={id} operations={operations.filter((o) => o.tool.id === id)} seconds={seconds} />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      <div className="rail-sum">
        <div className="time num">{clock(program.time.total)}</div>
        <div className="quiet">{ids.length} tools</div>
        <div className={errors ? 'remark error' : 'quiet'} style={{ justifyContent: 'flex-end' }}>
          {errors ? `${errors} to mend` : warnings ? `${warnings} to look at` : 'nothing wrong'}
        </div>
      </div>
    </footer>
  );
}

function Card({ id, operations, seconds }: { id: string; operations: PlannedOperation[]; seconds: Map<string, number> }) {
  const { tag, operation, pick } = usePick();
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id });
  const { tool } = operations[0]!;
  const total = operations.reduce((n, o) => n + (seconds.get(o.id) ?? 0), 0);
  const inHand = operations.some((o) => o.tag === tag && (operation === null || o.key === operation));
  return (
    <li ref={setNodeRef} style={{ transform: transform ? `translateX(${transform.x}px)` : undefined, transition, listStyle: 'none', height: '100%', flex: '0 0 112px' }}>
      <div className={`rail-card${inHand ? ' on' : ''}`}>
        <div className="head" {...attributes} {...listeners} aria-label={`T${tool.number} ${tool.description}, drag to reorder`} title={tool.description}>
          <b className="num">T{tool.number}</b>
          <span className="quiet">{tool.description}</span>
        </div>
        <div className="silhouette">
          <ToolSilhouette tool={tool} width={30} height={66} scale={0.8} />
        </div>
        <div className="bars">
          {operations.map((o) => (
            <button
              key={o.id}
              className={o.tag === tag && (operation === null || operation === o.key) ? 'on' : ''}
              style={{ flex: `${Math.max(0.15, (seconds.get(o.id) ?? 0) / (total || 1))} 1 0` }}
              title={`${o.tag} ${o.label}: ${clock(seconds.get(o.id) ?? 0)}`}
              aria-label={`${o.tag} ${o.label}, ${clock(seconds.get(o.id) ?? 0)}`}
              onClick={() => pick({ tag: o.tag, operation: o.key, hole: null, line: null })}
            >
              {o.tag}
            </button>
          ))}
        </div>
      </div>
    </li>
  );
}

function operationSeconds(program: ProducedSetup): Map<string, number> {
  return new Map(
    program.operations.map((o) => {
      let t = 0;
      for (let l = o.firstLine; l <= o.lastLine; l++) t += program.time.byLine.get(l) ?? 0;
      return [o.id, t];
    }),
  );
}

/** Minutes and seconds. */
export const clock = (s: number): string => `${String(Math.floor(Math.round(s) / 60)).padStart(2, '0')}:${String(Math.round(s) % 60).padStart(2, '0')}`;
