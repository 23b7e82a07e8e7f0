import type { DataSource, EntityManager } from 'typeorm';

/** One thing that somebody changed. */
export interface Change {
  at: Date;
  who: string | null;
  what: string;
  jobId: string | null;
  job: string | null;
}

/** Keeps what was changed and by whom, as far as that is known. */
export const noteChange = async (
  sql: DataSource | EntityManager,
  who: string | null,
  what: string,
  jobId: string | null = null,
): Promise<void> =>
  void (await sql.query('INSERT INTO changes (who, what, job_id) VALUES ($1, $2, $3)', [who, what, jobId]));

const MOST = 300;

/** The last changes, newest first: what stands in the list, and every saved plan. */
export const listChanges = async (database: DataSource, jobId: string | null): Promise<Change[]> =>
  (await database.query(
    `SELECT c.at, c.who, c.what, c.job_id AS "jobId", j.name AS job FROM (
       SELECT at, who, what, job_id FROM changes
       UNION ALL
       SELECT created_at, author, 'saved the plan, revision ' || revision, job_id FROM plans) c
     LEFT JOIN jobs j ON j.id = c.job_id
     WHERE $1::uuid IS NULL OR c.job_id = $1 ORDER BY c.at DESC LIMIT ${MOST}`,
    [jobId],
  )) as Change[];
