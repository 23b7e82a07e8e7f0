import { Plus, Trash2 } from 'lucide-react';
import { sideName } from '@yellow-pin/core/job/choose-setups';
import { newSetup, SIDES, type Plan, type Setup, type Side, type Stock } from '@yellow-pin/core/job/plan';
import type { Library } from '@yellow-pin/core/job/library';
import { zeroInWords } from '@yellow-pin/core/job/setup-frame';
import { LengthField } from '../shared/LengthField.tsx';
import { changePlan, changeSetup, usePick } from '../bench/store.ts';

const ALLOWANCES: [keyof Omit<Stock, 'state'>, string][] = [
  ['xLow', 'left'],
  ['xHigh', 'right'],
  ['yLow', 'front'],
  ['yHigh', 'back'],
  ['zLow', 'below'],
  ['zHigh', 'on top'],
];
const LEVELS = [
  [1, 'top'],
  [0, 'middle'],
  [-1, 'bottom'],
] as const;
const PLACES = [-1, 0, 1] as const;

interface Props {
  plan: Plan;
  setup: Setup;
  library: Library;
  solids: number;
}

/** Which side is up, where zero is, what the stock is: the simple form. */
export function SetupForm({ plan, setup, library, solids }: Props) {
  const { pick } = usePick();
  const set = (part: Partial<Setup>) => changeSetup(setup.id, part);
  const free = SIDES.find((s) => plan.setups.every((x) => x.up !== s)) ?? '+Z';
  const add = (): void => {
    const used = new Set(plan.setups.map((s) => s.id));
    const id = `s${[1, 2, 3, 4, 5, 6, 7].find((n) => !used.has(`s${n}`))}`;
    const offset = (['G54', 'G55', 'G56', 'G57', 'G58', 'G59'] as const)[plan.setups.length] ?? 'G59';
    changePlan({ setups: [...plan.setups, newSetup(id, sideName(free), free, offset)] });
    pick({ setupId: id });
  };
  const remove = (): void => {
    const rest = plan.setups.filter((s) => s.id !== setup.id);
    changePlan({ setups: rest });
    pick({ setupId: rest[0]!.id });
  };
  const turn = (up: Side): void => set({ up, name: SIDES.some((s) => sideName(s) === setup.name) ? sideName(up) : setup.name });
  return (
    <section className="sheet" aria-label="Setup">
      <div className="form">
        <div style={{ display: 'flex', gap: 8 }}>
          <button className="plain-button" onClick={add} disabled={plan.setups.length >= 6}>
            <Plus size={15} /> Add a setup
          </button>
          <button className="plain-button" onClick={remove} disabled={plan.setups.length === 1}>
            <Trash2 size={15} /> Remove this one
          </button>
        </div>
        <fieldset>
          <legend>Setup {plan.setups.indexOf(setup) + 1}</legend>
          <div className="pair">
            <label>
              name
              <input className="field" maxLength={60} value={setup.name} onKeyDown={(e) => e.stopPropagation()} onChange={(e) => set({ name: e.target.value || 'setup' })} />
            </label>
            <label>
              side up
              <select className="field" value={setup.up} onChange={(e) => turn(e.target.value as Side)}>
                {SIDES.map((s) => (
                  <option key={s} value={s}>
                    {s} {sideName(s)}
                  </option>
                ))}
              </select>
            </label>
            <label>
              work offset
              <select className="field" value={setup.workOffset} onChange={(e) => set({ workOffset: e.target.value as Setup['workOffset'] })}>
                {['G54', 'G55', 'G56', 'G57', 'G58', 'G59'].map((w) => (
                  <option key={w}>{w}</option>
                ))}
              </select>
            </label>
          </div>
        </fieldset>
        <fieldset>
          <legend>Work zero</legend>
          <div style={{ display: 'flex', gap: 18, alignItems: 'start' }}>
            <div className="zero-grid" role="group" aria-label="Zero seen from above">
              {[1, 0, -1].flatMap((y) =>
                PLACES.map((x) => (
                  <button
                    key={`${x}${y}`}
                    aria-pressed={setup.zero.x === x && setup.zero.y === y}
                    aria-label={`zero ${zeroInWords({ ...setup, zero: { ...setup.zero, x, y: y as -1 | 0 | 1 } })}`}
                    onClick={() => set({ zero: { ...setup.zero, x, y: y as -1 | 0 | 1 } })}
                  />
                )),
              )}
            </div>
            <div style={{ display: 'grid', gap: 8 }}>
              <div style={{ display: 'flex', gap: 5 }}>
                {LEVELS.map(([z, name]) => (
                  <button key={z} className={`chip${setup.zero.z === z ? ' on' : ''}`} aria-pressed={setup.zero.z === z} onClick={() => set({ zero: { ...setup.zero, z } })}>
                    {name}
                  </button>
                ))}
              </div>
              <div style={{ display: 'flex', gap: 5 }}>
                {(['stock', 'part'] as const).map((of) => (
                  <button key={of} className={`chip${setup.zero.of === of ? ' on' : ''}`} aria-pressed={setup.zero.of === of} onClick={() => set({ zero: { ...setup.zero, of } })}>
                    of {of}
                  </button>
                ))}
              </div>
              <span data-testid="zero-words">{zeroInWords(setup)}</span>
            </div>
          </div>
        </fieldset>
        <fieldset>
          <legend>Stock</legend>
          <div style={{ display: 'flex', gap: 5 }}>
            <button
              className={`chip${setup.stock.state === 'prepared' ? ' on' : ''}`}
              aria-pressed={setup.stock.state === 'prepared'}
              onClick={() => set({ stock: { ...setup.stock, state: 'prepared' } })}
            >
              faces milled already
            </button>
            <button
              className={`chip${setup.stock.state === 'block' ? ' on' : ''}`}
              aria-pressed={setup.stock.state === 'block'}
              onClick={() => set({ stock: { ...setup.stock, state: 'block' } })}
            >
              solid block
            </button>
          </div>
          <span className="source">
            {setup.stock.state === 'block' ? 'Metal stands up to the top of the block everywhere: feeding starts above it.' : 'Feeding starts above each hole’s own level.'}
          </span>
          <div className="pair">
            {ALLOWANCES.map(([key, name]) => (
              <label key={key}>
                {name}
                <LengthField value={setup.stock[key]} unit={plan.units} label={`allowance ${name}`} onChange={(v) => set({ stock: { ...setup.stock, [key]: Math.min(500, v) } })} />
              </label>
            ))}
          </div>
        </fieldset>
        <fieldset>
          <legend>Levels</legend>
          <div className="pair">
            <label>
              clearance above all
              <LengthField value={setup.clearance} unit={plan.units} label="clearance level" min={0.5} onChange={(v) => set({ clearance: v })} />
            </label>
            <label>
              R above each entry
              <LengthField value={setup.retract} unit={plan.units} label="R level" min={0.2} onChange={(v) => set({ retract: v })} />
            </label>
          </div>
        </fieldset>
        <fieldset>
          <legend>Whole job</legend>
          <div className="pair">
            <label>
              units
              <select className="field" value={plan.units} onChange={(e) => changePlan({ units: e.target.value as Plan['units'] })}>
                <option value="mm">millimetres</option>
                <option value="inch">inches</option>
              </select>
            </label>
            <label>
              material
              <select className="field" value={plan.materialId} onChange={(e) => changePlan({ materialId: e.target.value })}>
                {library.materials.map((m) => (
                  <option key={m.id} value={m.id}>
                    {m.name}
                  </option>
                ))}
              </select>
            </label>
            <label>
              machine
              <select className="field" value={plan.machineId} onChange={(e) => changePlan({ machineId: e.target.value })}>
                {library.machines.map((m) => (
                  <option key={m.id} value={m.id}>
                    {m.name}
                  </option>
                ))}
              </select>
            </label>
            {solids > 1 && (
              <label>
                solid
                <select className="field" value={plan.solid ?? 'all'} onChange={(e) => changePlan({ solid: e.target.value === 'all' ? null : Number(e.target.value) })}>
                  <option value="all">all {solids}</option>
                  {Array.from({ length: solids }, (_, i) => (
                    <option key={i} value={i}>
                      solid {i + 1}
                    </option>
                  ))}
                </select>
              </label>
            )}
          </div>
        </fieldset>
      </div>
    </section>
  );
}
