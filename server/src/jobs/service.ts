import { randomUUID } from 'node:crypto';
import { gunzipSync } from 'node:zlib';
import type { DataSource } from 'typeorm';
import { recognise, type Recognition } from '@yellow-pin/core/features/recognise';
import { chooseDirections, setupsFor } from '@yellow-pin/core/job/choose-setups';
import { newPlan, planSchema, type Plan } from '@yellow-pin/core/job/plan';
import type { SolidModel } from '@yellow-pin/core/model/solid-model';
import { demoPlan } from '@yellow-pin/demo/jobs';
import { HttpError, notFound } from '../errors.ts';
import { readLibrary } from '../library/service.ts';
import type { ReadPart } from '../queue/kernel-pool.ts';
import { JobEntity, PartEntity, PlanEntity, type JobRow } from './entity.ts';
import { pendingRevision } from './revisions.ts';

const MAX_NAME = 120;
/** Raised when recognition finds more: parts read before are looked at again when they are opened. */
export const RECOGNISER = 2;

export interface NewJob {
  fileName: string;
  step: Buffer;
}

/** Stores a new job with its file, waiting to be read. Nothing is stored if any part of it fails. */
export async function createJob(database: DataSource, { fileName, step }: NewJob): Promise<JobRow> {
  const id = randomUUID();
  const name = fileName.replace(/\.(step|stp|dxf)$/i, '').slice(0, MAX_NAME) || 'part';
  return database.transaction(async (tx) => {
    await tx.getRepository(JobEntity).insert({ id, name, fileName: fileName.slice(0, 255), status: 'reading', progressText: 'waiting' });
    await tx.getRepository(PartEntity).insert({ jobId: id, revision: 1, fileName: fileName.slice(0, 255), step });
    return tx.getRepository(JobEntity).findOneByOrFail({ id });
  });
}

/** The plan a freshly read part starts with: the sides its features need, the shop's first material and machine. */
export async function firstPlan(database: DataSource, job: JobRow, read: ReadPart, sample: boolean): Promise<Plan> {
  const library = await readLibrary(database);
  const [material, machine] = [library.materials[0], library.machines[0]];
  if (!material || !machine) throw new Error('the shop has no material or no machine');
  const plan = newPlan(read.units, material.id, machine.id);
  plan.setups = setupsFor(chooseDirections(read.features));
  plan.drawing = read.depths;
  return planSchema.parse(sample ? demoPlan(job.fileName, read.features, plan) : plan);
}

/** Stores what was read, unless the job was cancelled or deleted meanwhile. */
export async function finishImport(database: DataSource, jobId: string, read: ReadPart, plan: Plan): Promise<void> {
  await database.transaction(async (tx) => {
    const job = await tx.getRepository(JobEntity).findOne({ where: { id: jobId, status: 'reading' }, lock: { mode: 'pessimistic_write' } });
    if (!job) return;
    await tx
      .getRepository(PartEntity)
      .update(
        { jobId, revision: 1 },
        { model: Buffer.from(read.model), features: read.features as never, notes: read.notes as never, drawing: read.drawing as never, recogniser: RECOGNISER },
      );
    await tx.getRepository(PlanEntity).insert({ jobId, revision: 1, plan: plan as never });
    await tx.getRepository(JobEntity).update({ id: jobId }, { status: 'ready', progress: 1, progressText: '', name: read.name.slice(0, MAX_NAME) || job.name });
  });
}

export const listJobs = (database: DataSource): Promise<JobRow[]> => database.getRepository(JobEntity).find({ order: { createdAt: 'DESC' }, take: 500 });

export async function findJob(database: DataSource, id: string): Promise<JobRow> {
  const job = await database.getRepository(JobEntity).findOneBy({ id });
  if (!job) throw notFound('job');
  return job;
}

/** Job, features and newest plan: what the bench opens with. */
export async function openJob(database: DataSource, id: string) {
  const job = await findJob(database, id);
  if (job.status !== 'ready') return { job, features: [], notes: [], plan: null, revision: 0, drawing: null, pending: null };
  const part = await database.getRepository(PartEntity).findOneOrFail({
    where: { jobId: id, revision: job.partRevision },
    select: { jobId: true, revision: true, features: true as never, notes: true as never, drawing: true as never, recogniser: true },
  });
  const { features, notes } = part.recogniser < RECOGNISER ? await lookAgain(database, id, job.partRevision) : { features: part.features ?? [], notes: part.notes ?? [] };
  const plan = await newestPlan(database, id);
  return {
    job,
    features,
    notes,
    plan: planSchema.parse(plan.plan),
    revision: plan.revision,
    drawing: part.drawing,
    pending: await pendingRevision(database, id, job.partRevision),
  };
}

/** Recognises a part again that was read before its recognisers knew all families. */
async function lookAgain(database: DataSource, jobId: string, revision: number): Promise<Pick<Recognition, 'features' | 'notes'>> {
  const stored = await readModel(database, jobId, revision);
  const found = recognise(JSON.parse(gunzipSync(stored).toString('utf8')) as SolidModel);
  await database.getRepository(PartEntity).update({ jobId, revision }, { features: found.features as never, notes: found.notes as never, recogniser: RECOGNISER });
  return found;
}

async function newestPlan(database: DataSource, jobId: string) {
  const plan = await database.getRepository(PlanEntity).findOne({ where: { jobId }, order: { revision: 'DESC' } });
  if (!plan) throw notFound('plan');
  return plan;
}

/** The gzipped solid model of a revision; of the one that the job works on where none is named. */
export async function readModel(database: DataSource, id: string, revision?: number): Promise<Buffer> {
  const wanted = revision ?? (await findJob(database, id)).partRevision;
  const part = await database.getRepository(PartEntity).findOne({ where: { jobId: id, revision: wanted }, select: { jobId: true, revision: true, model: true } });
  if (!part?.model) throw notFound('part');
  return part.model;
}

/** Saves a plan as the revision after `base`; refuses when another was saved since. */
export async function savePlan(database: DataSource, id: string, base: number, plan: Plan): Promise<number> {
  return database.transaction(async (tx) => {
    const job = await tx.getRepository(JobEntity).findOne({ where: { id }, lock: { mode: 'pessimistic_write' } });
    if (!job) throw notFound('job');
    const [newest] = await tx.getRepository(PlanEntity).find({ where: { jobId: id }, order: { revision: 'DESC' }, take: 1, select: { jobId: true, revision: true } });
    if ((newest?.revision ?? 0) !== base) {
      throw new HttpError(
        409,
        'stale',
        `The plan was saved elsewhere as revision ${newest?.revision ?? 0} while you worked on revision ${base}. Load the newer one; nothing of it was overwritten.`,
        { revision: newest?.revision ?? 0 },
      );
    }
    await tx.getRepository(PlanEntity).insert({ jobId: id, revision: base + 1, plan: plan as never });
    await tx.getRepository(JobEntity).update({ id }, { updatedAt: new Date() });
    return base + 1;
  });
}

export async function renameJob(database: DataSource, id: string, name: string): Promise<JobRow> {
  await findJob(database, id);
  await database.getRepository(JobEntity).update({ id }, { name: name.slice(0, MAX_NAME) });
  return findJob(database, id);
}

/** Deleting only hides: {@link restoreJob} brings the job back. A running import is stopped. */
export async function deleteJob(database: DataSource, id: string): Promise<void> {
  await cancelImport(database, id);
  await database.getRepository(JobEntity).softDelete({ id });
}

export async function restoreJob(database: DataSource, id: string): Promise<JobRow> {
  await database.getRepository(JobEntity).restore({ id });
  return findJob(database, id);
}

export async function cancelImport(database: DataSource, id: string): Promise<JobRow> {
  await findJob(database, id);
  await database
    .getRepository(JobEntity)
    .update({ id, status: 'reading' }, { status: 'cancelled', progress: 0, progressText: '', error: 'Reading was cancelled. Drop the file again to read it.' });
  return findJob(database, id);
}
