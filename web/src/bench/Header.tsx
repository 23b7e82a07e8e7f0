import { Code2, Redo2, Undo2, Table2 } from 'lucide-react';
import { Link, useNavigate } from 'react-router-dom';
import { useStore } from 'zustand';
import type { Plan } from '@yellow-pin/core/job/plan';
import type { Bounds } from '@yellow-pin/core/model/solid-model';
import { Attitude } from '../shared/Attitude.tsx';
import type { DerivedJob } from '@yellow-pin/core/job/derive';
import type { SaveState } from './use-job.ts';
import { redo, undo, usePick, usePlan } from './store.ts';

const SAID: Record<SaveState['state'], string> = { saved: 'saved', saving: 'saving …', unsaved: 'not saved yet', stale: 'saved elsewhere', failed: 'not saved' };

interface Props {
  id: string;
  name: string;
  plan: Plan;
  job: DerivedJob | null;
  save: SaveState;
  setupId: string;
  view: 'worksheet' | 'code' | 'setup';
  bounds: Bounds | null;
}

/** Job, setups as tabs, coverage, saved or not, undo and redo, and the way to the other views. */
export function Header({ id, name, plan, job, save, setupId, view, bounds }: Props) {
  const { pick } = usePick();
  const navigate = useNavigate();
  const past = useStore(usePlan.temporal, (s) => s.pastStates.filter((p) => p.plan).length);
  const future = useStore(usePlan.temporal, (s) => s.futureStates.length);
  const { planned, total } = job?.coverage ?? { planned: 0, total: 0 };
  return (
    <header>
      <Link to="/" aria-label="All jobs" title="All jobs">
        <img src="/pin.svg" alt="" width={24} height={24} />
      </Link>
      <h1 title={name}>{name}</h1>
      <span className="quiet" role="status" data-testid="save-state">
        {SAID[save.state]}
      </span>
      <span style={{ display: 'flex' }}>
        <button className="icon-button" onClick={undo} disabled={past === 0} aria-label="Undo" title="Undo (Ctrl Z)">
          <Undo2 size={17} />
        </button>
        <button className="icon-button" onClick={redo} disabled={future === 0} aria-label="Redo" title="Redo (Ctrl Shift Z)">
          <Redo2 size={17} />
        </button>
      </span>
      <nav className="tabs" aria-label="Setups">
        {plan.setups.map((s, i) => (
          <button
            key={s.id}
            className={`setup-tab${s.id === setupId ? ' on' : ''}`}
            aria-pressed={s.id === setupId}
            title={`Setup ${i + 1}: ${s.name}. Press again to change it.`}
            onClick={() => (s.id === setupId ? navigate(view === 'setup' ? `/jobs/${id}` : `/jobs/${id}/setup`) : pick({ setupId: s.id, line: null }))}
          >
            <Attitude attitude={s.attitude} bounds={bounds} size={22} />
            {s.id === setupId ? `${i + 1} ${s.name}` : i + 1}
          </button>
        ))}
      </nav>
      <span className="coverage">
        <span className="num">
          {planned} / {total}
        </span>
        <span className="bar" aria-hidden="true">
          <i style={{ width: `${total ? (100 * planned) / total : 0}%` }} />
        </span>
        <span className="quiet">planned</span>
      </span>
      {view === 'worksheet' ? (
        <Link className="plain-button" to={`/jobs/${id}/code`}>
          <Code2 size={15} /> Code
        </Link>
      ) : (
        <Link className="plain-button" to={`/jobs/${id}`}>
          <Table2 size={15} /> Worksheet
        </Link>
      )}
    </header>
  );
}
