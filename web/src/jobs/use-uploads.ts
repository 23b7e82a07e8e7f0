import { useCallback, useState } from 'react';
import { api, type UploadedJob } from '../api.ts';

/** One file on its way to become a job. */
export interface Upload {
  key: number;
  file: File;
  /** Share of it that is sent, 0 to 1. */
  sent: number;
  error: string | null;
  /** What it became; its reading is followed in the list. */
  job: UploadedJob | null;
  cancel(): void;
}

/** Files sent at once: the server takes few at a time, and the others would only wait there. */
const AT_ONCE = 3;

let nextKey = 1;
let running = 0;
const waiting: (() => void)[] = [];

/** Sends files, several at once with the rest in line, each with its progress; each can be cancelled and tried again. */
export function useUploads(onJob: (job: UploadedJob, all: number) => void) {
  const [uploads, setUploads] = useState<readonly Upload[]>([]);
  const change = useCallback(
    (key: number, part: Partial<Upload>) =>
      setUploads((list) => list.map((u) => (u.key === key ? { ...u, ...part } : u))),
    [],
  );
  const start = useCallback(
    (files: readonly File[]) => {
      for (const file of files) {
        const key = nextKey++;
        const abort = new AbortController();
        setUploads((list) => [
          ...list,
          { key, file, sent: 0, error: null, job: null, cancel: () => abort.abort() },
        ]);
        const send = async (): Promise<void> => {
          running++;
          try {
            if (abort.signal.aborted) throw new Error('Sending was cancelled.');
            const job = await api.uploadWith(file, (sent) => change(key, { sent }), abort.signal);
            change(key, { sent: 1, job });
            onJob(job, files.length);
          } catch (e) {
            change(key, { error: (e as Error).message });
          } finally {
            running--;
            waiting.shift()?.();
          }
        };
        if (running < AT_ONCE) void send();
        else waiting.push(() => void send());
      }
    },
    [change, onJob],
  );
  const forget = useCallback((key: number) => setUploads((list) => list.filter((u) => u.key !== key)), []);
  return { uploads, start, forget };
}
