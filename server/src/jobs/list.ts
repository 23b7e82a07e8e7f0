import type { DataSource } from 'typeorm';
import { z } from 'zod';
import type { Findable } from '@yellow-pin/core/job/findable';

/** Jobs on one page of the list. */
export const PAGE = 40;
const SORTS = ['name', 'file', 'state', 'made', 'changed'] as const;

/** What is asked of the list; anything missing is the usual. */
export const listQuerySchema = z.object({
  search: z.string().max(120).default(''),
  sort: z.enum(SORTS).default('changed'),
  order: z.enum(['up', 'down']).default('down'),
  page: z.coerce.number().int().min(0).max(100_000).default(0),
  /** The deleted ones instead. */
  bin: z.enum(['0', '1']).default('0'),
});
export type ListQuery = z.infer<typeof listQuerySchema>;

/** A job as the list shows it. */
export interface ListedJob {
  id: string;
  name: string;
  fileName: string;
  status: string;
  progress: number;
  progressText: string;
  error: string | null;
  partRevision: number;
  createdAt: Date;
  changedAt: Date;
  changedBy: string | null;
  deletedAt: Date | null;
  /** Features planned and all, and what proving said, as of the last time the plan was worked out; null: not yet. */
  planned: number | null;
  total: number | null;
  proof: string | null;
  hasPicture: boolean;
  /** Where in its plan the words of the search stand. */
  found: Findable[];
}

/** Only these are ever put into the query's text. */
const COLUMN: Record<ListQuery['sort'], string> = {
  name: 'lower(j.name)',
  file: 'lower(j.file_name)',
  state: 'coalesce(j.planned::real / nullif(j.total, 0), -1)',
  made: 'j.created_at',
  changed: 'j.changed_at',
};

const COLUMNS = `j.id, j.name, j.file_name AS "fileName", j.status, j.progress, j.progress_text AS "progressText", j.error,
  j.part_revision AS "partRevision", j.created_at AS "createdAt", j.changed_at AS "changedAt",
  j.changed_by AS "changedBy", j.deleted_at AS "deletedAt", j.planned, j.total, j.proof,
  (p.picture IS NOT NULL) AS "hasPicture"`;

/** One page of jobs in which every word that is searched for stands, in name, file or plan, and how many there are in all. */
export async function listJobs(
  database: DataSource,
  { search, sort, order, page, bin }: ListQuery,
): Promise<{ jobs: ListedJob[]; total: number; page: number; pageSize: number }> {
  const words = search
    .split(/\s+/)
    .filter(Boolean)
    .map((w) => `%${w.replace(/[\\%_]/g, '\\$&')}%`);
  const where = `j.deleted_at IS ${bin === '1' ? 'NOT NULL' : 'NULL'}${words
    .map((_, i) => ` AND (j.name || ' ' || j.file_name || ' ' || coalesce(f.words, '')) ILIKE $${i + 1}`)
    .join('')}`;
  const [{ count }] = (await database.query(
    `SELECT count(*)::int AS count FROM jobs j LEFT JOIN found_in f ON f.job_id = j.id WHERE ${where}`,
    words,
  )) as [{ count: number }];
  // A page past the end, as after a search that finds less, is the last one.
  const at = Math.min(page, Math.max(0, Math.ceil(count / PAGE) - 1));
  const way = order === 'up' ? 'ASC' : 'DESC';
  const jobs = (await database.query(
    `SELECT ${COLUMNS}${words.length > 0 ? ', f.places' : ''} FROM jobs j LEFT JOIN parts p ON p.job_id = j.id AND p.revision = j.part_revision
     LEFT JOIN found_in f ON f.job_id = j.id
     WHERE ${where} ORDER BY ${COLUMN[sort]} ${way}, j.created_at DESC, j.id LIMIT ${PAGE} OFFSET ${at * PAGE}`,
    words,
  )) as (Omit<ListedJob, 'found'> & { places?: Findable[] | null })[];
  return {
    jobs: jobs.map(({ places, ...j }) => ({ ...j, found: foundIn(places ?? [], search) })),
    total: count,
    page: at,
    pageSize: PAGE,
  };
}

/** Most places of a job that a search tells. */
const MOST_FOUND = 5;

/** Where in a job's plan the words of a search stand; nothing where none is looked for. */
function foundIn(places: readonly Findable[], search: string): Findable[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const has = ({ text }: Findable): number => words.filter((w) => text.toLowerCase().includes(w)).length;
  return places
    .filter((p) => has(p) > 0)
    .sort((a, b) => has(b) - has(a))
    .slice(0, MOST_FOUND);
}

/** Names of the jobs whose parts are read, newest first: what another job's stock is chosen from. */
export const jobNames = (database: DataSource): Promise<{ id: string; name: string }[]> =>
  database.query(
    `SELECT id, name FROM jobs WHERE deleted_at IS NULL AND status = 'ready' ORDER BY changed_at DESC LIMIT 500`,
  );

export const summarySchema = z.object({
  revision: z.number().int().nonnegative(),
  planned: z.number().int().nonnegative().max(1e6),
  total: z.number().int().nonnegative().max(1e6),
  proof: z.enum(['nothing', 'open', 'wrong', 'proved']),
});

/** Keeps how far a plan is, unless another plan was saved meanwhile. Looking at a job is no change of it. */
export async function keepSummary(
  database: DataSource,
  id: string,
  { revision, planned, total, proof }: z.infer<typeof summarySchema>,
): Promise<void> {
  await database.query(
    `UPDATE jobs SET planned = $2, total = $3, proof = $4
     WHERE id = $1 AND deleted_at IS NULL
       AND (SELECT max(revision) FROM plans WHERE job_id = $1) = $5`,
    [id, planned, total, proof, revision],
  );
}

/** The picture of the part that the job works on, as PNG; null where there is none. */
export async function jobPicture(database: DataSource, id: string): Promise<Buffer | null> {
  const [row] = (await database.query(
    `SELECT picture FROM parts JOIN jobs ON jobs.id = job_id AND part_revision = revision WHERE job_id = $1`,
    [id],
  )) as { picture: Buffer | null }[];
  return row?.picture ?? null;
}
