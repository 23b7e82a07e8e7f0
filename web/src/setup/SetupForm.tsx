import { ArrowUp, Copy, FlipVertical2, Plus, Trash2 } from 'lucide-react';
import type { Drawing } from '@yellow-pin/core/drawing/read-dxf';
import type { Library } from '@yellow-pin/core/job/library';
import type { Plan } from '@yellow-pin/core/job/plan';
import { attitudeName, copySetup, newSetup, SIDES, sideDirection, sideOf, turnOver, WORK_OFFSETS, attitudeFor, type Setup } from '@yellow-pin/core/job/setup';
import type { SetupFrame } from '@yellow-pin/core/job/setup-frame';
import { formatLength } from '@yellow-pin/core/units/length';
import type { Bounds } from '@yellow-pin/core/model/solid-model';
import { LengthField } from '../shared/LengthField.tsx';
import { changePlan, changeSetup, usePick } from '../bench/store.ts';
import { NewerFile } from '../revision/NewerFile.tsx';
import { AttitudePart } from './AttitudePart.tsx';
import { DrawingPart } from './DrawingPart.tsx';
import { HoldingPart } from './HoldingPart.tsx';
import { StockPart } from './StockPart.tsx';
import { ZeroPart } from './ZeroPart.tsx';

const MOST = 12;

interface Props {
  jobId: string;
  plan: Plan;
  setup: Setup;
  frame: SetupFrame | null;
  bounds: Bounds | null;
  library: Library;
  solids: number;
  drawing: Drawing | null;
}

/** How the part stands, where zero is, what it is made from and what holds it. */
export function SetupForm({ jobId, plan, setup, frame, bounds, library, solids, drawing }: Props) {
  const { pick } = usePick();
  const index = plan.setups.indexOf(setup);
  const set = (part: Partial<Setup>) => changeSetup(setup.id, part);
  const freeId = (): string => {
    const used = new Set(plan.setups.map((s) => s.id));
    return `s${Array.from({ length: MOST + 1 }, (_, i) => i + 1).find((n) => !used.has(`s${n}`))}`;
  };
  const insert = (fresh: Setup): void => {
    changePlan({ setups: [...plan.setups.slice(0, index + 1), fresh, ...plan.setups.slice(index + 1)] });
    pick({ setupId: fresh.id });
  };
  const add = (): void => {
    const free = SIDES.find((s) => plan.setups.every((x) => sideOf(x.attitude.up) !== s)) ?? '+Z';
    insert(newSetup(freeId(), attitudeName(attitudeFor(sideDirection(free))), free, WORK_OFFSETS[Math.min(plan.setups.length, 5)]));
  };
  const remove = (): void => {
    const rest = plan.setups.filter((s) => s.id !== setup.id);
    changePlan({ setups: rest });
    pick({ setupId: rest[Math.max(0, index - 1)]!.id });
  };
  const earlier = (): void => {
    const order = [...plan.setups];
    [order[index - 1], order[index]] = [order[index]!, order[index - 1]!];
    changePlan({ setups: order });
  };
  const isFull = plan.setups.length >= MOST;
  return (
    <section className="sheet" aria-label="Setup">
      <div className="form">
        <div style={{ display: 'flex', gap: 6, flexWrap: 'wrap' }}>
          <button className="plain-button" onClick={add} disabled={isFull}>
            <Plus size={15} /> Add a setup
          </button>
          <button className="plain-button" onClick={() => insert(copySetup(setup, freeId()))} disabled={isFull}>
            <Copy size={15} /> Copy
          </button>
          <button
            className="plain-button"
            onClick={() => insert(copySetup(setup, freeId(), turnOver(setup.attitude, 'x')))}
            disabled={isFull}
            title="A next setup with the part turned over about X"
          >
            <FlipVertical2 size={15} /> Next, turned over
          </button>
          <button className="icon-button" onClick={earlier} disabled={index === 0} aria-label="Run this setup earlier" title="Run this setup earlier">
            <ArrowUp size={15} />
          </button>
          <button className="icon-button" onClick={remove} disabled={plan.setups.length === 1} aria-label="Remove this setup" title="Remove this setup">
            <Trash2 size={15} />
          </button>
        </div>
        <AttitudePart setup={setup} index={index} bounds={bounds} />
        <ZeroPart plan={plan} setup={setup} frame={frame} />
        <StockPart jobId={jobId} plan={plan} setup={setup} frame={frame} first={index === 0} />
        <HoldingPart plan={plan} setup={setup} frame={frame} />
        {drawing && plan.drawing && <DrawingPart plan={plan} drawing={drawing} depths={plan.drawing} />}
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
        <JobPart jobId={jobId} plan={plan} library={library} solids={solids} />
      </div>
    </section>
  );
}

function JobPart({ jobId, plan, library, solids }: { jobId: string; plan: Plan; library: Library; solids: number }) {
  const travel = library.machines.find((m) => m.id === plan.machineId)?.travel ?? null;
  return (
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
      {travel && (
        <span className="source">
          travel of the machine {[travel.x, travel.y, travel.z].map((mm) => formatLength(mm, plan.units, plan.units === 'mm' ? 0 : 1)).join(' x ')}{' '}
          {plan.units === 'mm' ? 'mm' : 'in'}
        </span>
      )}
      <div>
        <NewerFile jobId={jobId} />
      </div>
    </fieldset>
  );
}
