import type { DataSource } from 'typeorm';
import type { Plan } from '@yellow-pin/core/job/plan';
import { HttpError, notFound } from '../errors.ts';
import type { ReadPart } from '../queue/kernel-pool.ts';
import { JobEntity, PartEntity, type PartRow } from './entity.ts';
import { findJob, RECOGNISER, savePlan } from './service.ts';

/** Stores a newer file of a ready job's part, waiting to be read. The job goes on with the part it has. */
export async function addRevision(database: DataSource, jobId: string, fileName: string, step: Buffer): Promise<number> {
  return database.transaction(async (tx) => {
    const job = await tx.getRepository(JobEntity).findOne({ where: { id: jobId }, lock: { mode: 'pessimistic_write' } });
    if (!job) throw notFound('job');
    if (job.status !== 'ready') throw new HttpError(409, 'not-ready', 'The job’s own part is not read yet. Wait for it, then open the newer file.');
    const parts = tx.getRepository(PartEntity);
    const [newest] = await parts.find({ where: { jobId }, order: { revision: 'DESC' }, take: 1, select: { jobId: true, revision: true } });
    // One newer file at a time: a second takes the place of the first.
    await parts.createQueryBuilder().update().set({ status: 'discarded' }).where('job_id = :jobId AND revision > :current', { jobId, current: job.partRevision }).execute();
    const revision = (newest?.revision ?? 0) + 1;
    await parts.insert({ jobId, revision, fileName: fileName.slice(0, 255), step, status: 'reading', progressText: 'waiting' });
    return revision;
  });
}

/** A revision as far as it is read. */
export async function readRevision(database: DataSource, jobId: string, revision: number) {
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
  return { revision, fileName, status, progress, progressText, error, createdAt, features: part.features ?? [], notes: part.notes ?? [] };
}

/** The job goes on with a revision and the plan that was carried over to it. */
export async function acceptRevision(database: DataSource, jobId: string, revision: number, basePlan: number, plan: Plan): Promise<number> {
  const part = await readRevision(database, jobId, revision);
  if (part.status !== 'ready') throw new HttpError(409, 'not-ready', 'This revision is not read yet. Wait until it is compared.');
  const saved = await savePlan(database, jobId, basePlan, plan);
  await database.getRepository(JobEntity).update({ id: jobId }, { partRevision: revision, fileName: part.fileName });
  return saved;
}

/** The newer file is put aside; the job stays as it is. */
export async function discardRevision(database: DataSource, jobId: string, revision: number): Promise<void> {
  const job = await findJob(database, jobId);
  if (revision <= job.partRevision) throw new HttpError(409, 'in-use', 'The job works on this revision: open a newer one to leave it.');
  await database.getRepository(PartEntity).update({ jobId, revision }, { status: 'discarded' });
}

/** Stores what was read of a revision, unless it was discarded meanwhile. */
export async function finishRevision(database: DataSource, jobId: string, revision: number, read: ReadPart): Promise<void> {
  await database.getRepository(PartEntity).update(
    { jobId, revision, status: 'reading' },
    {
      model: Buffer.from(read.model),
      features: read.features as never,
      notes: read.notes as never,
      drawing: read.drawing as never,
      recogniser: RECOGNISER,
      status: 'ready',
      progress: 1,
      progressText: '',
    },
  );
}

/** The revision that waits for the programmer's word, if any. */
export async function pendingRevision(database: DataSource, jobId: string, current: number): Promise<Pick<PartRow, 'revision' | 'fileName' | 'status'> | null> {
  const [part] = await database
    .getRepository(PartEntity)
    .find({ where: { jobId }, order: { revision: 'DESC' }, take: 1, select: { jobId: true, revision: true, fileName: true, status: true } });
  return part && part.revision > current && part.status !== 'discarded' ? { revision: part.revision, fileName: part.fileName, status: part.status } : null;
}
