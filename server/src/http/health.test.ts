import type { DataSource } from 'typeorm';
import { describe, expect, it } from 'vitest';
import type { ImportQueue, WorkerState } from '../imports/queue.ts';
import { readHealth } from './health.ts';

const database = (query: () => Promise<unknown>) => ({ query }) as unknown as DataSource;
const queue = (worker: WorkerState) => ({ worker }) as ImportQueue;
const up = database(() => Promise.resolve([{ n: 2 }]));

describe('health', () => {
  it('says what is there', async () => {
    expect(await readHealth(up, queue('reading'))).toEqual({
      ok: true,
      database: 'up',
      worker: 'reading',
      reading: 2,
    });
  });

  it.each([
    ['refuses', () => Promise.reject(new Error('connect ECONNREFUSED'))],
    ['does not answer', () => new Promise<never>(() => undefined)],
  ])('says that the database is down where it %s', async (_, query) => {
    expect(await readHealth(database(query), queue('idle'))).toEqual({
      ok: false,
      database: 'down',
      worker: 'idle',
      reading: null,
    });
  });

  it('is not well without its worker, and well where another process has it', async () => {
    expect((await readHealth(up, queue('stopped'))).ok).toBe(false);
    expect((await readHealth(up, queue('off'))).ok).toBe(true);
  });
});
