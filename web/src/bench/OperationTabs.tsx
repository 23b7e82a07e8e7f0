import { Table, Tabs } from '@chakra-ui/react';
import { cycleWord } from '@yellow-pin/core/code/cycles';
import { cycleOf } from '@yellow-pin/core/motion/work';
import type { PlannedOperation, Row } from '@yellow-pin/core/job/derive';
import type { Parameter } from '@yellow-pin/core/operations/kind';
import { formatLength, MM_PER_INCH, type LengthUnit } from '@yellow-pin/core/units/length';
import { useMemo } from 'react';
import { withJobTools } from '@yellow-pin/core/plan/library';
import type { Tool } from '@yellow-pin/core/tools/schema';
import { useJob } from '../job/job-view.ts';
import { chooseTool, override, usePick } from '../job/store.ts';
import { Choice } from '../kit/Choice.tsx';
import { CountField } from '../kit/CountField.tsx';
import { LengthField } from '../kit/LengthField.tsx';
import { Quiet } from '../kit/Quiet.tsx';
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
  const how = cycleOf(o.work);
  const facts: [string, string][] = [
    ...(how ? ([['cycle', cycleWord(how)]] as [string, string][]) : []),
    ...(o.tool.thread ? ([['feed', feedInWords(o, unit)]] as [string, string][]) : []),
  ];
  return (
    <Table.Root size="sm" unstyled className="numbers">
      <Table.Body>
        <Table.Row>
          <Table.Cell>tool</Table.Cell>
          <Table.Cell className="num" colSpan={2}>
            <ToolChoice row={row} operation={o} />
          </Table.Cell>
        </Table.Row>
        {facts.map(([name, value]) => (
          <Table.Row key={name}>
            <Table.Cell>{name}</Table.Cell>
            <Table.Cell className="num" colSpan={2}>
              {value}
            </Table.Cell>
          </Table.Row>
        ))}
        {inOrder(o.parameters).map((p) => (
          <Table.Row key={p.key} title={p.relation}>
            <Table.Cell>
              {p.label}
              {isRate(p) && (
                <Quiet>, {p.type === 'speed' ? 'rpm' : `${unit === 'mm' ? 'mm' : 'in'}/min`}</Quiet>
              )}
            </Table.Cell>
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

/** The tool that makes it, and all others that would do, with what would be different. */
function ToolChoice({ row, operation: o }: Pick<Props, 'row' | 'operation'>) {
  const { library: shop, plan } = useJob();
  const chosen = plan.sizes[row.size.key]?.tools?.[o.key];
  const library = useMemo(() => withJobTools(shop, plan), [shop, plan]);
  const fits = library.tools.filter((t) => t.id === o.tool.id || (o.fits ?? []).includes(t.id));
  const place = (t: Tool): string => (t.number === null ? 'drawer:' : `T${t.number}`);
  if (fits.length < 2 && chosen === undefined) return `${place(o.tool)} ${o.tool.description}`;
  const say = (mm: number): string => formatLength(mm, plan.units, plan.units === 'mm' ? 1 : 3);
  return (
    <Choice
      label={`Tool of ${o.label}`}
      width="100%"
      strong={chosen !== undefined}
      value={chosen === undefined ? '' : o.tool.id}
      options={[
        ['', `${place(o.tool)} ${o.tool.description}`] as const,
        ...fits.map(
          (t) =>
            [
              t.id,
              `${place(t)} ${t.description}, flute ${say(t.fluteLength)}, out ${say(t.stickOut)}`,
            ] as const,
        ),
      ]}
      onChange={(id) => chooseTool(row.size.key, o.key, id === '' ? null : id)}
    />
  );
}

/** A tap's: it follows from pitch and speed, and nobody types it. */
const feedInWords = (o: PlannedOperation, unit: LengthUnit): string =>
  unit === 'mm' ? `${formatLength(o.feed, 'mm', 2)} mm/min` : `${(o.feed / MM_PER_INCH).toFixed(4)} in/min`;

const isRate = (p: Parameter): boolean => p.type === 'speed' || p.type === 'feed';
/** Speed and feed first, as everybody looks for them there. */
const inOrder = (list: readonly Parameter[]): Parameter[] => [
  ...list.filter(isRate),
  ...list.filter((p) => !isRate(p)),
];

/** Feeds are set in whole millimetres or tenths of an inch. */
const roundFeed = (mm: number, unit: LengthUnit): number =>
  unit === 'mm' ? Math.round(mm) : (Math.round((10 * mm) / MM_PER_INCH) / 10) * MM_PER_INCH;

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
  if (p.type === 'speed')
    return (
      <CountField label={p.label} value={Number(p.value)} min={1} max={200_000} step={10} onChange={set} />
    );
  if (p.type === 'feed')
    return (
      <LengthField value={roundFeed(Number(p.value), unit)} unit={unit} label={p.label} onChange={set} />
    );
  if (p.type === 'number')
    return (
      <CountField label={p.label} value={Number(p.value)} min={0} max={1000} step={0.1} onChange={set} />
    );
  return <LengthField value={Number(p.value)} unit={unit} label={p.label} onChange={set} />;
}
