import type { DataSource, EntityManager } from 'typeorm';
import type { Plan } from '@yellow-pin/core/plan/plan';
import { HttpError, notFound } from '../errors.ts';
import type { ImportQueue } from '../imports/queue.ts';
import { JobEntity, MAX_FILE_NAME, PartEntity, type PartRow } from './entity.ts';
import { findJob, lockJob, readAgain, savePlan, type NewJob } from './service.ts';

/** Stores a newer file of a ready job's part, waiting to be read. The job goes on with the part it has. */
export async function addRevision(
  database: DataSource,
  queue: ImportQueue,
  jobId: string,
  { fileName, step, fileHash = null }: NewJob,
): Promise<number> {
  const added = await database.transaction(async (tx) => {
    const job = await lockJob(tx, jobId);
    if (job.status !== 'ready')
      throw new HttpError(
        409,
        'not-ready',
        'The job’s own part is not read yet. Wait for it, then open the newer file.',
      );
    const parts = tx.getRepository(PartEntity);
    const [newest] = await parts.find({
      where: { jobId },
      order: { revision: 'DESC' },
      take: 1,
      select: { jobId: true, revision: true },
    });
    // One newer file at a time: a second takes the place of the first.
    await parts
      .createQueryBuilder()
      .update()
      .set({ status: 'discarded' })
      .where('job_id = :jobId AND revision > :current', { jobId, current: job.partRevision })
      .execute();
    const revision = (newest?.revision ?? 0) + 1;
    await parts.insert({
      jobId,
      revision,
      fileName: fileName.slice(0, MAX_FILE_NAME),
      step,
      fileHash,
      status: 'reading',
      progressText: 'waiting',
    });
    await queue.add(tx, { jobId, revision });
    return revision;
  });
  queue.wake();
  return added;
}

/** Reads a newer file once more, after reading it failed. */
export async function retryRevision(
  database: DataSource,
  queue: ImportQueue,
  jobId: string,
  revision: number,
): Promise<void> {
  await database.transaction(async (tx) => {
    await lockJob(tx, jobId);
    const part = await tx
      .getRepository(PartEntity)
      .findOne({ where: { jobId, revision }, select: { jobId: true, revision: true, status: true } });
    if (!part || part.status === 'discarded') throw notFound('revision');
    if (part.status !== 'failed')
      throw new HttpError(409, 'not-failed', 'This file is read, or is being read.');
    await readAgain(tx, queue, { jobId, revision });
  });
  queue.wake();
}

/** A revision as far as it is read. */
export async function readRevision(database: DataSource | EntityManager, jobId: string, revision: number) {
  const part = await database.getRepository(PartEntity).findOne({
    where: { jobId, revision },
    select: {
      jobId: true,
      revision: true,
      fileName: true,
      status: true,
      progress: true,
      progressText: true,
      error: true,
      features: true as never,
      notes: true as never,
      createdAt: true,
    },
  });
  if (!part || part.status === 'discarded') throw notFound('revision');
  const { fileName, status, progress, progressText, error, createdAt } = part;
  return {
    revision,
    fileName,
    status,
    progress,
    progressText,
    error,
    createdAt,
    features: part.features ?? [],
    notes: part.notes ?? [],
  };
}

/** The job goes on with a revision and the plan that was carried over to it. */
export async function acceptRevision(
  database: DataSource,
  jobId: string,
  revision: number,
  basePlan: number,
  plan: Plan,
): Promise<number> {
  // One transaction: a plan of the new part on the old one would point at features that are not there.
  return database.transaction(async (tx) => {
    await lockJob(tx, jobId);
    const part = await readRevision(tx, jobId, revision);
    if (part.status !== 'ready')
      throw new HttpError(409, 'not-ready', 'This revision is not read yet. Wait until it is compared.');
    const saved = await savePlan(tx, jobId, basePlan, plan);
    await tx
      .getRepository(JobEntity)
      .update({ id: jobId }, { partRevision: revision, fileName: part.fileName });
    return saved;
  });
}

/** The newer file is put aside; the job stays as it is. */
export async function discardRevision(database: DataSource, jobId: string, revision: number): Promise<void> {
  const job = await findJob(database, jobId);
  if (revision <= job.partRevision)
    throw new HttpError(409, 'in-use', 'The job works on this revision: open a newer one to leave it.');
  await database.getRepository(PartEntity).update({ jobId, revision }, { status: 'discarded' });
}

/** The revision that waits for the programmer's word, if any. */
export async function pendingRevision(
  database: DataSource,
  jobId: string,
  current: number,
): Promise<Pick<PartRow, 'revision' | 'fileName' | 'status'> | null> {
  const [part] = await database.getRepository(PartEntity).find({
    where: { jobId },
    order: { revision: 'DESC' },
    take: 1,
    select: { jobId: true, revision: true, fileName: true, status: true },
  });
  return part && part.revision > current && part.status !== 'discarded'
    ? { revision: part.revision, fileName: part.fileName, status: part.status }
    : null;
}
