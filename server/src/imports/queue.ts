import PgBoss from 'pg-boss';
import type { DataSource, EntityManager } from 'typeorm';
import type { Logger } from 'pino';
import { WARM_STEPS, type ReadPart, type ReadRequest } from '../work/read-request.ts';
import { WorkProcess } from '../work/work-process.ts';
import { dropClaim, MOST_ATTEMPTS, ownName, strandedImports, type ImportKey } from './claims.ts';
import { runImport } from './run-import.ts';
import { failImport } from './store.ts';

const QUEUE = 'import-part';
const SCHEMA = 'queue';
/** How often imports that nobody reads are looked for, ms. */
const RECONCILE = 10_000;

/** What the worker of this process does, for those who ask after its health. */
export type WorkerState = 'off' | 'idle' | 'reading' | 'stopped';

export interface ImportQueue {
  /** Asks for a part to be read, within the caller's transaction: both are stored, or neither. */
  add(tx: EntityManager, key: ImportKey): Promise<void>;
  /** Begins at once with what was asked for in a transaction that is done by now, in place of at the next look. */
  wake(): void;
  readonly worker: WorkerState;
  close(): Promise<void>;
}

export interface ImportLimits {
  /** Largest file, bytes. */
  sizeLimit: number;
  /** A read may take this long, s, and more for large files. */
  readSeconds: number;
  /** Memory of the process that reads, MB. */
  readMemoryMb: number;
}

/**
 * Part imports as queued work in PostgreSQL; `work` also runs them here, one at a time, and takes up those cut off. `warm`: the process that
 * reads them is made quick while nobody waits.
 */
export async function openImportQueue(
  databaseUrl: string,
  database: DataSource,
  log: Logger,
  { work, warm = false, ...limits }: { work: boolean; warm?: boolean } & ImportLimits,
): Promise<ImportQueue> {
  const boss = new PgBoss({ connectionString: databaseUrl, schema: SCHEMA });
  boss.on('error', (error) => log.error({ err: error }, 'queue'));
  await boss.start();
  await boss.createQueue(QUEUE);
  const reader = new WorkProcess<ReadRequest, ReadPart | null>(
    new URL('../work/read-work.ts', import.meta.url),
    {
      heapMb: Math.round(0.75 * limits.readMemoryMb),
      memoryMb: limits.readMemoryMb,
      idleMb: Math.round(0.3 * limits.readMemoryMb),
    },
  );
  const closing = new AbortController();
  let reading = 0;
  const send = async (key: ImportKey, tx?: EntityManager): Promise<void> =>
    void (await boss.send(
      QUEUE,
      { ...key },
      // Cut off, it is taken up by its claim, not by the queue's own clock.
      { retryLimit: 0, expireInHours: 23, ...(tx ? { db: { executeSql: within(tx) } } : {}) },
    ));
  const me = ownName();
  const parts = { database, reader, log, me, closing: closing.signal, again: send, ...limits };

  const reconcile = async (): Promise<void> => {
    for (const found of await strandedImports(database, `${SCHEMA}.job`, QUEUE)) {
      if (found.attempts >= MOST_ATTEMPTS) {
        await failImport(
          database,
          found,
          null,
          `Reading was cut off ${found.attempts} times, with the whole server. Read it again; if it happens again, export the part anew.`,
        );
        continue;
      }
      log.info({ jobId: found.jobId, revision: found.revision }, 'an import that was cut off is taken up');
      await dropClaim(database, found);
      await send(found);
    }
  };
  let timer: ReturnType<typeof setInterval> | null = null;
  const warmUp = async (): Promise<void> => {
    // Step by step, so that a part that comes in between waits for one of them at the most.
    for (let step = 0; step < (warm ? WARM_STEPS : 1) && reading === 0 && !closing.signal.aborted; step++) {
      await reader.run({ kind: 'warm', step }, { seconds: limits.readSeconds });
      // Given little memory it ends after each request, and nothing is kept ready.
      if (reader.pid === null) return;
    }
  };
  let worker: string | null = null;
  if (work) {
    warmUp().catch((error: unknown) => log.warn({ err: error }, 'the reader could not be warmed up'));
    await reconcile();
    timer = setInterval(() => {
      reconcile().catch((error: unknown) => log.warn({ err: error }, 'imports could not be looked through'));
    }, RECONCILE);
    worker = await boss.work<ImportKey>(
      QUEUE,
      { batchSize: 1, pollingIntervalSeconds: 0.5 },
      async (batch) => {
        reading++;
        try {
          for (const { data } of batch)
            await runImport(parts, { jobId: data.jobId, revision: data.revision ?? 1 });
        } finally {
          reading--;
        }
      },
    );
  }
  return {
    add: (tx, key) => send(key, tx),
    wake: () => {
      if (worker !== null && !closing.signal.aborted) boss.notifyWorker(worker);
    },
    get worker() {
      return !work ? 'off' : closing.signal.aborted ? 'stopped' : reading > 0 ? 'reading' : 'idle';
    },
    close: async () => {
      closing.abort();
      if (timer) clearInterval(timer);
      // First the reader: what it reads is let go, not failed. Then the queue, which waits for that.
      await reader.close();
      await boss.stop({ graceful: true, timeout: 5000, wait: true });
    },
  };
}

/** pg-boss's statements run by the transaction that the caller has open. */
const within =
  (tx: EntityManager) =>
  async (text: string, values: unknown[]): Promise<{ rows: unknown[] }> => ({
    rows: (await tx.query(text, values)) as unknown[],
  });
