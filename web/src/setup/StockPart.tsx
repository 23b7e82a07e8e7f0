import { Button, Flex, SimpleGrid } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { stockSchema, type Stock } from '@yellow-pin/core/setup/setup';
import { barDiameter } from '@yellow-pin/core/setup/setup-frame';
import { boundsOf, type SolidModel } from '@yellow-pin/core/model/solid-model';
import { api } from '../api.ts';
import { useJob } from '../job/job-view.ts';
import { changeSetup } from '../job/store.ts';
import { Chip } from '../kit/Chip.tsx';
import { Choice } from '../kit/Choice.tsx';
import { FieldSays } from '../kit/FieldSays.tsx';
import { Labelled } from '../kit/Labelled.tsx';
import { LengthField } from '../kit/LengthField.tsx';
import { Panel } from '../kit/Panel.tsx';
import { Quiet } from '../kit/Quiet.tsx';

const KINDS: [Stock['kind'], string, string][] = [
  [
    'prepared',
    'faces milled already',
    'Outer faces and terraces are made: feeding starts above each hole’s own level.',
  ],
  ['block', 'block', 'Metal stands up to the top of the block everywhere: feeding starts above it.'],
  ['round-bar', 'round bar', 'A bar round the part. Metal may stand anywhere inside it.'],
  ['outline', 'outline', 'The part’s outline from above with a margin, as flame-cut or sawn.'],
  [
    'solid',
    'another part',
    'A casting or a sawn blank read from a file of its own, in the same place as the part.',
  ],
  ['left-over', 'what is left', 'What the setup before leaves, turned with the part.'],
];
const ALLOWANCES: ['xLow' | 'xHigh' | 'yLow' | 'yHigh' | 'zLow' | 'zHigh', string][] = [
  ['xLow', 'left'],
  ['xHigh', 'right'],
  ['yLow', 'front'],
  ['yHigh', 'back'],
  ['zLow', 'below'],
  ['zHigh', 'on top'],
];

/** Which sides each kind of stock has an allowance on. */
function sidesOf({ kind, barAxis }: Stock): string[] {
  if (kind === 'prepared' || kind === 'block') return ALLOWANCES.map(([k]) => k);
  if (kind === 'round-bar') return [`${barAxis}Low`, `${barAxis}High`];
  return kind === 'outline' ? ['zLow', 'zHigh'] : [];
}

/** What the part is made from. */
export function StockPart({ first }: { first: boolean }) {
  const { plan, setup, here } = useJob();
  const { stock } = setup;
  const frame = here?.frame ?? null;
  const set = (part: Partial<Stock>): void => changeSetup(setup.id, { stock: { ...stock, ...part } });
  /** The bar that just holds the part, where that is known. */
  const bar = (axis: Stock['barAxis']): Partial<Stock> =>
    frame ? { diameter: Math.ceil(barDiameter(frame.part, axis) * 100) / 100 } : {};
  const fit = (): void =>
    set({ xLow: 0, xHigh: 0, yLow: 0, yHigh: 0, zLow: 0, zHigh: 0, margin: 0, ...bar(stock.barAxis) });
  const choose = (kind: Stock['kind']): void =>
    set(kind === 'round-bar' ? { kind, ...bar(stock.barAxis) } : { kind });
  const sides = sidesOf(stock);
  return (
    <Panel name="Stock">
      <Flex gap="5px" wrap="wrap">
        {KINDS.filter(([kind]) => !(first && kind === 'left-over')).map(([kind, name]) => (
          <Chip key={kind} on={stock.kind === kind} onClick={() => choose(kind)}>
            {name}
          </Chip>
        ))}
        {(sides.length > 0 || stock.kind === 'outline') && (
          <Button
            size="xs"
            marginInlineStart="auto"
            onClick={fit}
            title="Draw the stock tight round the part again"
          >
            Fit again
          </Button>
        )}
      </Flex>
      <Quiet textStyle="small">{KINDS.find(([kind]) => kind === stock.kind)![2]}</Quiet>
      {stock.kind === 'solid' && <OtherPart stock={stock} onChange={set} />}
      <SimpleGrid columns={3} gap="8px">
        {stock.kind === 'round-bar' && (
          <>
            <Labelled name="diameter">
              <LengthField
                value={stock.diameter}
                unit={plan.units}
                label="bar diameter"
                schema={stockSchema.shape.diameter.unwrap()}
                onChange={(v) => set({ diameter: v })}
              />
            </Labelled>
            <Labelled name="lies along">
              <Choice
                label="lies along"
                value={stock.barAxis}
                options={(['x', 'y', 'z'] as const).map((a) => [a, a.toUpperCase()] as const)}
                onChange={(barAxis) => set({ barAxis, ...bar(barAxis) })}
              />
            </Labelled>
          </>
        )}
        {stock.kind === 'outline' && (
          <Labelled name="margin">
            <LengthField
              value={stock.margin}
              unit={plan.units}
              label="margin round the outline"
              schema={stockSchema.shape.margin.unwrap()}
              onChange={(v) => set({ margin: v })}
            />
          </Labelled>
        )}
        {ALLOWANCES.filter(([key]) => sides.includes(key)).map(([key, name]) => (
          <Labelled key={key} name={name}>
            <LengthField
              value={stock[key]}
              unit={plan.units}
              label={`allowance ${name}`}
              schema={stockSchema.shape[key]}
              onChange={(v) => set({ [key]: v })}
            />
          </Labelled>
        ))}
      </SimpleGrid>
    </Panel>
  );
}

/** Another job's part as stock: its box is read once, when it is chosen. */
function OtherPart({ stock, onChange }: { stock: Stock; onChange(part: Partial<Stock>): void }) {
  const { id } = useJob();
  const jobs = useQuery({ queryKey: ['jobs', 'names'], queryFn: api.jobNames });
  const [error, setError] = useState<string | null>(null);
  const choose = async (chosen: string): Promise<void> => {
    setError(null);
    try {
      const response = await fetch(`/api/jobs/${chosen}/model`);
      if (!response.ok) throw new Error('That part could not be read. Open its job to see why.');
      const model = (await response.json()) as SolidModel;
      const bounds = boundsOf(model.edges.flatMap((e) => e.points));
      const name = jobs.data?.find((j) => j.id === chosen)?.name.slice(0, 120) ?? 'part';
      onChange({ solid: { jobId: chosen, name, bounds } });
    } catch (e) {
      setError((e as Error).message);
    }
  };
  const others = jobs.data?.filter((j) => j.id !== id) ?? [];
  const known = stock.solid && !others.some((j) => j.id === stock.solid!.jobId) ? [stock.solid] : [];
  return (
    <Labelled name="part">
      <Choice
        label="stock part"
        value={stock.solid?.jobId ?? ''}
        options={[
          ['', 'choose a job'],
          ...known.map((s) => [s.jobId, s.name] as const),
          ...others.map((j) => [j.id, j.name] as const),
        ]}
        onChange={(v) => v !== '' && void choose(v)}
      />
      {error && <FieldSays>{error}</FieldSays>}
    </Labelled>
  );
}
