import * as Comlink from 'comlink';
import { useEffect, useState } from 'react';
import type { Library } from '@yellow-pin/core/plan/library';
import type { Plan } from '@yellow-pin/core/plan/plan';
import type { PartRevision } from '../api.ts';
import { withStep, type Produced } from '../job/produced.ts';
import type { JobWorker, PartPicture } from '../workers/job.worker.ts';
import type { ScreenStep } from '../workers/produce-steps.ts';

/** The newer part's picture with the plan carried over to it. */
export function useRevisionPicture(id: string, part: PartRevision, plan: Plan, library: Library | undefined) {
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
    const tell = (step: ScreenStep): void => {
      if (current) setProduced((known) => withStep(known, step, plan));
    };
    remote
      .produce(plan, { features: part.features, library, name: 'newer' }, Comlink.proxy(tell))
      .catch((e: Error) => current && setError(e.message));
    return () => {
      current = false;
    };
  }, [remote, library, plan, part]);
  return { picture, produced, error };
}
