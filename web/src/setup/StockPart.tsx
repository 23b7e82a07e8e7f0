import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Plan } from '@yellow-pin/core/job/plan';
import type { Setup, Stock } from '@yellow-pin/core/job/setup';
import { barDiameter, type SetupFrame } from '@yellow-pin/core/job/setup-frame';
import { boundsOf, type SolidModel } from '@yellow-pin/core/model/solid-model';
import { api } from '../api.ts';
import { changeSetup } from '../bench/store.ts';
import { LengthField } from '../shared/LengthField.tsx';

const KINDS: [Stock['kind'], string, string][] = [
  ['prepared', 'faces milled already', 'Outer faces and terraces are made: feeding starts above each hole’s own level.'],
  ['block', 'block', 'Metal stands up to the top of the block everywhere: feeding starts above it.'],
  ['round-bar', 'round bar', 'A bar round the part. Metal may stand anywhere inside it.'],
  ['outline', 'outline', 'The part’s outline from above with a margin, as flame-cut or sawn.'],
  ['solid', 'another part', 'A casting or a sawn blank read from a file of its own, in the same place as the part.'],
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
export function StockPart({ jobId, plan, setup, frame, first }: { jobId: string; plan: Plan; setup: Setup; frame: SetupFrame | null; first: boolean }) {
  const { stock } = setup;
  const set = (part: Partial<Stock>): void => changeSetup(setup.id, { stock: { ...stock, ...part } });
  const fit = (): void => {
    const tight = { xLow: 0, xHigh: 0, yLow: 0, yHigh: 0, zLow: 0, zHigh: 0, margin: 0 };
    set(frame ? { ...tight, diameter: Math.ceil(barDiameter(frame.part, stock.barAxis) * 100) / 100 } : tight);
  };
  const choose = (kind: Stock['kind']): void => set(kind === 'round-bar' && frame ? { kind, diameter: Math.ceil(barDiameter(frame.part, stock.barAxis) * 100) / 100 } : { kind });
  const sides = sidesOf(stock);
  return (
    <fieldset>
      <legend>Stock</legend>
      <div style={{ display: 'flex', gap: 5, flexWrap: 'wrap' }}>
        {KINDS.filter(([kind]) => !(first && kind === 'left-over')).map(([kind, name]) => (
          <button key={kind} className={`chip${stock.kind === kind ? ' on' : ''}`} aria-pressed={stock.kind === kind} onClick={() => choose(kind)}>
            {name}
          </button>
        ))}
        {(sides.length > 0 || stock.kind === 'outline') && (
          <button className="plain-button" style={{ marginLeft: 'auto' }} onClick={fit} title="Draw the stock tight round the part again">
            Fit again
          </button>
        )}
      </div>
      <span className="source">{KINDS.find(([kind]) => kind === stock.kind)![2]}</span>
      {stock.kind === 'solid' && <OtherPart jobId={jobId} stock={stock} onChange={set} />}
      <div className="pair">
        {stock.kind === 'round-bar' && (
          <>
            <label>
              diameter
              <LengthField value={stock.diameter} unit={plan.units} label="bar diameter" min={0.1} onChange={(v) => set({ diameter: v })} />
            </label>
            <label>
              lies along
              <select
                className="field"
                value={stock.barAxis}
                onChange={(e) => {
                  const barAxis = e.target.value as Stock['barAxis'];
                  set({ barAxis, ...(frame ? { diameter: Math.ceil(barDiameter(frame.part, barAxis) * 100) / 100 } : {}) });
                }}
              >
                {(['x', 'y', 'z'] as const).map((a) => (
                  <option key={a} value={a}>
                    {a.toUpperCase()}
                  </option>
                ))}
              </select>
            </label>
          </>
        )}
        {stock.kind === 'outline' && (
          <label>
            margin
            <LengthField value={stock.margin} unit={plan.units} label="margin round the outline" onChange={(v) => set({ margin: Math.min(500, v) })} />
          </label>
        )}
        {ALLOWANCES.filter(([key]) => sides.includes(key)).map(([key, name]) => (
          <label key={key}>
            {name}
            <LengthField value={stock[key]} unit={plan.units} label={`allowance ${name}`} onChange={(v) => set({ [key]: Math.min(500, v) })} />
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** Another job's part as stock: its box is read once, when it is chosen. */
function OtherPart({ jobId, stock, onChange }: { jobId: string; stock: Stock; onChange(part: Partial<Stock>): void }) {
  const jobs = useQuery({ queryKey: ['jobs'], queryFn: api.jobs });
  const [error, setError] = useState<string | null>(null);
  const choose = async (id: string): Promise<void> => {
    setError(null);
    try {
      const response = await fetch(`/api/jobs/${id}/model`);
      if (!response.ok) throw new Error('That part could not be read. Open its job to see why.');
      const model = (await response.json()) as SolidModel;
      const bounds = boundsOf(model.edges.flatMap((e) => e.points));
      onChange({ solid: { jobId: id, name: jobs.data?.find((j) => j.id === id)?.name.slice(0, 120) ?? 'part', bounds } });
    } catch (e) {
      setError((e as Error).message);
    }
  };
  const others = jobs.data?.filter((j) => j.id !== jobId && j.status === 'ready') ?? [];
  return (
    <label>
      part
      <select className="field" aria-label="stock part" value={stock.solid?.jobId ?? ''} onChange={(e) => e.target.value && void choose(e.target.value)}>
        <option value="">choose a job</option>
        {stock.solid && !others.some((j) => j.id === stock.solid!.jobId) && <option value={stock.solid.jobId}>{stock.solid.name}</option>}
        {others.map((j) => (
          <option key={j.id} value={j.id}>
            {j.name}
          </option>
        ))}
      </select>
      {error && (
        <span role="alert" className="field-error">
          {error}
        </span>
      )}
    </label>
  );
}
