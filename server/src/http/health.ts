import type { DataSource } from 'typeorm';
import type { ImportQueue, WorkerState } from '../imports/queue.ts';

export interface Health {
  /** All that is needed is there. */
  ok: boolean;
  database: 'up' | 'down';
  worker: WorkerState;
  /** Parts that wait or are read; null while the database is away. */
  reading: number | null;
}

/** Longer than this the database does not answer, ms. */
const PATIENCE = 2000;

/** What is true just now of the server and what it needs. */
export async function readHealth(database: DataSource, queue: ImportQueue): Promise<Health> {
  let reading: number | null = null;
  try {
    const asked = database.query(`SELECT count(*)::int AS n FROM parts WHERE status = 'reading'`);
    const late = new Promise<never>((_, reject) => {
      setTimeout(() => reject(new Error('the database is slow')), PATIENCE).unref();
    });
    asked.catch(() => undefined);
    reading = ((await Promise.race([asked, late])) as { n: number }[])[0]!.n;
  } catch {
    // It stays null: down.
  }
  const state = reading === null ? 'down' : 'up';
  return { ok: state === 'up' && queue.worker !== 'stopped', database: state, worker: queue.worker, reading };
}
