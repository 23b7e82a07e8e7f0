import * as Comlink from 'comlink';
import { useEffect, useRef, useState, type RefObject } from 'react';
import type { Library } from '@yellow-pin/core/job/library';
import type { Plan } from '@yellow-pin/core/job/plan';
import { api, ApiError, type OpenJob } from '../api.ts';
import type { JobWorker, PartPicture, Produced } from '../workers/job.worker.ts';
import { loadPlan, usePlan } from './store.ts';

function startWorker(): { worker: Worker; remote: Comlink.Remote<JobWorker> } {
  const worker = new Worker(new URL('../workers/job.worker.ts', import.meta.url), { type: 'module' });
  return { worker, remote: Comlink.wrap<JobWorker>(worker) };
}

/** The part's picture and what follows from the plan, both worked out beside the page. */
export function useProduced(
  open: OpenJob | undefined,
  library: Library | undefined,
  plan: Plan | null,
): { picture: PartPicture | null; produced: Produced | null; error: string | null; remote: RefObject<Comlink.Remote<JobWorker> | null> } {
  const [picture, setPicture] = useState<PartPicture | null>(null);
  const [produced, setProduced] = useState<Produced | null>(null);
  const [error, setError] = useState<string | null>(null);
  const remote = useRef<Comlink.Remote<JobWorker> | null>(null);
  const id = open?.job.status === 'ready' ? open.job.id : null;
  const solid = plan?.solid ?? null;
  const hasPlan = plan !== null;
  const drawing = open?.drawing ?? null;
  const depths = plan?.drawing ?? null;

  useEffect(() => {
    if (!id || !hasPlan) return;
    const started = startWorker();
    remote.current = started.remote;
    if (!drawing) {
      setPicture(null);
      setProduced(null);
    }
    const opened = drawing && depths ? started.remote.openDrawing(drawing, depths) : started.remote.open(id, solid);
    opened.then(setPicture, (e: Error) => setError(e.message));
    return () => started.worker.terminate();
  }, [id, solid, hasPlan, drawing, depths]);

  useEffect(() => {
    if (!picture || !open || !library || !plan || !remote.current) return;
    let current = true;
    remote.current.produce({ features: open.features, plan, library, name: open.job.name }).then(
      (p) => {
        if (!current) return;
        setProduced(p);
        setError(null);
      },
      (e: Error) => current && setError(e.message),
    );
    return () => {
      current = false;
    };
  }, [picture, open, library, plan]);

  return { picture, produced, error, remote };
}

export type SaveState = { state: 'saved' | 'saving' | 'unsaved' } | { state: 'stale' | 'failed'; message: string };

const SAVE_AFTER = 500;

/** The save that waits for its moment, if any. */
let pending: (() => Promise<void>) | null = null;

/** Stores the plan now if it is not stored yet. */
export const flushPlan = async (): Promise<void> => void (await pending?.());

/** Saves the plan as one goes. A plan saved elsewhere meanwhile is never overwritten: that is said, and saving stops. */
export function useAutosave(open: OpenJob | undefined): SaveState {
  const plan = usePlan((s) => s.plan);
  const [save, setSave] = useState<SaveState>({ state: 'saved' });
  const base = useRef<{ id: string; revision: number; plan: Plan | null } | null>(null);
  const busy = useRef(false);

  useEffect(() => {
    if (!open?.plan) return;
    base.current = { id: open.job.id, revision: open.revision, plan: open.plan };
    loadPlan(open.plan);
    setSave({ state: 'saved' });
  }, [open]);

  useEffect(() => {
    const b = base.current;
    if (!plan || !b || plan === b.plan || save.state === 'stale') return;
    if (save.state === 'saved') setSave({ state: 'unsaved' });
    const store = async (): Promise<void> => {
      pending = null;
      if (busy.current || plan === b.plan) return;
      busy.current = true;
      setSave({ state: 'saving' });
      try {
        b.revision = await api.savePlan(b.id, b.revision, plan);
        b.plan = plan;
        setSave({ state: usePlan.getState().plan === plan ? 'saved' : 'unsaved' });
      } catch (e) {
        setSave({ state: e instanceof ApiError && e.code === 'stale' ? 'stale' : 'failed', message: (e as Error).message });
      } finally {
        busy.current = false;
      }
    };
    pending = store;
    const timer = setTimeout(() => void store(), SAVE_AFTER);
    return () => clearTimeout(timer);
  }, [plan, save.state]);

  // What was typed last is stored also when one goes to another page at once.
  useEffect(() => () => void flushPlan(), []);

  useEffect(() => {
    if (save.state === 'saved') return;
    const warn = (e: BeforeUnloadEvent) => e.preventDefault();
    window.addEventListener('beforeunload', warn);
    return () => window.removeEventListener('beforeunload', warn);
  }, [save.state]);

  return save;
}
