import PgBoss from 'pg-boss';
import type { DataSource } from 'typeorm';
import type { Logger } from 'pino';
import { JobEntity, PartEntity } from '../jobs/entity.ts';
import { finishRevision } from '../jobs/revisions.ts';
import { firstPlan, finishImport } from '../jobs/service.ts';
import { KernelThread, ReadCancelled, ReadFailed } from './kernel-pool.ts';

const QUEUE = 'import-part';
/** How often a running import looks whether it was cancelled, ms. */
const CANCEL_POLL = 400;

export interface ImportQueue {
  /** `sample`: one of the shop's own sample parts, which starts with what its print says. */
  add(jobId: string, options?: { sample?: boolean; revision?: number }): Promise<void>;
  close(): Promise<void>;
}

/** Part imports as queued work in PostgreSQL; `work` also runs them in this process, one at a time. */
export async function openImportQueue(databaseUrl: string, database: DataSource, log: Logger, { work, sizeLimit }: { work: boolean; sizeLimit: number }): Promise<ImportQueue> {
  const boss = new PgBoss({ connectionString: databaseUrl, schema: 'queue' });
  boss.on('error', (error) => log.error({ error }, 'queue'));
  await boss.start();
  await boss.createQueue(QUEUE);
  const thread = new KernelThread();
  if (work) {
    await boss.work<{ jobId: string; sample: boolean; revision?: number }>(QUEUE, { batchSize: 1, pollingIntervalSeconds: 0.5 }, async (batch) => {
      for (const { data } of batch) {
        if ((data.revision ?? 1) > 1) await runRevision(data.jobId, data.revision!, database, thread, sizeLimit, log);
        else await runImport(data.jobId, data.sample, database, thread, sizeLimit, log);
      }
    });
  }
  return {
    add: async (jobId, { sample = false, revision = 1 } = {}) => void (await boss.send(QUEUE, { jobId, sample, revision }, { retryLimit: 1, expireInMinutes: 30 })),
    close: async () => {
      await boss.stop({ graceful: false, wait: true });
      await thread.close();
    },
  };
}

async function runImport(jobId: string, sample: boolean, database: DataSource, thread: KernelThread, sizeLimit: number, log: Logger): Promise<void> {
  const jobs = database.getRepository(JobEntity);
  const part = await database.getRepository(PartEntity).findOneBy({ jobId, revision: 1 });
  const job = await jobs.findOneBy({ id: jobId });
  if (!part || job?.status !== 'reading') return;
  const cancel = new AbortController();
  const poll = setInterval(() => {
    void jobs.findOneBy({ id: jobId }).then(
      (j) => (j?.status === 'reading' ? undefined : cancel.abort()),
      () => undefined,
    );
  }, CANCEL_POLL);
  try {
    const read = await thread.read(
      { step: new Uint8Array(part.step), fileName: part.fileName, sizeLimit },
      (progress, progressText) => void jobs.update({ id: jobId, status: 'reading' }, { progress, progressText }),
      cancel.signal,
    );
    await finishImport(database, jobId, read, await firstPlan(database, job, read, sample));
  } catch (error) {
    if (error instanceof ReadCancelled) return;
    const message = error instanceof ReadFailed ? error.message : 'The part was read but could not be stored. Try again.';
    if (!(error instanceof ReadFailed)) log.error({ error, jobId }, 'import failed');
    await jobs.update({ id: jobId, status: 'reading' }, { status: 'failed', error: message, progress: 0, progressText: '' });
  } finally {
    clearInterval(poll);
  }
}

/** Reads a newer file of a job's part; its own row says how far it is. */
async function runRevision(jobId: string, revision: number, database: DataSource, thread: KernelThread, sizeLimit: number, log: Logger): Promise<void> {
  const parts = database.getRepository(PartEntity);
  const part = await parts.findOneBy({ jobId, revision });
  if (part?.status !== 'reading') return;
  const cancel = new AbortController();
  const poll = setInterval(() => {
    void parts.findOne({ where: { jobId, revision }, select: { jobId: true, revision: true, status: true } }).then(
      (p) => (p?.status === 'reading' ? undefined : cancel.abort()),
      () => undefined,
    );
  }, CANCEL_POLL);
  try {
    const read = await thread.read(
      { step: new Uint8Array(part.step), fileName: part.fileName, sizeLimit },
      (progress, progressText) => void parts.update({ jobId, revision, status: 'reading' }, { progress, progressText }),
      cancel.signal,
    );
    await finishRevision(database, jobId, revision, read);
  } catch (error) {
    if (error instanceof ReadCancelled) return;
    const message = error instanceof ReadFailed ? error.message : 'The part was read but could not be stored. Try again.';
    if (!(error instanceof ReadFailed)) log.error({ error, jobId, revision }, 'import of a revision failed');
    await parts.update({ jobId, revision, status: 'reading' }, { status: 'failed', error: message, progress: 0, progressText: '' });
  } finally {
    clearInterval(poll);
  }
}
