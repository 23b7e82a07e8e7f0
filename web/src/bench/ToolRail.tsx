import { Box, Button, Flex, Text, useRecipe } from '@chakra-ui/react';
import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  closestCenter,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  SortableContext,
  horizontalListSortingStrategy,
  sortableKeyboardCoordinates,
  useSortable,
} from '@dnd-kit/sortable';
import type { PlannedOperation } from '@yellow-pin/core/job/derive';
import { moveVisit, visitsOf } from '@yellow-pin/core/order/sequence';
import { clockTime } from '@yellow-pin/core/units/time';
import { ToolSilhouette } from '../drawings/ToolSilhouette.tsx';
import { usePlay } from '../prove/play-store.ts';
import { useJob } from '../job/job-view.ts';
import { orderTools, splitFiles, usePicked } from '../job/store.ts';
import { Num, Quiet } from '../kit/Quiet.tsx';
import { Cut, CutTile } from './RailCut.tsx';
import { dropped, NEW_CUT, railItems, visitOf } from './rail-items.ts';
import { barRecipe, railCardRecipe } from '../look/recipes.ts';

/** Cards are as wide as their time, but never narrower than this, px: fifteen fit a window of 1280. */
const NARROWEST = 66;
/** While the code is read back no time is known. */
const NONE: ReadonlyMap<string, number> = new Map();
/** So many tools have room for the wider card with its name. */
const FEW = 9;

/** The program as the machine will run it: a card a tool, its operations as bars as wide as their time. */
export function ToolRail({ onRefused }: { onRefused(message: string): void }) {
  const { program, produced, checks, metal, plan } = useJob();
  const { tag } = usePicked('tag');
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  if (!program) {
    return (
      <footer className="rail" aria-label="Tool rail">
        <Quiet padding="16px">
          No tool runs in this setup yet. Plan a row of the worksheet, and its tools stand here in the order
          in which they run.
        </Quiet>
      </footer>
    );
  }
  const { operations } = program.setup;
  const visits = visitsOf(operations);
  const setupId = program.setup.setup.id;
  const splits = plan.splits[setupId] ?? [];
  const keys = visits.map((v) => v.key);
  const ids = railItems(keys, splits);
  const drop = ({ active, over }: DragEndEvent): void => {
    const what = over && dropped(ids, splits, String(active.id), String(over.id));
    if (!what) return;
    if (what.kind === 'splits') return splitFiles(setupId, what.splits);
    const moved = moveVisit(operations, what.key, what.before);
    if ('conflict' in moved) onRefused(moved.conflict.message);
    else orderTools(setupId, moved.order);
  };
  const cutHere = (): void => {
    const inHand = visits.findIndex((v, i) => i > 0 && v.operations.some((o) => o.tag === tag));
    const at = keys[inHand > 0 ? inHand : keys.length - 1];
    if (at !== undefined && !splits.includes(at)) splitFiles(setupId, [...splits, at]);
  };
  const byKey = new Map(visits.map((v) => [v.key, v]));
  const seconds = program.proof?.seconds ?? NONE;
  const count = (severity: string): number => checks.filter((c) => c.severity === severity).length;
  const [errors, warnings] = [count('error'), count('warning')];
  const tools = new Set(visits.map((v) => v.tool.id)).size;
  return (
    <footer className="rail" aria-label="Tool rail">
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
        <SortableContext items={ids} strategy={horizontalListSortingStrategy}>
          <ol className="rail-scroll">
            {ids.map((id) => {
              const visit = byKey.get(id);
              if (visit)
                return (
                  <Card
                    key={id}
                    id={id}
                    operations={visit.operations}
                    seconds={seconds}
                    isWide={visits.length <= FEW}
                  />
                );
              return id === NEW_CUT ? (
                <CutTile key={id} onAdd={cutHere} />
              ) : (
                <Cut
                  key={id}
                  id={id}
                  number={byKey.get(visitOf(id))?.tool.number ?? null}
                  onAway={() =>
                    splitFiles(
                      setupId,
                      splits.filter((s) => s !== visitOf(id)),
                    )
                  }
                />
              );
            })}
          </ol>
        </SortableContext>
      </DndContext>
      <Box
        textAlign="right"
        padding="6px 12px"
        borderInlineStartWidth="1px"
        borderColor="rule"
        minWidth="104px"
      >
        <Num display="block" fontSize="20px">
          {program.proof ? clockTime(program.proof.total) : '––:––'}
        </Num>
        <Quiet display="block">
          {tools} {tools === 1 ? 'tool' : 'tools'}
        </Quiet>
        <Text color={errors ? 'error' : 'quiet'}>
          {!produced?.checks
            ? 'reading back …'
            : errors
              ? `■ ${errors} to mend`
              : warnings
                ? `▲ ${warnings} to look at`
                : metal === 'under way'
                  ? 'taking metal off …'
                  : 'nothing wrong'}
        </Text>
      </Box>
    </footer>
  );
}

interface CardProps {
  id: string;
  operations: PlannedOperation[];
  seconds: ReadonlyMap<string, number>;
  isWide: boolean;
}

function Card({ id, operations, seconds, isWide }: CardProps) {
  const { tag, operation, pick } = usePicked('tag', 'operation', 'pick');
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id });
  const card = useRecipe({ recipe: railCardRecipe });
  const bar = useRecipe({ recipe: barRecipe });
  const { tool } = operations[0]!;
  const isAtWork = usePlay((s) => s.pose !== null && s.pose.tool === tool.number);
  const total = operations.reduce((n, o) => n + (seconds.get(o.id) ?? 0), 0);
  const isOf = (o: PlannedOperation): boolean => o.tag === tag && (operation === null || operation === o.key);
  const name = `T${tool.number ?? '–'} ${tool.description}`;
  return (
    <Box
      as="li"
      ref={setNodeRef}
      listStyleType="none"
      height="100%"
      flex={`${Math.max(1, Math.sqrt(total))} 1 ${isWide ? 96 : NARROWEST}px`}
      minWidth={`${NARROWEST}px`}
      maxWidth="190px"
      style={{ transform: transform ? `translateX(${transform.x}px)` : undefined, transition }}
    >
      <Box
        css={card()}
        data-testid="rail-card"
        data-in-hand={operations.some(isOf) || undefined}
        data-at-work={isAtWork || undefined}
      >
        <Flex
          {...attributes}
          {...listeners}
          gap="4px"
          justify="space-between"
          flex="1"
          minHeight="0"
          overflow="hidden"
          cursor="grab"
          touchAction="none"
          aria-label={`${name}, drag to reorder`}
          title={name}
        >
          <Box minWidth="0" lineHeight="1.2">
            {/* A number in two lines is another number. */}
            <Num fontWeight="700" whiteSpace="nowrap" fontSize={isWide ? undefined : '13px'}>
              T{tool.number ?? '–'}
            </Num>
            <Quiet display="block" textStyle="small" overflow="hidden" lineClamp={isWide ? 3 : 2}>
              {isWide ? tool.description : tool.sizeName}
            </Quiet>
          </Box>
          <Box flexShrink={0}>
            <ToolSilhouette tool={tool} width={isWide ? 24 : 20} height={60} />
          </Box>
        </Flex>
        <Flex gap="2px" overflow="hidden">
          {operations.map((o) => {
            const time = clockTime(seconds.get(o.id) ?? 0);
            return (
              <Button
                unstyled
                css={bar()}
                key={o.id}
                type="button"
                flex={`${Math.max(0.15, (seconds.get(o.id) ?? 0) / (total || 1))} 1 0`}
                aria-pressed={isOf(o)}
                title={`${o.tag} ${o.label}: ${time}`}
                aria-label={`${o.tag} ${o.label}, ${time}`}
                onClick={() => pick({ tag: o.tag, operation: o.key, hole: null, line: null })}
              >
                {o.tag}
              </Button>
            );
          })}
        </Flex>
      </Box>
    </Box>
  );
}
