import { hostname } from 'node:os';
import { randomBytes } from 'node:crypto';
import type { DataSource, EntityManager } from 'typeorm';
import { isRunning } from '../work/is-running.ts';

/** One reading of one part: a job's own, or a newer file of it. */
export interface ImportKey {
  jobId: string;
  revision: number;
}

type Sql = DataSource | EntityManager;

/** Without a sign of life for this long, who reads a part is taken for dead, s. */
export const STALE_SECONDS = 25;
/** After being cut off so many times, a part is not read again by itself. */
export const MOST_ATTEMPTS = 3;

/** Names this process in claims: a claim of a dead process of this machine need not wait to be stale. */
export const ownName = (): string => `${hostname()}/${process.pid}/${randomBytes(4).toString('hex')}`;

/** Rows that an UPDATE … RETURNING gave. */
const rowsOf = async <T>(result: Promise<unknown>): Promise<T[]> => ((await result) as [T[], number])[0];

/**
 * Takes a part that waits to be read, or whose reader has died. Null where there is nothing to do: read already,
 * cancelled, deleted, or in the hands of another. `attempts` counts this one.
 */
export async function takeClaim(
  sql: Sql,
  { jobId, revision }: ImportKey,
  me: string,
): Promise<{ attempts: number } | null> {
  const [row] = await rowsOf<{ attempts: number }>(
    sql.query(
      `UPDATE parts SET taken_by = $3, heartbeat_at = now(), attempts = attempts + 1
       FROM jobs
       WHERE jobs.id = parts.job_id AND jobs.deleted_at IS NULL AND job_id = $1 AND revision = $2
         AND parts.status = 'reading'
         AND (taken_by IS NULL OR heartbeat_at < now() - make_interval(secs => $4))
       RETURNING attempts`,
      [jobId, revision, me, STALE_SECONDS],
    ),
  );
  return row ?? null;
}

/** A sign of life; false when the part is no longer ours to read: cancelled, discarded, or taken by another. */
export async function beat(sql: Sql, { jobId, revision }: ImportKey, me: string): Promise<boolean> {
  const rows = await rowsOf(
    sql.query(
      `UPDATE parts SET heartbeat_at = now()
       WHERE job_id = $1 AND revision = $2 AND taken_by = $3 AND status = 'reading' RETURNING 1`,
      [jobId, revision, me],
    ),
  );
  return rows.length > 0;
}

/** Lets a part go unread, for another to take up. `counts`: it was cut off by itself, not by us stopping. */
export async function release(
  sql: Sql,
  { jobId, revision }: ImportKey,
  me: string,
  { counts }: { counts: boolean },
): Promise<void> {
  await sql.query(
    `UPDATE parts SET taken_by = NULL, heartbeat_at = NULL, progress = 0, progress_text = 'waiting',
       attempts = attempts - $4
     WHERE job_id = $1 AND revision = $2 AND taken_by = $3 AND status = 'reading'`,
    [jobId, revision, me, counts ? 0 : 1],
  );
}

export interface StrandedImport extends ImportKey {
  attempts: number;
  takenBy: string | null;
}

/**
 * Parts that are said to be read and that nobody reads: their reader is dead, or nothing in the queue asks for them.
 * `queueTable`: where pg-boss keeps its jobs.
 */
export async function strandedImports(
  sql: Sql,
  queueTable: string,
  queueName: string,
): Promise<StrandedImport[]> {
  const rows = (await sql.query(
    `SELECT job_id AS "jobId", revision, attempts, taken_by AS "takenBy",
       coalesce(heartbeat_at < now() - make_interval(secs => $1), true) AS stale
     FROM parts JOIN jobs ON jobs.id = job_id
     WHERE parts.status = 'reading' AND jobs.deleted_at IS NULL
       AND NOT EXISTS (SELECT 1 FROM ${queueTable} q WHERE q.name = $2 AND q.state IN ('created', 'retry')
         AND q.data->>'jobId' = job_id::text AND (q.data->>'revision')::int = revision)`,
    [STALE_SECONDS, queueName],
  )) as (StrandedImport & { stale: boolean })[];
  return rows.filter((r) => r.takenBy === null || r.stale || isDead(r.takenBy));
}

/** A process of this machine that is no more. Of other machines nothing is known but their heartbeat. */
function isDead(name: string): boolean {
  const [host, pid] = name.split('/');
  return host === hostname() && !isRunning(Number(pid));
}

/** Takes a dead reader's claim away, unless it has come back meanwhile. */
export async function dropClaim(sql: Sql, { jobId, revision, takenBy }: StrandedImport): Promise<void> {
  await sql.query(
    `UPDATE parts SET taken_by = NULL, heartbeat_at = NULL
     WHERE job_id = $1 AND revision = $2 AND taken_by = $3 AND status = 'reading'`,
    [jobId, revision, takenBy],
  );
}
