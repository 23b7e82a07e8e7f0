import { useMemo } from 'react';
import type { DrawingDepths } from '@yellow-pin/core/drawing/depths';
import type { Drawing } from '@yellow-pin/core/drawing/read-dxf';
import { sizeOfOutline } from '@yellow-pin/core/drawing/to-model';
import type { Plan } from '@yellow-pin/core/job/plan';
import { changePlan } from '../bench/store.ts';
import { LengthField } from '../shared/LengthField.tsx';

/** What a 2D drawing does not say: thickness, and how deep each layer or size is cut. */
export function DrawingPart({ plan, drawing, depths }: { plan: Plan; drawing: Drawing; depths: DrawingDepths }) {
  const set = (part: Partial<DrawingDepths>): void => changePlan({ drawing: { ...depths, ...part } });
  const layers = useMemo(() => {
    const out = new Map<string, Map<string, { key: string; name: string; count: number }>>();
    for (const o of drawing.outlines) {
      const sizes = out.get(o.layer) ?? new Map();
      const size = sizeOfOutline(o);
      const known = sizes.get(size.key);
      sizes.set(size.key, { ...size, count: (known?.count ?? 0) + 1 });
      out.set(o.layer, sizes);
    }
    return [...out];
  }, [drawing]);
  const depthField = (label: string, value: number | null, onChange: (v: number | null) => void) => (
    <span style={{ display: 'flex', gap: 5 }}>
      <button
        className={`chip${value === null ? ' on' : ''}`}
        aria-pressed={value === null}
        aria-label={`${label} through`}
        onClick={() => onChange(value === null ? Math.min(3, depths.thickness / 2) : null)}
      >
        through
      </button>
      {value !== null && <LengthField value={value} unit={plan.units} label={`${label} depth`} min={0.01} width={64} onChange={onChange} />}
    </span>
  );
  return (
    <fieldset>
      <legend>Drawing</legend>
      <div className="pair">
        <label>
          thickness
          <LengthField value={depths.thickness} unit={plan.units} label="thickness" min={0.05} onChange={(v) => set({ thickness: v })} />
        </label>
      </div>
      <table className="boxes" aria-label="Layers and depths">
        <thead>
          <tr className="quiet">
            <th>layer, size</th>
            <th>use</th>
            <th>depth</th>
          </tr>
        </thead>
        <tbody>
          {layers.map(([layer, sizes]) => {
            const known = depths.layers[layer] ?? { use: 'cut' as const, depth: null };
            const change = (part: Partial<typeof known>): void => set({ layers: { ...depths.layers, [layer]: { ...known, assumed: undefined, ...part } } });
            return [
              <tr key={layer}>
                <td>
                  <b>{layer}</b>
                </td>
                <td>
                  <select className="field" aria-label={`use of layer ${layer}`} value={known.use} onChange={(e) => change({ use: e.target.value as typeof known.use })}>
                    <option value="outline">outline</option>
                    <option value="cut">cut</option>
                    <option value="ignore">ignore</option>
                  </select>
                </td>
                <td>{known.use === 'cut' && depthField(`layer ${layer}`, known.depth, (depth) => change({ depth }))}</td>
              </tr>,
              ...(known.use === 'cut' && sizes.size > 1
                ? [...sizes.values()].map((s) => (
                    <tr key={s.key}>
                      <td className="num" style={{ paddingLeft: 16 }}>
                        {s.count} x {s.name}
                      </td>
                      <td className="source">{depths.sizes[s.key] === undefined ? 'as its layer' : 'own depth'}</td>
                      <td style={{ display: 'flex', gap: 5 }}>
                        {depths.sizes[s.key] === undefined ? (
                          <button className="chip" onClick={() => set({ sizes: { ...depths.sizes, [s.key]: known.depth } })}>
                            own depth
                          </button>
                        ) : (
                          <>
                            {depthField(s.name, depths.sizes[s.key]!, (v) => set({ sizes: { ...depths.sizes, [s.key]: v } }))}
                            <button
                              className="chip"
                              onClick={() => {
                                const { [s.key]: _, ...rest } = depths.sizes;
                                set({ sizes: rest });
                              }}
                            >
                              as its layer
                            </button>
                          </>
                        )}
                      </td>
                    </tr>
                  ))
                : []),
            ];
          })}
        </tbody>
      </table>
    </fieldset>
  );
}
