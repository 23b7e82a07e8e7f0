import { RotateCcw } from 'lucide-react';
import type { PlannedOperation, Row } from '@yellow-pin/core/job/derive';
import type { Plan } from '@yellow-pin/core/job/plan';
import { THREADS } from '@yellow-pin/core/threads/standards';
import type { Parameter } from '@yellow-pin/core/operations/kind';
import { formatLength, MM_PER_INCH, type LengthUnit } from '@yellow-pin/core/units/length';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import { CorrectionBar } from '../corrections/CorrectionBar.tsx';
import { FeatureDrawing } from '../shared/drawings/FeatureDrawing.tsx';
import { LengthField } from '../shared/LengthField.tsx';
import { Section } from './Section.tsx';
import { decide, override, usePick } from './store.ts';

const SOURCE: Record<Parameter['source'], string> = { model: 'model', print: 'print', method: 'method', table: 'table', machine: 'machine', typed: 'typed' };

interface Props {
  row: Row;
  plan: Plan;
  unit: LengthUnit;
  up: Vec3;
  onSetup(): void;
}

/** A row opened in place: section, operations with their numbers, and where each hole is. */
export function RowDetail({ row, plan, unit, up, onSetup }: Props) {
  const { hole, operation: picked, pick } = usePick();
  const operation = row.operations.find((o) => o.key === picked) ?? row.operations[row.operations.length - 1] ?? null;
  const view = row.holes.find((h) => h.label === hole) ?? row.holes[0] ?? null;
  const shaped = row.size.features[0];
  const one = hole !== null && hole.startsWith(row.tag) ? row.size.features[Number(hole.slice(row.tag.length)) - 1] : undefined;
  const leftOut = plan.sizes[row.size.key]?.leftOut;
  return (
    <div className="detail" data-testid={`detail-${row.tag}`}>
      {view ? (
        <Section row={row} view={view} operation={operation} unit={unit} />
      ) : shaped && shaped.family !== 'hole' ? (
        <FeatureDrawing feature={shaped} label={`${row.tag}1`} unit={unit} />
      ) : (
        <div />
      )}
      <div className="side">
        {row.operations.length > 0 && (
          <div role="tablist" aria-label="Operations" style={{ display: 'flex', gap: 5, marginBottom: 8, flexWrap: 'wrap' }}>
            {row.operations.map((o) => (
              <button key={o.key} role="tab" aria-selected={o === operation} className={`chip${o === operation ? ' on' : ''}`} onClick={() => pick({ operation: o.key })}>
                {o.key}
              </button>
            ))}
          </div>
        )}
        {operation && <OperationTable row={row} operation={operation} unit={unit} />}
        {row.reasons.map((r) => (
          <p key={r} className={row.state === 'optional' ? 'quiet' : 'remark warning'} role="note">
            {row.state !== 'optional' && <span aria-hidden="true">▲</span>} {r}
          </p>
        ))}
        {row.remarks.map((r, i) => (
          <p key={i} className={`remark ${r.severity}`} role="note">
            <span aria-hidden="true">{r.severity === 'error' ? '■' : '▲'}</span> {r.message}
          </p>
        ))}
        {row.guesses.length > 0 && (
          <div style={{ margin: '6px 0' }}>
            <span className="quiet">threaded? Confirm from the print: </span>
            <span style={{ display: 'flex', gap: 4, flexWrap: 'wrap', marginTop: 4 }}>
              {row.guesses.slice(0, 4).map((g) => (
                <Guess key={g} row={row} designation={g} />
              ))}
              <button className="chip" onClick={() => decide(row.size.key, { thread: null })}>
                no thread
              </button>
            </span>
          </div>
        )}
        <p style={{ margin: '8px 0 0', display: 'flex', gap: 8, flexWrap: 'wrap', alignItems: 'center' }}>
          {row.method && <span className="source">method: {row.method}</span>}
          {row.state === 'unreachable' && (
            <button className="plain-button" onClick={onSetup}>
              Change the setups
            </button>
          )}
          {leftOut ? (
            <button className="plain-button" onClick={() => decide(row.size.key, { leftOut: undefined })}>
              Make it after all
            </button>
          ) : (
            <button className="plain-button" onClick={() => decide(row.size.key, { leftOut: 'Left out by the programmer.' })}>
              Leave out
            </button>
          )}
        </p>
        <CorrectionBar features={one ? [one] : row.size.features} keys={[row.size.key]} label={one ? hole! : row.tag} unit={unit} up={up} />
      </div>
      {row.holes.length > 0 && <Places row={row} unit={unit} />}
    </div>
  );
}

function Guess({ row, designation }: { row: Row; designation: string }) {
  const thread = THREADS.find((t) => t.designation === designation);
  return (
    <button className="chip num" onClick={() => thread && decide(row.size.key, { thread, callout: undefined })}>
      {designation.replace('x', '×')}
    </button>
  );
}

function OperationTable({ row, operation: o, unit }: { row: Row; operation: PlannedOperation; unit: LengthUnit }) {
  const feed = unit === 'mm' ? `${formatLength(o.feed, 'mm', o.kind === 'tap' ? 2 : 0)} mm/min` : `${(o.feed / MM_PER_INCH).toFixed(o.kind === 'tap' ? 4 : 1)} in/min`;
  return (
    <table>
      <tbody>
        <tr>
          <td>tool</td>
          <td className="num" colSpan={2}>
            T{o.tool.number} {o.tool.description}
          </td>
        </tr>
        <tr>
          <td>cycle</td>
          <td className="num" colSpan={2}>
            {o.cycle}
          </td>
        </tr>
        <tr>
          <td>speed, feed</td>
          <td className="num" colSpan={2}>
            {o.speed} rpm, {feed}
          </td>
        </tr>
        {o.parameters.map((p) => (
          <tr key={p.key} title={p.relation}>
            <td>{p.label}</td>
            <td className="num">
              <Value row={row} operation={o} parameter={p} unit={unit} />
            </td>
            <td style={{ textAlign: 'right', width: 64 }} className="source">
              {p.source === 'typed' ? (
                <button
                  className="icon-button"
                  style={{ padding: 1 }}
                  aria-label={`Let ${p.label} go back`}
                  title="Let it follow again"
                  onClick={() => override(row.size.key, o.key, p.key, null)}
                >
                  typed <RotateCcw size={12} style={{ marginLeft: 3, alignSelf: 'center' }} />
                </button>
              ) : (
                SOURCE[p.source]
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Value({ row, operation: o, parameter: p, unit }: { row: Row; operation: PlannedOperation; parameter: Parameter; unit: LengthUnit }) {
  const set = (v: number | string) => override(row.size.key, o.key, p.key, v);
  if (!p.editable) return <>{typeof p.value === 'number' ? formatLength(p.value, unit) : p.value}</>;
  if (p.type === 'choice') {
    return (
      <select className="field" aria-label={p.label} value={String(p.value)} onChange={(e) => set(e.target.value)}>
        {p.choices?.map((c) => (
          <option key={c}>{c}</option>
        ))}
      </select>
    );
  }
  if (p.type === 'number') {
    return (
      <input
        className="field num"
        style={{ width: 84 }}
        aria-label={p.label}
        type="number"
        min={0}
        max={1000}
        step={0.1}
        value={Number(p.value)}
        onKeyDown={(e) => e.stopPropagation()}
        onChange={(e) => e.target.value !== '' && Number(e.target.value) >= 0 && set(Number(e.target.value))}
      />
    );
  }
  return <LengthField value={Number(p.value)} unit={unit} label={p.label} onChange={set} />;
}

function Places({ row, unit }: { row: Row; unit: LengthUnit }) {
  const { hole, pick } = usePick();
  const n = (v: number) => formatLength(v, unit, unit === 'mm' ? 3 : 4);
  return (
    <div className="places">
      <div tabIndex={0} role="region" aria-label={`Places of ${row.tag}`}>
        <table>
          <thead>
            <tr className="quiet">
              <th>hole</th>
              <th className="num">X {unit === 'mm' ? 'mm' : 'in'}</th>
              <th className="num">Y</th>
              <th className="num">Z of entry</th>
              <th className="num">depth</th>
            </tr>
          </thead>
          <tbody>
            {row.holes.slice(0, 400).map((h) => (
              <tr key={h.label} className={h.label === hole ? 'on' : ''} onClick={() => pick({ hole: h.label })} style={{ cursor: 'pointer' }}>
                <td className="num">
                  {h.label}
                  {h.feature.interrupted && <span className="source"> crossed</span>}
                </td>
                <td className="num">{n(h.x)}</td>
                <td className="num">{n(h.y)}</td>
                <td className="num">{n(h.entryZ)}</td>
                <td className="num">{n(h.depth)}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {row.holes.length > 400 && (
          <p className="quiet" style={{ padding: '2px 10px' }}>
            and {row.holes.length - 400} more
          </p>
        )}
      </div>
    </div>
  );
}
