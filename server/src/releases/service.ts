import type { DataSource, EntityManager } from 'typeorm';
import { releaseContentSchema, type ReleaseContent } from '@yellow-pin/core/release/schema';
import { HttpError, notFound } from '../errors.ts';
import { lockJob } from '../jobs/service.ts';
import { readLibrary } from '../library/service.ts';
import { storedJob } from '../find/stored-job.ts';
import type { StoredJob } from '../work/plan-input.ts';

/** A release without what it froze. */
export interface ReleaseHead {
  number: number;
  planRevision: number;
  partRevision: number;
  status: 'proving' | 'ready' | 'failed' | 'cancelled';
  progress: number;
  progressText: string;
  error: string | null;
  author: string | null;
  remark: string;
  createdAt: Date;
  /** One number for all its files; null where it is not ready. */
  sha256: string | null;
  /** The plan, or the part, was changed since. */
  isOutOfDate: boolean;
}

const HEAD = `r.number, r.plan_revision AS "planRevision", r.part_revision AS "partRevision", r.status, r.progress,
  r.progress_text AS "progressText", r.error, r.author, r.remark, r.created_at AS "createdAt",
  r.content->>'sha256' AS sha256,
  (r.part_revision <> j.part_revision OR r.plan_revision <>
    coalesce((SELECT max(revision) FROM plans WHERE job_id = r.job_id), 0)) AS "isOutOfDate"`;

/** A job's releases, the newest first. */
export const listReleases = async (database: DataSource, jobId: string): Promise<ReleaseHead[]> =>
  (await database.query(
    `SELECT ${HEAD} FROM releases r JOIN jobs j ON j.id = r.job_id
     WHERE r.job_id = $1 AND j.deleted_at IS NULL ORDER BY r.number DESC`,
    [jobId],
  )) as ReleaseHead[];

/** What a release froze. */
export async function readRelease(
  database: DataSource,
  jobId: string,
  number: number,
): Promise<ReleaseHead & { content: ReleaseContent }> {
  const [row] = (await database.query(
    `SELECT ${HEAD}, r.content FROM releases r JOIN jobs j ON j.id = r.job_id
     WHERE r.job_id = $1 AND r.number = $2 AND r.status = 'ready'`,
    [jobId, number],
  )) as (ReleaseHead & { content: unknown })[];
  if (!row) throw notFound('release');
  return { ...row, content: releaseContentSchema.parse(row.content) };
}

/** Begins a release of the plan that is stored now; gives its number and what is to be proved. One at a time for a job. */
export async function beginRelease(
  database: DataSource,
  jobId: string,
  { author, remark }: { author: string | null; remark: string },
): Promise<{ number: number; request: StoredJob }> {
  const library = await readLibrary(database);
  return database.transaction(async (tx) => {
    const job = await lockJob(tx, jobId);
    if (job.status !== 'ready')
      throw new HttpError(
        409,
        'not-ready',
        'The part of this job is not read yet. Wait for it, then release it.',
      );
    const [under] = (await tx.query(`SELECT number FROM releases WHERE job_id = $1 AND status = 'proving'`, [
      jobId,
    ])) as { number: number }[];
    if (under)
      throw new HttpError(
        409,
        'under-way',
        `Release ${under.number} is being proved. Wait for it, or cancel it.`,
      );
    const stored = await storedJob(tx, jobId);
    const number = await nextNumber(tx, jobId);
    await tx.query(
      `INSERT INTO releases (job_id, number, plan_revision, part_revision, status, progress_text, author, remark)
       VALUES ($1, $2, $3, $4, 'proving', 'waiting', $5, $6)`,
      [jobId, number, stored.planRevision, stored.partRevision, author, remark],
    );
    return { number, request: { ...stored.job, library } };
  });
}

async function nextNumber(tx: EntityManager, jobId: string): Promise<number> {
  const [row] = (await tx.query(
    'SELECT coalesce(max(number), 0)::int + 1 AS n FROM releases WHERE job_id = $1',
    [jobId],
  )) as { n: number }[];
  return row?.n ?? 1;
}

export const tellRelease = async (
  database: DataSource,
  jobId: string,
  number: number,
  progress: number,
  text: string,
): Promise<void> =>
  void (await database.query(
    `UPDATE releases SET progress = $3, progress_text = $4 WHERE job_id = $1 AND number = $2 AND status = 'proving'`,
    [jobId, number, progress, text],
  ));

/** Keeps what was frozen; nothing of it is changed afterwards. */
export const finishRelease = async (
  database: DataSource,
  jobId: string,
  number: number,
  content: ReleaseContent,
): Promise<void> =>
  void (await database.query(
    `UPDATE releases SET status = 'ready', progress = 1, progress_text = '', content = $3
     WHERE job_id = $1 AND number = $2 AND status = 'proving'`,
    [jobId, number, JSON.stringify(content)],
  ));

export const failRelease = async (
  database: DataSource,
  jobId: string,
  number: number,
  status: 'failed' | 'cancelled',
  error: string,
): Promise<void> =>
  void (await database.query(
    `UPDATE releases SET status = $3, error = $4, progress = 0, progress_text = ''
     WHERE job_id = $1 AND number = $2 AND status = 'proving'`,
    [jobId, number, status, error],
  ));

/** Releases that were being proved when the server ended: nobody proves them any more. */
export const failStranded = async (database: DataSource): Promise<void> =>
  void (await database.query(
    `UPDATE releases SET status = 'failed', error = 'The server ended while it was proved. Release it again.'
     WHERE status = 'proving'`,
  ));
