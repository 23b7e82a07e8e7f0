import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router-dom';
import * as Comlink from 'comlink';
import type { Feature } from '@yellow-pin/core/features/family';
import { familyOf, placeOf } from '@yellow-pin/core/features/registry';
import { distance } from '@yellow-pin/core/geometry/vec';
import type { Plan } from '@yellow-pin/core/job/plan';
import { carryPlan, compareFeatures, type Pair } from '@yellow-pin/core/revision/compare';
import { formatLength, type LengthUnit } from '@yellow-pin/core/units/length';
import { api, type OpenJob, type PartRevision } from '../api.ts';
import { PartView } from '../bench/PartView.tsx';
import { usePick } from '../bench/store.ts';
import type { JobWorker, PartPicture, Produced } from '../workers/job.worker.ts';

/** A newer file of the part beside the one the job has: what is new, gone, moved and resized, and what becomes of the plan. */
export function RevisionPage() {
  const { id = '' } = useParams();
  const open = useQuery({ queryKey: ['job', id, 'compare'], queryFn: () => api.job(id), gcTime: 0 });
  const number = open.data?.pending?.revision ?? null;
  const part = useQuery({
    queryKey: ['job', id, 'revision', number],
    queryFn: () => api.revision(id, number!),
    enabled: number !== null,
    refetchInterval: (q) => (q.state.data?.status === 'reading' ? 600 : false),
  });
  useEffect(() => {
    document.title = 'Newer file · Yellow Pin';
  }, []);
  const failure = open.error ?? part.error;
  if (failure || part.data?.status === 'failed') {
    return (
      <Waiting id={id} revision={number}>
        <p role="alert">{failure?.message ?? part.data?.error}</p>
      </Waiting>
    );
  }
  if (open.data && number === null) {
    return (
      <Waiting id={id} revision={null}>
        <p>No newer file waits to be compared. Open one from the setup, under "Whole job".</p>
      </Waiting>
    );
  }
  if (!open.data?.plan || !part.data || part.data.status === 'reading') {
    return (
      <Waiting id={id} revision={number}>
        <p role="status">Reading the newer file: {part.data?.progressText || 'waiting'} …</p>
        <span className="progress" role="progressbar" aria-label="Reading the newer file" aria-valuenow={Math.round((part.data?.progress ?? 0) * 100)}>
          <i style={{ width: `${Math.max(4, (part.data?.progress ?? 0) * 100)}%` }} />
        </span>
      </Waiting>
    );
  }
  return <Compare open={open.data} plan={open.data.plan} part={part.data} />;
}

function Waiting({ id, revision, children }: { id: string; revision: number | null; children: React.ReactNode }) {
  const navigate = useNavigate();
  return (
    <main className="page">
      <h1 style={{ fontSize: 20 }}>Newer file of the part</h1>
      {children}
      <p style={{ display: 'flex', gap: 10 }}>
        <Link className="plain-button" to={`/jobs/${id}`}>
          Back to the job
        </Link>
        {revision !== null && (
          <button className="plain-button" onClick={() => void api.discardRevision(id, revision).then(() => navigate(`/jobs/${id}`))}>
            Leave the newer file
          </button>
        )}
      </p>
    </main>
  );
}

function Compare({ open, plan, part }: { open: OpenJob; plan: Plan; part: PartRevision }) {
  const { job } = open;
  const client = useQueryClient();
  const navigate = useNavigate();
  const library = useQuery({ queryKey: ['library'], queryFn: api.library, staleTime: Infinity });
  const comparison = useMemo(() => compareFeatures(open.features, part.features), [open, part]);
  const [takeOver, setTakeOver] = useState<ReadonlySet<string>>(new Set());
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const carried = useMemo(() => carryPlan(plan, open.features, comparison, takeOver), [plan, open, comparison, takeOver]);
  const { picture, produced, error } = useRevisionPicture(job.id, part, carried.plan, library.data);
  const { pick } = usePick();
  useEffect(() => pick({ tag: null, hole: null, hover: null, picking: null, chosen: [] }), [pick]);
  const labels = useMemo(
    () => new Map(produced?.job.rows.flatMap((r) => r.size.features.map((f, i) => [f.id, { tag: r.tag, label: `${r.tag}${i + 1}` }] as const)) ?? []),
    [produced],
  );
  const show = (f: Feature): void => {
    const found = labels.get(f.id);
    if (found) pick({ tag: found.tag, hole: found.label });
  };
  const accept = (): void => {
    setBusy(true);
    api.acceptRevision(job.id, part.revision, open.revision, carried.plan).then(
      async () => {
        await client.invalidateQueries({ queryKey: ['job', job.id] });
        void navigate(`/jobs/${job.id}`);
      },
      (e: Error) => (setProblem(e.message), setBusy(false)),
    );
  };
  const setup = produced?.job.setups[0];
  const unit = plan.units;
  return (
    <main className="bench" style={{ gridTemplateRows: 'auto 1fr' }}>
      <div style={{ gridColumn: '1 / 3' }}>
        {(problem ?? error) && (
          <div className="notice error" role="alert">
            {problem ?? error}
          </div>
        )}
        <div className="bench-head">
          <header>
            <Link to={`/jobs/${job.id}`} aria-label="Back to the job" title="Back to the job">
              <img src="/pin.svg" alt="" width={24} height={24} />
            </Link>
            <h1>{job.name}</h1>
            <span className="quiet">
              {job.fileName} (revision {job.partRevision}) → {part.fileName} (revision {part.revision})
            </span>
            <span style={{ marginLeft: 'auto', display: 'flex', gap: 8 }}>
              <button className="plain-button" onClick={() => void api.discardRevision(job.id, part.revision).then(() => navigate(`/jobs/${job.id}`))} disabled={busy}>
                Leave the newer file
              </button>
              <button className="plain-button on" onClick={accept} disabled={busy || !produced}>
                Go on with this revision
              </button>
            </span>
          </header>
        </div>
      </div>
      {picture && setup ? (
        <section aria-label="Part" style={{ position: 'relative', display: 'grid', minWidth: 0, minHeight: 0 }}>
          <PartView picture={picture} curves={produced!.curves} rows={produced!.job.rows} setup={setup} program={null} showMotion={false} fit={0} onPlace={null} />
        </section>
      ) : (
        <div className="part-pane" style={{ display: 'grid', placeItems: 'center' }}>
          <p role="status">Drawing the newer part …</p>
        </div>
      )}
      <section className="sheet" aria-label="What changed">
        <div className="sheet-scroll" style={{ padding: '8px 0' }}>
          <Group title="New" empty="Nothing new." items={comparison.added} text={(f) => line(f, unit)} onShow={show} />
          <h2 className="group">Resized · {comparison.resized.length}</h2>
          {comparison.resized.length === 0 && <p className="quiet">Nothing was resized.</p>}
          <ul className="changes">
            {comparison.resized.map((p) => (
              <li key={p.after.id}>
                <button className="change" onClick={() => show(p.after)}>
                  {familyOf(p.after).describe(p.before, (mm) => formatLength(mm, unit))} → <b>{familyOf(p.after).describe(p.after, (mm) => formatLength(mm, unit))}</b>
                  <small>
                    {p.after.family} at {at(p.after, unit)}
                  </small>
                </button>
                {hasDecision(plan, p) && (
                  <label className="quiet">
                    <input
                      type="checkbox"
                      checked={takeOver.has(p.after.id)}
                      onChange={(e) => setTakeOver(new Set(e.target.checked ? [...takeOver, p.after.id] : [...takeOver].filter((x) => x !== p.after.id)))}
                    />{' '}
                    take its decisions over
                  </label>
                )}
              </li>
            ))}
          </ul>
          <Group
            title="Moved"
            empty="Nothing moved."
            items={comparison.moved.map((p) => p.after)}
            text={(f) => {
              const p = comparison.moved.find((m) => m.after === f)!;
              return `${line(f, unit)}, by ${formatLength(distance(placeOf(p.before), placeOf(p.after)), unit)}`;
            }}
            onShow={show}
          />
          <Group title="Gone" empty="Nothing is gone." items={comparison.gone} text={(f) => line(f, unit)} onShow={() => undefined} />
          <h2 className="group">Stayed · {comparison.stayed.length}</h2>
          <p className="quiet">They keep everything that was decided for them.</p>
          {carried.asks.length > 0 && (
            <div role="note" className="remark warning">
              {carried.asks.map((a) => (
                <p key={a}>▲ {a}</p>
              ))}
            </div>
          )}
        </div>
      </section>
    </main>
  );
}

const at = (f: Feature, unit: LengthUnit): string =>
  placeOf(f)
    .map((v) => formatLength(v, unit))
    .join(', ');
const line = (f: Feature, unit: LengthUnit): string => `${f.family} ${familyOf(f).describe(f, (mm) => formatLength(mm, unit))} at ${at(f, unit)}`;
const hasDecision = (plan: Plan, p: Pair): boolean => plan.sizes[familyOf(p.before).sizeKey(p.before, false)] !== undefined;

function Group({ title, empty, items, text, onShow }: { title: string; empty: string; items: Feature[]; text(f: Feature): string; onShow(f: Feature): void }) {
  return (
    <>
      <h2 className="group">
        {title} · {items.length}
      </h2>
      {items.length === 0 && <p className="quiet">{empty}</p>}
      <ul className="changes">
        {items.map((f) => (
          <li key={f.id}>
            <button className="change" onClick={() => onShow(f)}>
              {text(f)}
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

/** The newer part's picture with the plan carried over to it. */
function useRevisionPicture(id: string, part: PartRevision, plan: Plan, library: Awaited<ReturnType<typeof api.library>> | undefined) {
  const [remote, setRemote] = useState<Comlink.Remote<JobWorker> | null>(null);
  const [picture, setPicture] = useState<PartPicture | null>(null);
  const [produced, setProduced] = useState<Produced | null>(null);
  const [error, setError] = useState<string | null>(null);
  useEffect(() => {
    const worker = new Worker(new URL('../workers/job.worker.ts', import.meta.url), { type: 'module' });
    const wrapped = Comlink.wrap<JobWorker>(worker);
    wrapped.open(id, null, part.revision).then(
      (p) => (setPicture(p), setRemote(() => wrapped)),
      (e: Error) => setError(e.message),
    );
    return () => worker.terminate();
  }, [id, part.revision]);
  useEffect(() => {
    if (!remote || !library) return;
    let current = true;
    remote.produce({ features: part.features, plan, library, name: 'newer' }).then(
      (p) => current && setProduced(p),
      (e: Error) => current && setError(e.message),
    );
    return () => {
      current = false;
    };
  }, [remote, library, plan, part]);
  return { picture, produced, error };
}
