import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Keyboard, Maximize, Spline, X } from 'lucide-react';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Link, useParams } from 'react-router-dom';
import { setupFrames, zeroInWords } from '@yellow-pin/core/job/setup-frame';
import { formatLength } from '@yellow-pin/core/units/length';
import { api } from '../api.ts';
import { CodePane } from '../code/CodePane.tsx';
import { SetupForm } from '../setup/SetupForm.tsx';
import { Header } from './Header.tsx';
import { KeyList, useKeys } from './keys.tsx';
import { PartView } from './PartView.tsx';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import { takeLook } from '../setup/take-look.ts';
import { PickBanner } from './PickBanner.tsx';
import { correct, usePick, usePlan } from './store.ts';
import { ToolRail } from './ToolRail.tsx';
import { useAutosave, useProduced } from './use-job.ts';
import { Worksheet } from './Worksheet.tsx';

/** A job's main screen: part on the left; worksheet, code or setup on the right; the tool rail below. */
export function BenchPage({ view }: { view: 'worksheet' | 'code' | 'setup' }) {
  const { id = '' } = useParams();
  const client = useQueryClient();
  const query = useQuery({
    queryKey: ['job', id],
    queryFn: () => api.job(id),
    staleTime: Infinity,
    gcTime: 0,
    refetchInterval: (q) => (q.state.data?.job.status === 'reading' ? 700 : false),
  });
  const library = useQuery({ queryKey: ['library'], queryFn: api.library, staleTime: Infinity });
  const open = query.data;
  const plan = usePlan((s) => s.plan);
  const save = useAutosave(open);
  const { picture, produced, error, remote } = useProduced(open, library.data, plan);
  const { setupId: wanted, picking, pickSaid, pick } = usePick();
  const [motion, setMotion] = useState(true);
  const [keys, setKeys] = useState(false);
  const [fit, setFit] = useState(0);
  const [refused, setRefused] = useState<string | null>(null);
  const [notes, setNotes] = useState(true);

  useEffect(() => pick({ setupId: null, tag: null, hole: null, operation: null, line: null, hover: null, onFace: null, chosen: [], picking: null, pickSaid: null }), [id, pick]);
  useEffect(() => {
    if (open) document.title = `${open.job.name} · Yellow Pin`;
  }, [open]);

  const setup = plan?.setups.find((s) => s.id === wanted) ?? plan?.setups[0] ?? null;
  const rows = useMemo(() => produced?.job.rows ?? [], [produced]);
  const toggleMotion = useCallback(() => setMotion((m) => !m), []);
  const refit = useCallback(() => setFit((n) => n + 1), []);
  const toggleKeys = useCallback(() => setKeys((k) => !k), []);
  const setupIds = useMemo(() => plan?.setups.map((s) => s.id) ?? [], [plan]);
  useKeys({ jobId: id, view, rows, setupIds, toggleMotion, fit: refit, toggleList: toggleKeys });

  if (query.isError || library.isError) {
    const failure = query.error ?? library.error;
    return (
      <main className="page">
        <h1 style={{ fontSize: 20 }}>The job could not be opened.</h1>
        <p role="alert">{failure?.message}</p>
        <p style={{ display: 'flex', gap: 10 }}>
          <button className="plain-button" onClick={() => (void query.refetch(), void library.refetch())}>
            Try again
          </button>
          <Link className="plain-button" to="/">
            All jobs
          </Link>
        </p>
      </main>
    );
  }
  if (!open || !plan || !setup || !library.data) {
    return (
      <main className="page">
        <p role="status">{open && open.job.status !== 'ready' ? (open.job.error ?? `Reading ${open.job.name}: ${open.job.progressText}`) : 'Opening the job …'}</p>
        <Link to="/">All jobs</Link>
      </main>
    );
  }
  const derived = produced?.job.setups.find((s) => s.setup.id === setup.id) ?? null;
  const program = produced?.programs.find((p) => p.setup.setup.id === setup.id) ?? null;
  const checks = produced?.checks ?? [];
  const here = derived ?? (picture ? { setup, frame: setupFrames(plan.setups, picture.bounds)[plan.setups.indexOf(setup)]!, operations: [] } : null);
  const size = picture ? Math.max(...picture.bounds.max.map((v, i) => v - picture.bounds.min[i]!)) : 1;
  const labelled = rows.flatMap((r) => r.size.features.map((feature, i) => ({ label: `${r.tag}${i + 1}`, feature })));
  const onPlace = (face: number, point: Vec3): void => {
    if (!picking || !here) return;
    void remote.current?.look(face, point).then((look) => look && takeLook(picking, look, { setup, frame: here.frame, features: labelled, size }));
  };
  const makeEdges = async (edges: number[]): Promise<void> => {
    const run = await remote.current?.edgeRun(edges);
    if (run && run.length > 0)
      correct({
        kind: 'made',
        feature: { family: 'sharp-edge', axis: setup.attitude.up, edges, at: run.points[0]![0]!, length: run.length, side: 'outside', loop: run.closed ? 'closed' : 'open' },
      });
    pick({ picking: null, pickSaid: null });
  };
  const notesSeen = picture?.notes ?? open.notes;
  const material = library.data.materials.find((m) => m.id === plan.materialId)?.name ?? plan.materialId;
  const say = (mm: number) => formatLength(mm, plan.units, plan.units === 'mm' ? 2 : 3);
  return (
    <main className="bench">
      <div style={{ gridColumn: '1 / 3' }}>
        {(save.state === 'stale' || save.state === 'failed') && (
          <div className="notice error" role="alert">
            <span style={{ flex: 1 }}>{save.message}</span>
            {save.state === 'stale' && (
              <button className="plain-button" onClick={() => void client.invalidateQueries({ queryKey: ['job', id] })}>
                Load the newer plan
              </button>
            )}
          </div>
        )}
        {open.pending && (
          <div className="notice" role="status">
            <span style={{ flex: 1 }}>A newer file of this part waits: {open.pending.fileName}.</span>
            <Link className="plain-button" to={`/jobs/${id}/revision`}>
              Compare it
            </Link>
          </div>
        )}
        {error && (
          <div className="notice error" role="alert">
            {error}
          </div>
        )}
        {refused && (
          <div className="notice error" role="alert">
            <span style={{ flex: 1 }}>Not moved: {refused}</span>
            <button className="icon-button" aria-label="Close" onClick={() => setRefused(null)}>
              <X size={16} />
            </button>
          </div>
        )}
        <div className="bench-head">
          <Header id={id} name={open.job.name} plan={plan} job={produced?.job ?? null} save={save} setupId={setup.id} view={view} bounds={picture?.bounds ?? null} />
        </div>
      </div>
      {picture && here ? (
        <section aria-label="Part" style={{ position: 'relative', display: 'grid', minWidth: 0, minHeight: 0 }}>
          <PartView picture={picture} curves={produced?.curves ?? []} rows={rows} setup={here} program={program} showMotion={motion} fit={fit} onPlace={picking ? onPlace : null} />
          {picking && <PickBanner picking={picking} said={pickSaid} onEdges={makeEdges} />}
          <div className="part-tools">
            <button className="plain-button" onClick={refit} title="The whole part again (v)" aria-label="Show the whole part">
              <Maximize size={15} />
            </button>
            <button className={`plain-button${motion ? ' on' : ''}`} aria-pressed={motion} onClick={toggleMotion} title="Motion read from the code (m)">
              <Spline size={15} /> motion
            </button>
            <button className="plain-button" onClick={toggleKeys} aria-label="Keys" title="Keys (?)">
              <Keyboard size={15} />
            </button>
          </div>
          {notesSeen.length > 0 && notes && !picking && (
            <div
              style={{
                position: 'absolute',
                bottom: 30,
                left: 12,
                right: 12,
                fontSize: 12,
                display: 'flex',
                gap: 6,
                alignItems: 'start',
                maxHeight: 62,
                overflowY: 'auto',
                background: '#fbf9f4e6',
                padding: '3px 6px',
                borderRadius: 3,
              }}
              role="note"
            >
              <span style={{ flex: 1 }}>Seen in the part: {notesSeen.map((n) => n.message).join(' ')}</span>
              <button className="icon-button" style={{ padding: 0 }} aria-label="Close the notes" onClick={() => setNotes(false)}>
                <X size={14} />
              </button>
            </div>
          )}
          <div className="part-foot num">
            {picture.bounds.max.map((v, i) => say(v - picture.bounds.min[i]!)).join(' × ')} {plan.units === 'mm' ? 'mm' : 'in'} · {material} · zero:{' '}
            {zeroInWords(setup, (mm) => `${say(mm)} ${plan.units === 'mm' ? 'mm' : 'in'}`)} · {setup.workOffset}
          </div>
        </section>
      ) : (
        <div className="part-pane" style={{ display: 'grid', placeItems: 'center' }}>
          <p role="status">Drawing the part …</p>
        </div>
      )}
      {view === 'worksheet' &&
        (produced ? (
          <Worksheet jobId={id} rows={rows} plan={plan} checks={checks} frame={here?.frame ?? null} job={produced.job} />
        ) : (
          <section className="sheet" aria-label="Worksheet">
            <p className="quiet" style={{ padding: 16 }}>
              Working out the plan …
            </p>
          </section>
        ))}
      {view === 'code' && <CodePane program={program} plan={plan} checks={checks} />}
      {view === 'setup' && (
        <SetupForm
          jobId={id}
          plan={plan}
          setup={setup}
          frame={here?.frame ?? null}
          bounds={picture?.bounds ?? null}
          library={library.data}
          solids={picture?.solids ?? 1}
          drawing={open.drawing}
        />
      )}
      <ToolRail
        program={program}
        errors={checks.filter((c) => c.severity === 'error').length}
        warnings={checks.filter((c) => c.severity === 'warning').length}
        onRefused={setRefused}
      />
      {keys && <KeyList onClose={toggleKeys} />}
    </main>
  );
}
