import { Plus, Trash2 } from 'lucide-react';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import type { Plan } from '@yellow-pin/core/job/plan';
import type { Holding, KeepOut, Setup } from '@yellow-pin/core/job/setup';
import type { SetupFrame } from '@yellow-pin/core/job/setup-frame';
import { toFrame } from '@yellow-pin/core/geometry/frame';
import { changeSetup, usePick } from '../bench/store.ts';
import { LengthField } from '../shared/LengthField.tsx';

/** What holds the part and what else is in the way. Boxes are shown in program coordinates. */
export function HoldingPart({ plan, setup, frame }: { plan: Plan; setup: Setup; frame: SetupFrame | null }) {
  const { picking, pick } = usePick();
  const { holding } = setup;
  const set = (part: Partial<Holding>): void => changeSetup(setup.id, { holding: { ...holding, ...part } });
  const { vise } = holding;
  // Boxes are kept along the setup's axes from the file's origin, so that moving zero does not move them.
  const zero: Vec3 = frame ? toFrame({ ...frame.frame, origin: [0, 0, 0] }, frame.frame.origin) : [0, 0, 0];
  const change = (id: string, part: Partial<KeepOut>): void => set({ keepOuts: holding.keepOuts.map((k) => (k.id === id ? { ...k, ...part } : k)) });
  const addBox = (): void => {
    const top = frame ? frame.stock.max[2] + zero[2] : 0;
    set({
      keepOuts: [
        ...holding.keepOuts,
        {
          id: crypto.randomUUID().slice(0, 8),
          name: `box ${holding.keepOuts.length + 1}`,
          kind: 'keep-out',
          min: [zero[0] - 20, zero[1] - 20, top],
          max: [zero[0] + 20, zero[1] + 20, top + 30],
        },
      ],
    });
  };
  return (
    <fieldset>
      <legend>Holding</legend>
      <div style={{ display: 'flex', gap: 5, flexWrap: 'wrap' }}>
        <button
          className={`chip${vise ? ' on' : ''}`}
          aria-pressed={vise !== null}
          onClick={() => set({ vise: vise ? null : { sides: 'front-back', jawHeight: 40, grip: 8, jawWidth: 125 } })}
        >
          vise with parallel jaws
        </button>
        <button
          className={`chip${picking?.for === 'clamp' ? ' on' : ''}`}
          aria-pressed={picking?.for === 'clamp'}
          onClick={() => pick({ picking: picking?.for === 'clamp' ? null : { for: 'clamp' }, pickSaid: null })}
        >
          <Plus size={13} /> clamp on the part
        </button>
        <button className="chip" onClick={addBox}>
          <Plus size={13} /> keep-out box
        </button>
      </div>
      {vise && (
        <div className="pair">
          <label>
            jaws on
            <select className="field" value={vise.sides} onChange={(e) => set({ vise: { ...vise, sides: e.target.value as 'front-back' } })}>
              <option value="front-back">front and back</option>
              <option value="left-right">left and right</option>
            </select>
          </label>
          {(
            [
              ['grip', 'grip depth'],
              ['jawHeight', 'jaw height'],
              ['jawWidth', 'jaw width'],
            ] as const
          ).map(([key, name]) => (
            <label key={key}>
              {name}
              <LengthField value={vise[key]} unit={plan.units} label={name} min={0.5} onChange={(v) => set({ vise: { ...vise, [key]: Math.min(500, v) } })} />
            </label>
          ))}
        </div>
      )}
      {holding.keepOuts.length > 0 && (
        <table className="boxes">
          <thead>
            <tr className="quiet">
              <th>box</th>
              <th>X from – to</th>
              <th>Y from – to</th>
              <th>Z from – to</th>
              <th>
                <span className="hidden-text">remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {holding.keepOuts.map((k) => (
              <tr key={k.id}>
                <td>
                  <input
                    className="field"
                    style={{ width: 78 }}
                    aria-label="name of the box"
                    maxLength={60}
                    value={k.name}
                    onKeyDown={(e) => e.stopPropagation()}
                    onChange={(e) => change(k.id, { name: e.target.value || 'box' })}
                  />
                </td>
                {([0, 1, 2] as const).map((i) => (
                  <td key={i}>
                    {(['min', 'max'] as const).map((end) => (
                      <LengthField
                        key={end}
                        value={k[end][i] - zero[i]}
                        unit={plan.units}
                        label={`${k.name} ${'XYZ'[i]} ${end === 'min' ? 'from' : 'to'}`}
                        min={-5000}
                        width={52}
                        onChange={(v) => change(k.id, { [end]: k[end].map((c, n) => (n === i ? v + zero[i] : c)) as Vec3 })}
                      />
                    ))}
                  </td>
                ))}
                <td>
                  <button className="icon-button" aria-label={`Remove ${k.name}`} onClick={() => set({ keepOuts: holding.keepOuts.filter((x) => x.id !== k.id) })}>
                    <Trash2 size={14} />
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </fieldset>
  );
}
