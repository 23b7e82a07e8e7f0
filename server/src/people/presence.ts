import type { DataSource } from 'typeorm';

/** A page that has said nothing for so long is closed, s. */
const GONE = 40;

/** Says that a page has a job open, and gives who else has: names, null for somebody who has not said one. */
export async function tellPresence(
  database: DataSource,
  jobId: string,
  tab: string,
  who: string | null,
): Promise<(string | null)[]> {
  await database.query(
    `INSERT INTO presence (job_id, tab, who) SELECT id, $2, $3 FROM jobs WHERE id = $1 AND deleted_at IS NULL
     ON CONFLICT (job_id, tab) DO UPDATE SET who = excluded.who, at = now()`,
    [jobId, tab, who],
  );
  await database.query(`DELETE FROM presence WHERE at < now() - interval '${GONE} seconds'`);
  const rows = (await database.query(
    'SELECT who FROM presence WHERE job_id = $1 AND tab <> $2 ORDER BY who',
    [jobId, tab],
  )) as { who: string | null }[];
  return rows.map((r) => r.who);
}

export const leave = async (database: DataSource, jobId: string, tab: string): Promise<void> =>
  void (await database.query('DELETE FROM presence WHERE job_id = $1 AND tab = $2', [jobId, tab]));
