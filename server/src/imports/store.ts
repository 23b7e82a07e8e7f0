import type { DataSource, EntityManager } from 'typeorm';
import { chooseDirections, setupsFor } from '@yellow-pin/core/setup/choose-setups';
import { newPlan, planSchema, type Plan } from '@yellow-pin/core/plan/plan';
import { demoPlan } from '@yellow-pin/demo/jobs';
import { JobEntity, MAX_NAME, PartEntity, PlanEntity, type JobRow } from '../jobs/entity.ts';
import { readLibrary } from '../library/service.ts';
import type { ReadPart } from '../work/read-request.ts';
import type { ImportKey } from './claims.ts';

/** Raised when recognition finds more: parts read before are looked at again when they are opened. */
export const RECOGNISER = 3;

/** How far a reading is, for those who wait for it. Nothing happens if it is no longer ours. */
export async function tellProgress(
  database: DataSource,
  { jobId, revision }: ImportKey,
  me: string,
  progress: number,
  progressText: string,
): Promise<void> {
  const { affected } = await database
    .getRepository(PartEntity)
    .update({ jobId, revision, status: 'reading', takenBy: me }, { progress, progressText });
  if (affected)
    await database
      .getRepository(JobEntity)
      .update({ id: jobId, status: 'reading', partRevision: revision }, { progress, progressText });
}

/** Marks a part, and the job that works on it, as waiting to be read; the caller puts it into the queue in the same transaction. */
export async function markWaiting(tx: EntityManager, { jobId, revision }: ImportKey): Promise<void> {
  const waiting = { status: 'reading', progress: 0, progressText: 'waiting', error: null } as const;
  await tx
    .getRepository(PartEntity)
    .update({ jobId, revision }, { ...waiting, takenBy: null, heartbeatAt: null, attempts: 0 });
  await tx.getRepository(JobEntity).update({ id: jobId, partRevision: revision }, waiting);
}

/** Ends a reading with a sentence. `me` null: whoever had it. */
export async function failImport(
  database: DataSource,
  { jobId, revision }: ImportKey,
  me: string | null,
  error: string,
): Promise<void> {
  const failed = { status: 'failed', error, progress: 0, progressText: '' } as const;
  await database.transaction(async (tx) => {
    const { affected } = await tx
      .getRepository(PartEntity)
      .update(
        { jobId, revision, status: 'reading', ...(me === null ? {} : { takenBy: me }) },
        { ...failed, takenBy: null, heartbeatAt: null },
      );
    if (affected)
      await tx
        .getRepository(JobEntity)
        .update({ id: jobId, status: 'reading', partRevision: revision }, failed);
  });
}

/** Stores what was read, unless the reading was cancelled or went to another meanwhile. */
export async function finishImport(
  database: DataSource,
  { jobId, revision }: ImportKey,
  me: string,
  read: ReadPart,
): Promise<void> {
  await database.transaction(async (tx) => {
    const jobs = tx.getRepository(JobEntity);
    const job = await jobs.findOne({ where: { id: jobId }, lock: { mode: 'pessimistic_write' } });
    const parts = tx.getRepository(PartEntity);
    const part = await parts.findOne({
      where: { jobId, revision, status: 'reading', takenBy: me },
      select: { jobId: true, revision: true, sample: true },
    });
    if (!job || !part) return;
    await parts.update(
      { jobId, revision },
      {
        // Looked at again, a part keeps its model and drawing.
        ...(read.model ? { model: Buffer.from(read.model), drawing: read.drawing as never } : {}),
        features: read.features as never,
        notes: read.notes as never,
        picture: Buffer.from(read.picture),
        recogniser: RECOGNISER,
        status: 'ready',
        progress: 1,
        progressText: '',
        takenBy: null,
        heartbeatAt: null,
      },
    );
    if (job.status !== 'reading' || job.partRevision !== revision) return;
    const plans = tx.getRepository(PlanEntity);
    const isFirst = !(await plans.existsBy({ jobId }));
    if (isFirst)
      await plans.insert({
        jobId,
        revision: 1,
        plan: (await firstPlan(database, job, read, part.sample)) as never,
      });
    await jobs.update(
      { id: jobId },
      {
        status: 'ready',
        progress: 1,
        progressText: '',
        ...(isFirst && read.name ? { name: read.name.slice(0, MAX_NAME) } : {}),
      },
    );
  });
}

/** The plan a freshly read part starts with: the sides its features need, the shop's first material and machine. */
async function firstPlan(database: DataSource, job: JobRow, read: ReadPart, sample: boolean): Promise<Plan> {
  const library = await readLibrary(database);
  const [material, machine] = [library.materials[0], library.machines[0]];
  if (!material || !machine) throw new Error('the shop has no material or no machine');
  const plan = newPlan(read.units, material.id, machine.id);
  plan.setups = setupsFor(chooseDirections(read.features));
  plan.drawing = read.depths;
  return planSchema.parse(sample ? demoPlan(job.fileName, read.features, plan) : plan);
}
