import { useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { api, type ListedJob } from '../api.ts';
import { toaster } from '../kit/toaster.tsx';

export interface JobActions {
  /** The job whose name is being typed. */
  renaming: string | null;
  startRename(id: string | null): void;
  /** Takes a name; gives why it cannot be, or null. */
  rename(job: ListedJob, name: string): string | null;
  copy(job: ListedJob): void;
  cancel(job: ListedJob): void;
  remove(job: ListedJob): void;
  restore(job: ListedJob): void;
  purge(job: ListedJob): void;
}

/** What is done with jobs in the list; each says what was done, and the way back where there is one. */
export function useJobActions(onProblem: (message: string) => void): JobActions {
  const client = useQueryClient();
  const [renaming, startRename] = useState<string | null>(null);
  return useMemo(() => {
    const run = (work: Promise<unknown>, done?: () => void): void =>
      void work.then(
        () => {
          done?.();
          void client.invalidateQueries({ queryKey: ['jobs'] });
        },
        (e: Error) => onProblem(e.message),
      );
    const restore = (job: Pick<ListedJob, 'id'>): void => run(api.restore(job.id));
    const short = (job: ListedJob): string => job.name.slice(0, 60);
    return {
      renaming,
      startRename,
      rename: (job, text) => {
        const name = text.trim();
        if (name === '') return 'A name is needed.';
        run(api.rename(job.id, name));
        return null;
      },
      copy: (job) =>
        run(api.copy(job.id), () => toaster.create({ description: `${short(job)} is there a second time.` })),
      cancel: (job) => run(api.cancel(job.id)),
      remove: (job) =>
        run(api.remove(job.id), () =>
          toaster.create({
            description: `${short(job)} is in the bin.`,
            duration: 10_000,
            action: { label: 'Undo', onClick: () => restore(job) },
          }),
        ),
      restore,
      purge: (job) => run(api.purge(job.id)),
    };
  }, [client, onProblem, renaming]);
}
