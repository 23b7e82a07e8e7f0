import { Button, Menu, Portal, Table } from '@chakra-ui/react';
import { Plus, X } from 'lucide-react';
import { USUAL_FULL_WIDTH, type CuttingRow } from '@yellow-pin/core/cutting/material';
import { TOOL_KINDS } from '@yellow-pin/core/tools/kinds/registry';
import { Chip } from '../kit/Chip.tsx';
import { IconAct } from '../kit/IconAct.tsx';
import { Figure } from './Figure.tsx';

/** Columns of a cutting row that are numbers, and whether they may be missing. */
const COLUMNS: readonly (readonly [
  key: 'from' | 'below' | 'vc' | 'carbideFactor' | 'feedShare' | 'maxFeedPerTurn',
  head: string,
  optional: boolean,
])[] = [
  ['from', 'from ⌀ mm', true],
  ['below', 'below ⌀ mm', true],
  ['vc', 'speed in HSS, m/min', false],
  ['carbideFactor', 'carbide ×', false],
  ['feedShare', 'feed, mm per mm ⌀', false],
  ['maxFeedPerTurn', 'at most, mm', false],
];
/** What a mill bears in a cut as wide as it is; a row without has the usual shares. */
const FULL_WIDTH = [
  ['feed', 'full width: feed ×'],
  ['depth', 'full width: down, ⌀ ×'],
] as const;
const NEW_ROW: CuttingRow = {
  kinds: ['drill'],
  vc: 30,
  carbideFactor: 2.5,
  feedShare: 0.02,
  maxFeedPerTurn: 0.3,
};

/** Speed and feed by kind and diameter, and what a cut as wide as a mill bears. */
export function CuttingTable({ rows, onChange }: { rows: CuttingRow[]; onChange(rows: CuttingRow[]): void }) {
  const replace = (i: number, part: Partial<CuttingRow>): void =>
    onChange(rows.map((r, k) => (k === i ? { ...r, ...part } : r)));
  return (
    <>
      <Table.Root size="sm" unstyled className="listing" aria-label="Speeds and feeds">
        <Table.Header>
          <Table.Row>
            <Table.ColumnHeader>tools</Table.ColumnHeader>
            {COLUMNS.map(([key, head]) => (
              <Table.ColumnHeader key={key}>{head}</Table.ColumnHeader>
            ))}
            {FULL_WIDTH.map(([key, head]) => (
              <Table.ColumnHeader key={key}>{head}</Table.ColumnHeader>
            ))}
            <Table.ColumnHeader>fed by the</Table.ColumnHeader>
            <Table.ColumnHeader>out</Table.ColumnHeader>
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {rows.map((r, i) => (
            <Table.Row key={i}>
              <Table.Cell>
                <Kinds chosen={r.kinds} onChange={(kinds) => replace(i, { kinds })} />
              </Table.Cell>
              {COLUMNS.map(([key, head, optional]) => (
                <Table.Cell key={key}>
                  <Figure
                    label={`${head}, row ${i + 1}`}
                    value={r[key]}
                    optional={optional}
                    onTake={(v) => replace(i, { [key]: v })}
                  />
                </Table.Cell>
              ))}
              {FULL_WIDTH.map(([key, head]) => (
                <Table.Cell key={key}>
                  {isMilled(r.kinds) && (
                    <Figure
                      label={`${head}, row ${i + 1}`}
                      value={r.fullWidth?.[key]}
                      optional
                      onTake={(v) => replace(i, { fullWidth: withShare(r.fullWidth, key, v) })}
                    />
                  )}
                </Table.Cell>
              ))}
              <Table.Cell>{fedBy(r.kinds)}</Table.Cell>
              <Table.Cell>
                <IconAct
                  label={`Take row ${i + 1} out`}
                  onClick={() => onChange(rows.filter((_, k) => k !== i))}
                >
                  <X size={14} />
                </IconAct>
              </Table.Cell>
            </Table.Row>
          ))}
        </Table.Body>
      </Table.Root>
      <Chip onClick={() => onChange([...rows, NEW_ROW])}>
        <Plus size={13} aria-hidden="true" /> another row
      </Chip>
    </>
  );
}

const isMilled = (kinds: readonly string[]): boolean =>
  TOOL_KINDS.some((k) => kinds.includes(k.kind) && k.feedsByTooth);

/** Both shares are known or neither: where one is typed the other starts at its usual value, and where one is taken out both are. */
function withShare(
  before: CuttingRow['fullWidth'],
  key: 'feed' | 'depth',
  value: number | undefined,
): CuttingRow['fullWidth'] {
  return value === undefined ? undefined : { ...(before ?? USUAL_FULL_WIDTH), [key]: value };
}

/** Some kinds are fed by the tooth, the others by the turn; a tap by its pitch. */
function fedBy(kinds: readonly string[]): string {
  const specs = TOOL_KINDS.filter((k) => kinds.includes(k.kind));
  if (specs.length > 0 && specs.every((k) => k.cycles.includes('tap'))) return 'pitch';
  return specs.some((k) => k.feedsByTooth) ? 'tooth' : 'turn';
}

/** Which kinds of tool a row is for. */
function Kinds({ chosen, onChange }: { chosen: readonly string[]; onChange(kinds: string[]): void }) {
  const names = TOOL_KINDS.filter((k) => chosen.includes(k.kind)).map((k) => k.label);
  return (
    <Menu.Root closeOnSelect={false}>
      <Menu.Trigger asChild>
        <Button
          size="2xs"
          variant="outline"
          height="auto"
          minHeight="26px"
          whiteSpace="normal"
          textAlign="start"
        >
          {names.join(', ') || 'none'}
        </Button>
      </Menu.Trigger>
      <Portal>
        <Menu.Positioner>
          <Menu.Content>
            {TOOL_KINDS.map((k) => (
              <Menu.CheckboxItem
                key={k.kind}
                value={k.kind}
                checked={chosen.includes(k.kind)}
                onCheckedChange={(on) =>
                  onChange(on ? [...chosen, k.kind] : chosen.filter((x) => x !== k.kind))
                }
              >
                <Menu.ItemIndicator />
                {k.label}
              </Menu.CheckboxItem>
            ))}
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}
