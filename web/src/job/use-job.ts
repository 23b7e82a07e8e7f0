import { useQueryClient } from '@tanstack/react-query';
import * as Comlink from 'comlink';
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import type { Library } from '@yellow-pin/core/plan/library';
import { mergePlans, type Conflict } from '@yellow-pin/core/plan/merge';
import type { Plan } from '@yellow-pin/core/plan/plan';
import { api, ApiError, type OpenJob } from '../api.ts';
import type { JobWorker, PartPicture, PlanSource } from '../workers/job.worker.ts';
import type { ScreenStep } from '../workers/produce-steps.ts';
import { withStep, type Produced } from './produced.ts';
import { Autosave, dropDraft, readDraft, type DraftStore, type SaveState } from './autosave.ts';
import { keepSteps, keptSteps, samePlan } from './kept-undo.ts';
import { loadPlan, stepsOf, takeSteps, usePlan } from './store.ts';

function startWorker(): { worker: Worker; remote: Comlink.Remote<JobWorker> } {
  const worker = new Worker(new URL('../workers/job.worker.ts', import.meta.url), { type: 'module' });
  return { worker, remote: Comlink.wrap<JobWorker>(worker) };
}

/** The part's picture and what follows from the plan, both worked out beside the page. */
export function useProduced(
  open: OpenJob | undefined,
  library: Library | undefined,
  plan: Plan | null,
): {
  picture: PartPicture | null;
  produced: Produced | null;
  error: string | null;
  remote: RefObject<Comlink.Remote<JobWorker> | null>;
} {
  const [picture, setPicture] = useState<PartPicture | null>(null);
  const [produced, setProduced] = useState<Produced | null>(null);
  const [error, setError] = useState<string | null>(null);
  const remote = useRef<Comlink.Remote<JobWorker> | null>(null);
  // What the worker has by now.
  const given = useRef<(PlanSource & { to: Comlink.Remote<JobWorker> }) | null>(null);
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
    const opened =
      drawing && depths ? started.remote.openDrawing(drawing, depths) : started.remote.open(id, solid);
    opened.then(setPicture, (e: Error) => setError(e.message));
    return () => started.worker.terminate();
  }, [id, solid, hasPlan, drawing, depths]);

  useEffect(() => {
    if (!picture || !open || !library || !plan || !remote.current) return;
    let current = true;
    const tell = (step: ScreenStep): void => {
      if (!current) return;
      setProduced((known) => withStep(known, step, plan));
      setError(null);
    };
    const { features, job } = open;
    const known = given.current;
    const isGiven =
      known?.to === remote.current &&
      known.features === features &&
      known.library === library &&
      known.name === job.name;
    if (!isGiven) given.current = { to: remote.current, features, library, name: job.name };
    remote.current
      .produce(plan, isGiven ? null : { features, library, name: job.name }, Comlink.proxy(tell))
      .catch((e: Error) => current && setError(e.message));
    return () => {
      current = false;
    };
  }, [picture, open, library, plan]);

  return { picture, produced, error, remote };
}

const DRAFTS: DraftStore = window.localStorage;
/** Of this tab alone, and over its reloads. */
const STEPS: DraftStore = window.sessionStorage;

/** The open job's saving, which outlives its screen: what was typed last is stored also when one goes elsewhere at once. */
let autosave: { id: string; saver: Autosave } | null = null;

/** Stores the plan now if it is not stored yet, and waits for a save that is under way. */
export const flushPlan = async (): Promise<void> => void (await autosave?.saver.flush());

/** The revision that the server has a plan as; null where it has another, or not yet this one. */
export function storedRevision(id: string, plan: Plan): number | null {
  if (autosave?.id !== id) return null;
  const { plan: stored, revision } = autosave.saver.onServer;
  return stored === plan ? revision : null;
}

export interface Saving {
  save: SaveState;
  /** An earlier edit that never reached the server, whose plan is newer by now. */
  draft: Plan | null;
  takeDraft(): void;
  dropDraft(): void;
  again(): void;
  /** Where somebody else saved meanwhile: what theirs and mine come to; null while that is looked at, or where nobody did. */
  elsewhere: Elsewhere | null;
}

/** A plan that was saved elsewhere while this one was changed here. */
export interface Elsewhere {
  /** Rows and other places that both have changed; where there are none, both can be kept. */
  conflicts: readonly Conflict[];
  take(which: 'theirs' | 'mine' | 'both'): void;
}

/** Saves the plan as one goes, and takes in what an earlier visit could not store. */
export function useAutosave(open: OpenJob | undefined): Saving {
  const plan = usePlan((s) => s.plan);
  const [save, setSave] = useState<SaveState>({ state: 'saved' });
  const [draft, setDraft] = useState<Plan | null>(null);
  /** What somebody else saved while this plan was changed here. */
  const [theirs, setTheirs] = useState<OpenJob | null>(null);
  /** What is put on top of the newer plan as soon as that is loaded. */
  const onTop = useRef<Plan | 'nothing' | null>(null);
  const client = useQueryClient();

  const id = open?.job.id;
  const isStale = save.state === 'stale';
  useEffect(() => {
    setTheirs(null);
    if (!isStale || id === undefined) return;
    let current = true;
    void api.job(id).then(
      (newer) => current && setTheirs(newer),
      // The notice offers to load it, which asks once more.
      () => undefined,
    );
    return () => {
      current = false;
    };
  }, [isStale, id]);
  // Worked out from the plan as it is now: whoever goes on typing loses nothing of it.
  const elsewhere = useMemo((): Elsewhere | null => {
    const base = id !== undefined && autosave?.id === id ? autosave.saver.onServer.plan : null;
    if (id === undefined || !theirs?.plan || !plan || !base) return null;
    const both = mergePlans(base, plan, theirs.plan);
    return {
      conflicts: both.conflicts,
      take: (which) => {
        onTop.current = which === 'theirs' ? 'nothing' : which === 'mine' ? plan : both.plan;
        if (which === 'theirs') dropDraft(DRAFTS, id);
        client.setQueryData(['job', id], theirs);
      },
    };
  }, [id, theirs, plan, client]);

  useEffect(() => {
    if (!open?.plan) return;
    const { id } = open.job;
    // A fresh answer for the same job must not take back what is typed and not stored yet.
    const { saver } = autosave?.id === id ? autosave : { saver: null };
    if (saver?.hasUnsaved && !saver.isStale && usePlan.getState().plan) return;
    const kept = readDraft(DRAFTS, id, open.revision);
    autosave = {
      id,
      saver: new Autosave({
        id,
        revision: open.revision,
        plan: open.plan,
        save: api.savePlan,
        failureOf,
        drafts: DRAFTS,
        onState: setSave,
      }),
    };
    loadPlan(open.plan);
    setSave({ state: 'saved' });
    const top = onTop.current;
    onTop.current = null;
    if (top !== null) {
      setDraft(null);
      if (top !== 'nothing') usePlan.getState().setPlan(top);
      return;
    }
    // What was stored just when the page was left is no edit that was lost.
    const isLost = kept !== null && !kept.fits && !samePlan(kept.plan, open.plan);
    if (kept && !kept.fits && !isLost) dropDraft(DRAFTS, id);
    setDraft(isLost ? kept.plan : null);
    // It stands on what the server has: it is as if it had just been typed, and can be undone.
    if (kept?.fits) usePlan.getState().setPlan(kept.plan);
    const current = usePlan.getState().plan;
    const steps = current && keptSteps(STEPS, id, current);
    if (steps) takeSteps(steps);
  }, [open]);

  useEffect(() => {
    if (!id) return;
    const keep = (): void => {
      const current = usePlan.getState().plan;
      if (current) keepSteps(STEPS, id, current, stepsOf());
    };
    window.addEventListener('pagehide', keep);
    return () => {
      keep();
      window.removeEventListener('pagehide', keep);
    };
  }, [id]);

  useEffect(() => {
    if (plan && open && autosave?.id === open.job.id) autosave.saver.change(plan);
  }, [plan, open]);

  useEffect(() => {
    const online = (): void => autosave?.saver.again();
    window.addEventListener('online', online);
    return () => {
      window.removeEventListener('online', online);
      void flushPlan();
    };
  }, []);

  useEffect(() => {
    if (save.state === 'saved') return;
    const warn = (e: BeforeUnloadEvent) => e.preventDefault();
    window.addEventListener('beforeunload', warn);
    return () => window.removeEventListener('beforeunload', warn);
  }, [save.state]);

  const forget = (): void => {
    if (open) dropDraft(DRAFTS, open.job.id);
    setDraft(null);
  };
  return {
    save,
    draft,
    takeDraft: () => {
      if (draft) usePlan.getState().setPlan(draft);
      setDraft(null);
    },
    dropDraft: forget,
    again: () => autosave?.saver.again(),
    elsewhere,
  };
}

function failureOf(error: unknown): 'stale' | 'refused' | 'away' {
  if (!(error instanceof ApiError)) return 'away';
  if (error.code === 'stale') return 'stale';
  return error.status >= 400 && error.status < 500 ? 'refused' : 'away';
}
