import { randomUUID } from 'node:crypto';
import type { DataSource, EntityManager } from 'typeorm';
import { PLAN_FORMAT, planSchema, type Plan } from '@yellow-pin/core/plan/plan';
import { HttpError, notFound } from '../errors.ts';
import type { ImportKey } from '../imports/claims.ts';
import type { ImportQueue } from '../imports/queue.ts';
import { markWaiting, RECOGNISER } from '../imports/store.ts';
import { JobEntity, MAX_FILE_NAME, MAX_NAME, PartEntity, type JobRow } from './entity.ts';
import { pendingRevision } from './revisions.ts';

export interface NewJob {
  fileName: string;
  /** The file, packed. */
  step: Buffer;
  /** SHA-256 of the file as it came. */
  fileHash?: string | null;
  /** One of the shop's own sample parts. */
  sample?: boolean;
}

/** Stores a new job with its file, and asks for it to be read. Nothing is stored if any part of it fails. */
export async function createJob(
  database: DataSource,
  queue: ImportQueue,
  { fileName, step, fileHash = null, sample = false }: NewJob,
  author: string | null = null,
): Promise<JobRow> {
  const id = randomUUID();
  const name = fileName.replace(/\.(step|stp|dxf)$/i, '').slice(0, MAX_NAME) || 'part';
  const file = fileName.slice(0, MAX_FILE_NAME);
  const job = await database.transaction(async (tx) => {
    await tx
      .getRepository(JobEntity)
      .insert({ id, name, fileName: file, status: 'reading', progressText: 'waiting', changedBy: author });
    await tx.getRepository(PartEntity).insert({
      jobId: id,
      revision: 1,
      fileName: file,
      step,
      fileHash,
      sample,
      status: 'reading',
      progressText: 'waiting',
    });
    await queue.add(tx, { jobId: id, revision: 1 });
    return tx.getRepository(JobEntity).findOneByOrFail({ id });
  });
  queue.wake();
  return job;
}

/** Reads a job's part once more, after reading failed or was cancelled. */
export async function retryImport(database: DataSource, queue: ImportQueue, id: string): Promise<JobRow> {
  const row = await database.transaction(async (tx) => {
    const job = await lockJob(tx, id);
    if (job.status === 'ready' || job.status === 'reading')
      throw new HttpError(409, 'not-failed', 'The part of this job is read, or is being read.');
    await readAgain(tx, queue, { jobId: id, revision: job.partRevision });
    return tx.getRepository(JobEntity).findOneByOrFail({ id });
  });
  queue.wake();
  return row;
}

/** The part is read, or looked at, again: marked so and put into the queue, in the caller's transaction. */
export async function readAgain(tx: EntityManager, queue: ImportQueue, key: ImportKey): Promise<void> {
  await markWaiting(tx, key);
  await queue.add(tx, key);
}

/** The job's row, held until the transaction ends. */
export async function lockJob(tx: EntityManager, id: string): Promise<JobRow> {
  const job = await tx
    .getRepository(JobEntity)
    .findOne({ where: { id }, lock: { mode: 'pessimistic_write' } });
  if (!job) throw notFound('job');
  return job;
}

export async function findJob(database: DataSource, id: string): Promise<JobRow> {
  const job = await database.getRepository(JobEntity).findOneBy({ id });
  if (!job) throw notFound('job');
  return job;
}

/**
 * Job, features and newest plan, as JSON text: what the bench opens with. Features and plan are passed on as the
 * database has them, without being taken apart and put together again here. A part whose features were found before
 * its recognisers knew all families is looked at again first, by the worker: the job is then said to be read.
 */
export async function openJob(database: DataSource, queue: ImportQueue, id: string): Promise<string> {
  const job = await findJob(database, id);
  if (job.status !== 'ready') return openAnswer(job, {});
  const [part] = (await database.query(
    `SELECT recogniser, features::text, notes::text, drawing::text FROM parts
     WHERE job_id = $1 AND revision = $2`,
    [id, job.partRevision],
  )) as { recogniser: number; features: string | null; notes: string | null; drawing: string | null }[];
  if (!part) throw notFound('part');
  if (part.recogniser < RECOGNISER) {
    await database.transaction(async (tx) => {
      if ((await lockJob(tx, id)).status === 'ready')
        await readAgain(tx, queue, { jobId: id, revision: job.partRevision });
    });
    queue.wake();
    return openAnswer(await findJob(database, id), {});
  }
  const [plan] = (await database.query(
    'SELECT revision, plan::text FROM plans WHERE job_id = $1 ORDER BY revision DESC LIMIT 1',
    [id],
  )) as { revision: number; plan: string }[];
  if (!plan) throw notFound('plan');
  return openAnswer(job, {
    ...part,
    plan: currentPlan(plan.plan),
    revision: plan.revision,
    pending: await pendingRevision(database, id, job.partRevision),
  });
}

interface OpenParts {
  features?: string | null;
  notes?: string | null;
  drawing?: string | null;
  plan?: string | null;
  revision?: number;
  pending?: unknown;
}

const openAnswer = (job: JobRow, { features, notes, drawing, plan, revision, pending }: OpenParts): string =>
  `{"job":${JSON.stringify(job)},"features":${features ?? '[]'},"notes":${notes ?? '[]'},"plan":${plan ?? 'null'},` +
  `"revision":${revision ?? 0},"drawing":${drawing ?? 'null'},"pending":${JSON.stringify(pending ?? null)}}`;

/** A stored plan of before is brought up to date; one of today is passed on as it stands. */
function currentPlan(text: string): string {
  // As PostgreSQL writes jsonb: a blank after the colon.
  if (text.includes(`"format": "${PLAN_FORMAT}"`)) return text;
  return JSON.stringify(planSchema.parse(JSON.parse(text)));
}

/** A piece of a stored model that is sent at once, bytes: what is held in memory for each request. */
const PIECE = 1048576;

/**
 * The solid model of a revision as gzipped JSON, piece by piece as it is stored; of the revision that the job works on
 * where none is named.
 */
export async function modelPieces(
  database: DataSource,
  id: string,
  revision?: number,
): Promise<{ length: number; pieces: AsyncGenerator<Buffer> }> {
  const wanted = revision ?? (await findJob(database, id)).partRevision;
  const [part] = (await database.query(
    'SELECT octet_length(model) AS length FROM parts WHERE job_id = $1 AND revision = $2 AND model IS NOT NULL',
    [id, wanted],
  )) as { length: number }[];
  if (!part) throw notFound('part');
  const { length } = part;
  async function* pieces(): AsyncGenerator<Buffer> {
    for (let from = 1; from <= length; from += PIECE) {
      const [row] = (await database.query(
        'SELECT substring(model FROM $3 FOR $4) AS piece FROM parts WHERE job_id = $1 AND revision = $2',
        [id, wanted, from, PIECE],
      )) as { piece: Buffer }[];
      if (!row) throw notFound('part');
      yield row.piece;
    }
  }
  return { length, pieces: pieces() };
}

/** Saves a plan as the revision after `base`, by whoever says so; refuses when another was saved since. */
export async function savePlan(
  sql: DataSource | EntityManager,
  id: string,
  base: number,
  plan: Plan,
  author: string | null = null,
): Promise<number> {
  // One statement, so one way to the database and back: the key of (job, revision) lets one of two at once through.
  const [saved] = (await sql.query(
    `WITH saved AS (
       INSERT INTO plans (job_id, revision, plan, author)
       SELECT id, $2::int + 1, $3::jsonb, $4::text FROM jobs
       WHERE id = $1 AND deleted_at IS NULL
         AND coalesce((SELECT max(revision) FROM plans WHERE job_id = $1), 0) = $2
       ON CONFLICT DO NOTHING RETURNING revision),
     touched AS (UPDATE jobs SET updated_at = now(), changed_at = now(), changed_by = $4::text FROM saved WHERE id = $1)
     SELECT revision FROM saved`,
    [id, base, JSON.stringify(plan), author],
  )) as { revision: number }[];
  if (saved) return saved.revision;
  const [newest] = (await sql.query(
    `SELECT coalesce(max(plans.revision), 0) AS revision FROM jobs LEFT JOIN plans ON job_id = id
     WHERE id = $1 AND deleted_at IS NULL GROUP BY id`,
    [id],
  )) as { revision: number }[];
  if (!newest) throw notFound('job');
  throw new HttpError(
    409,
    'stale',
    `The plan was saved elsewhere as revision ${newest.revision} while you worked on revision ${base}. Load the newer one; nothing of it was overwritten.`,
    { revision: newest.revision },
  );
}

export async function renameJob(
  database: DataSource,
  id: string,
  name: string,
  author: string | null = null,
): Promise<JobRow> {
  await findJob(database, id);
  await database
    .getRepository(JobEntity)
    .update({ id }, { name: name.slice(0, MAX_NAME), changedAt: () => 'now()', changedBy: author });
  return findJob(database, id);
}

/** A job of its own with the part and the newest plan of another that is read. */
export async function copyJob(
  database: DataSource,
  from: string,
  author: string | null = null,
): Promise<JobRow> {
  const id = randomUUID();
  return database.transaction(async (tx) => {
    const job = await lockJob(tx, from);
    if (job.status !== 'ready')
      throw new HttpError(
        409,
        'not-ready',
        'The part of this job is not read yet. Wait for it, then duplicate it.',
      );
    const name = `${job.name.slice(0, MAX_NAME - 7)}, copy`;
    await tx.query(
      `INSERT INTO jobs (id, name, file_name, status, progress, part_revision, changed_by, planned, total, proof)
       SELECT $1, $2, file_name, status, progress, 1, $4, planned, total, proof FROM jobs WHERE id = $3`,
      [id, name, from, author],
    );
    await tx.query(
      `INSERT INTO parts (job_id, revision, file_name, status, progress, step, model, features, notes, drawing,
         recogniser, sample, picture, file_hash)
       SELECT $1, 1, file_name, status, progress, step, model, features, notes, drawing, recogniser, sample, picture,
         file_hash
       FROM parts WHERE job_id = $2 AND revision = $3`,
      [id, from, job.partRevision],
    );
    await tx.query(
      `INSERT INTO plans (job_id, revision, plan, author)
       SELECT $1, 1, plan, $3 FROM plans WHERE job_id = $2 ORDER BY revision DESC LIMIT 1`,
      [id, from, author],
    );
    return tx.getRepository(JobEntity).findOneByOrFail({ id });
  });
}

/** The newest other job whose part came from the same file, bit by bit; null where there is none. */
export async function sameFile(
  database: DataSource,
  { id }: Pick<JobRow, 'id'>,
): Promise<{ id: string; name: string } | null> {
  const [row] = (await database.query(
    `SELECT j.id, j.name FROM parts mine
     JOIN parts other ON other.file_hash = mine.file_hash AND other.job_id <> mine.job_id
     JOIN jobs j ON j.id = other.job_id AND j.deleted_at IS NULL
     WHERE mine.job_id = $1 AND mine.revision = 1 ORDER BY j.changed_at DESC LIMIT 1`,
    [id],
  )) as { id: string; name: string }[];
  return row ?? null;
}

/** Takes a deleted job away for good, with its parts and plans. Only what is in the bin can be. */
export async function purgeJob(database: DataSource, id: string): Promise<void> {
  const [rows] = (await database.query(
    `DELETE FROM jobs WHERE id = $1 AND deleted_at IS NOT NULL RETURNING id`,
    [id],
  )) as [unknown[], number];
  if (rows.length === 0)
    throw new HttpError(
      409,
      'not-in-bin',
      'Only a job in the bin can be taken away for good. Delete it first.',
    );
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
  await database.transaction(async (tx) => {
    const job = await lockJob(tx, id);
    if (job.status !== 'reading') return;
    const error = 'Reading was cancelled. Read the part again, or drop another file.';
    await tx
      .getRepository(JobEntity)
      .update({ id }, { status: 'cancelled', progress: 0, progressText: '', error });
    await tx
      .getRepository(PartEntity)
      .update({ jobId: id, revision: job.partRevision, status: 'reading' }, { status: 'failed', error });
  });
  return findJob(database, id);
}
