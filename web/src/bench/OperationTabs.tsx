import { Table, Tabs } from '@chakra-ui/react';
import { cycleWord } from '@yellow-pin/core/code/cycles';
import { cycleOf } from '@yellow-pin/core/motion/work';
import type { PlannedOperation, Row } from '@yellow-pin/core/job/derive';
import type { Parameter } from '@yellow-pin/core/operations/kind';
import { formatLength, MM_PER_INCH, type LengthUnit } from '@yellow-pin/core/units/length';
import { override, usePick } from '../job/store.ts';
import { Choice } from '../kit/Choice.tsx';
import { CountField } from '../kit/CountField.tsx';
import { LengthField } from '../kit/LengthField.tsx';
import { LetGo } from './LetGo.tsx';

interface Props {
  row: Row;
  operation: PlannedOperation;
  unit: LengthUnit;
}

/** The operations of a row as tabs, the one in hand with its numbers and where each comes from. */
export function OperationTabs({ row, operation, unit }: Props) {
  const pick = usePick((s) => s.pick);
  return (
    <Tabs.Root
      value={operation.key}
      onValueChange={(d) => pick({ operation: d.value })}
      size="sm"
      variant="line"
      activationMode="automatic"
    >
      <Tabs.List aria-label="Operations" minHeight="28px" borderColor="rule">
        {row.operations.map((o) => (
          <Tabs.Trigger
            key={o.key}
            value={o.key}
            height="28px"
            paddingInline="9px"
            fontSize="13px"
            color="ink"
            _selected={{ fontWeight: '700', boxShadow: 'inset 0 -3px 0 var(--yp-colors-ink)' }}
          >
            {tabName(o)}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <Tabs.Content value={operation.key} padding="4px 0 0">
        <OperationTable row={row} operation={operation} unit={unit} />
      </Tabs.Content>
    </Tabs.Root>
  );
}

/** A kind's name, numbered where there are several; what the far side is made by says so. */
function tabName({ key, kind, label }: PlannedOperation): string {
  const isFar = key.startsWith('far ');
  const rest = (isFar ? key.slice(4) : key).slice(kind.length);
  return `${label}${rest}${isFar ? ', far side' : ''}`;
}

function OperationTable({ row, operation: o, unit }: Props) {
  const feed =
    unit === 'mm'
      ? `${formatLength(o.feed, 'mm', o.tool.thread ? 2 : 0)} mm/min`
      : `${(o.feed / MM_PER_INCH).toFixed(o.tool.thread ? 4 : 1)} in/min`;
  const how = cycleOf(o.work);
  const facts: [string, string][] = [
    ['tool', `T${o.tool.number ?? '–'} ${o.tool.description}`],
    ...(how ? ([['cycle', cycleWord(how)]] as [string, string][]) : []),
    ['speed, feed', `${o.speed} rpm, ${feed}`],
  ];
  return (
    <Table.Root size="sm" unstyled className="numbers">
      <Table.Body>
        {facts.map(([name, value]) => (
          <Table.Row key={name}>
            <Table.Cell>{name}</Table.Cell>
            <Table.Cell className="num" colSpan={2}>
              {value}
            </Table.Cell>
          </Table.Row>
        ))}
        {o.parameters.map((p) => (
          <Table.Row key={p.key} title={p.relation}>
            <Table.Cell>{p.label}</Table.Cell>
            <Table.Cell className="num">
              <Value row={row} operation={o} parameter={p} unit={unit} />
            </Table.Cell>
            <Table.Cell className="source">
              {p.source === 'typed' ? (
                <LetGo label={p.label} onLetGo={() => override(row.size.key, o.key, p.key, null)} />
              ) : (
                p.source
              )}
            </Table.Cell>
          </Table.Row>
        ))}
      </Table.Body>
    </Table.Root>
  );
}

function Value({ row, operation: o, parameter: p, unit }: Props & { parameter: Parameter }) {
  const set = (v: number | string): void => override(row.size.key, o.key, p.key, v);
  if (!p.editable) return <>{typeof p.value === 'number' ? formatLength(p.value, unit) : p.value}</>;
  if (p.type === 'choice')
    return (
      <Choice
        label={p.label}
        value={String(p.value)}
        options={(p.choices ?? []).map((c) => [c, c] as const)}
        onChange={set}
      />
    );
  if (p.type === 'number')
    return (
      <CountField label={p.label} value={Number(p.value)} min={0} max={1000} step={0.1} onChange={set} />
    );
  return <LengthField value={Number(p.value)} unit={unit} label={p.label} onChange={set} />;
}
