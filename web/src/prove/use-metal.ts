import * as Comlink from 'comlink';
import { useEffect } from 'react';
import { useJob } from '../job/job-view.ts';
import type { MetalStep } from '../workers/metal-steps.ts';
import { useMetal } from './play-store.ts';

/** Takes the metal off beside the page as soon as a plan is read back, and again when the tolerance changes. */
export function useMetalProof(): void {
  const { produced, remote } = useJob();
  const tolerance = useMetal((s) => s.tolerance);
  const read = produced?.checks ?? null;
  useEffect(() => {
    const { set } = useMetal.getState();
    if (!read) {
      set({ of: null, done: null, proof: null, checks: null });
      return;
    }
    let isCurrent = true;
    set({ of: read, done: 0, proof: null, checks: null });
    const tell = (step: MetalStep): void => {
      if (!isCurrent) return;
      if (step.step === 'progress') set({ done: step.done });
      else set({ done: null, proof: step.proof, checks: step.checks });
    };
    remote.current?.metal(tolerance, Comlink.proxy(tell)).catch(() => {
      // A worker that fell over says so by its job; nothing is known of the metal then.
      if (isCurrent) set({ done: null });
    });
    return () => {
      isCurrent = false;
    };
  }, [read, tolerance, remote]);
}
