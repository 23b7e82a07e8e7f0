import { Code2, Redo2, Undo2, Table2 } from 'lucide-react';
import { Link, useNavigate } from 'react-router-dom';
import { useStore } from 'zustand';
import type { Plan, Side } from '@yellow-pin/core/job/plan';
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
}

/** Job, setups as tabs, coverage, saved or not, undo and redo, and the way to the other views. */
export function Header({ id, name, plan, job, save, setupId, view }: Props) {
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
            <Attitude side={s.up} />
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

/** A little block with the side that is up filled in. */
function Attitude({ side }: { side: Side }) {
  const faces: Record<string, string> = { top: 'M2 6l7-3.500l7 3.500l-7 3.500z', front: 'M2 6v6.500l7 3.500v-6.500z', right: 'M16 6v6.500l-7 3.500v-6.500z' };
  const filled = side === '+Z' || side === '-Z' ? 'top' : side === '-Y' || side === '+Y' ? 'front' : 'right';
  const hidden = side === '-Z' || side === '+Y' || side === '-X';
  return (
    <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true" fill="none" stroke="currentColor" strokeWidth="1.1" strokeLinejoin="round">
      {Object.entries(faces).map(([name, d]) => (
        <path key={name} d={d} fill={name === filled && !hidden ? 'currentColor' : 'none'} fillOpacity={0.55} />
      ))}
      {hidden && <path d="M9 16.8v-4M7.200 14.600l1.800-1.800l1.800 1.800" />}
    </svg>
  );
}
