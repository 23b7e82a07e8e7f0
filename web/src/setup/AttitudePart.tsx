import { FlipHorizontal2, FlipVertical2, RotateCw } from 'lucide-react';
import { scale } from '@yellow-pin/core/geometry/vec';
import {
  attitudeFor,
  attitudeName,
  quarterTurn,
  SIDES,
  sideDirection,
  sideOf,
  turnOver,
  WORK_OFFSETS,
  type Attitude as PartAttitude,
  type Setup,
} from '@yellow-pin/core/job/setup';
import type { Bounds } from '@yellow-pin/core/model/solid-model';
import { changeSetup, usePick, type Picking } from '../bench/store.ts';
import { Attitude } from '../shared/Attitude.tsx';

const PICKS: [Picking, string][] = [
  [{ for: 'up' }, 'a face'],
  [{ for: 'up-points', got: [] }, '3 points'],
];
const X_PICKS: [Picking, string][] = [
  [{ for: 'x' }, 'an edge'],
  [{ for: 'x-points', got: [] }, '2 points'],
];

/** Which way is up and where X points. */
export function AttitudePart({ setup, index, bounds }: { setup: Setup; index: number; bounds: Bounds | null }) {
  const { picking, pick } = usePick();
  const set = (part: Partial<Setup>) => changeSetup(setup.id, part);
  const turn = (attitude: PartAttitude): void => set({ attitude, name: setup.name === attitudeName(setup.attitude) ? attitudeName(attitude) : setup.name });
  const side = sideOf(setup.attitude.up);
  const chips = (list: [Picking, string][]) =>
    list.map(([p, text]) => (
      <button
        key={text}
        className={`chip${picking?.for === p.for ? ' on' : ''}`}
        aria-pressed={picking?.for === p.for}
        onClick={() => pick({ picking: picking?.for === p.for ? null : p, pickSaid: null })}
      >
        {text}
      </button>
    ));
  return (
    <fieldset>
      <legend>Setup {index + 1}</legend>
      <div className="pair">
        <label>
          name
          <input className="field" maxLength={60} value={setup.name} onKeyDown={(e) => e.stopPropagation()} onChange={(e) => set({ name: e.target.value || 'setup' })} />
        </label>
        <label>
          work offset
          <select className="field" value={setup.workOffset} onChange={(e) => set({ workOffset: e.target.value as Setup['workOffset'] })}>
            {WORK_OFFSETS.map((w) => (
              <option key={w}>{w}</option>
            ))}
          </select>
        </label>
      </div>
      <div style={{ display: 'flex', gap: 14, alignItems: 'center' }}>
        <Attitude attitude={setup.attitude} bounds={bounds} size={92} axes />
        <div style={{ display: 'grid', gap: 6, flex: 1 }}>
          <div className="pick-line" role="group" aria-label="Up">
            <span className="quiet">up</span>
            <select
              className="field"
              aria-label="side up"
              value={side ?? 'picked'}
              onChange={(e) => e.target.value !== 'picked' && turn(attitudeFor(sideDirection(e.target.value as (typeof SIDES)[number])))}
            >
              {side === null && <option value="picked">picked</option>}
              {SIDES.map((s) => (
                <option key={s} value={s}>
                  {s} {attitudeName(attitudeFor(sideDirection(s)))}
                </option>
              ))}
            </select>
            {chips(PICKS)}
          </div>
          <div className="pick-line" role="group" aria-label="X">
            <span className="quiet">X along</span>
            {chips(X_PICKS)}
            <button className="chip" onClick={() => turn({ ...setup.attitude, x: scale(setup.attitude.x, -1) })} aria-label="X the other way">
              <FlipHorizontal2 size={13} /> other way
            </button>
          </div>
          <div className="pick-line" role="group" aria-label="Turn the part">
            <span className="quiet">turn</span>
            <button className="chip" onClick={() => turn(quarterTurn(setup.attitude))}>
              <RotateCw size={13} /> 90° about Z
            </button>
            <button className="chip" onClick={() => turn(turnOver(setup.attitude, 'x'))}>
              <FlipVertical2 size={13} /> over about X
            </button>
            <button className="chip" onClick={() => turn(turnOver(setup.attitude, 'y'))}>
              <FlipHorizontal2 size={13} /> over about Y
            </button>
          </div>
        </div>
      </div>
    </fieldset>
  );
}
