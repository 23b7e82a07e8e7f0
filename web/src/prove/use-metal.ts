import * as Comlink from 'comlink';
import { useEffect, useRef, type RefObject } from 'react';
import { useShallow } from 'zustand/react/shallow';
import type { Check } from '@yellow-pin/core/proof/checks/check';
import type { Produced } from '../job/produced.ts';
import type { JobWorker } from '../workers/job.worker.ts';
import type { MetalStep } from '../workers/metal-steps.ts';
import { useMetal } from './play-store.ts';

/** What the metal says of what is read back now: nothing yet, all of it, or that it could not be taken off. */
export type MetalWord = 'under way' | 'known' | 'unknown';

/** How long a text must stand before its metal is taken off where nobody looks at it, ms: not between two keys. */
const REST = 1200;

/**
 * Takes the metal off beside the page as soon as a plan is read back, and again when the tolerance changes. Gives what text and metal say
 * together; `null` as long as that is not known.
 */
export function useMetalProof(
  produced: Produced | null,
  remote: RefObject<Comlink.Remote<JobWorker> | null>,
  isLookedAt: boolean,
): { checks: readonly Check[] | null; metal: MetalWord } {
  const tolerance = useMetal((s) => s.tolerance);
  const told = useMetal(useShallow(({ of, asked, checks }) => ({ of, asked, checks })));
  const read = produced?.checks ?? null;
  const looked = useRef(isLookedAt);
  useEffect(() => void (looked.current = isLookedAt));
  useEffect(() => {
    const { of, asked, set } = useMetal.getState();
    if (!read || (of === read && asked === tolerance)) return;
    let isCurrent = true;
    const end = { of: read, asked: tolerance, done: null };
    const tell = (step: MetalStep): void => {
      if (!isCurrent) return;
      if (step.step === 'progress') set({ done: step.done });
      else set({ ...end, proof: step.proof, checks: step.checks });
    };
    set({ of: null, done: 0, proof: null, checks: null });
    remote.current?.metal(tolerance, looked.current ? 0 : REST, Comlink.proxy(tell)).catch(() => {
      if (isCurrent) set({ ...end, proof: null, checks: null });
    });
    return () => {
      isCurrent = false;
    };
  }, [read, tolerance, remote]);
  if (!read || told.of !== read || told.asked !== tolerance) return { checks: null, metal: 'under way' };
  return told.checks ? { checks: told.checks, metal: 'known' } : { checks: null, metal: 'unknown' };
}
