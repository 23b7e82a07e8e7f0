import { randomUUID } from 'node:crypto';
import type { DataSource } from 'typeorm';
import { HttpError, notFound } from '../errors.ts';

/** What somebody at the machine wrote about a job. */
export interface FloorNote {
  id: string;
  release: number | null;
  setup: string | null;
  text: string;
  author: string | null;
  createdAt: Date;
  doneAt: Date | null;
  doneBy: string | null;
}

const NOTE = `id, release, setup, text, author, created_at AS "createdAt", done_at AS "doneAt", done_by AS "doneBy"`;

export const listNotes = async (database: DataSource, jobId: string): Promise<FloorNote[]> =>
  (await database.query(
    `SELECT ${NOTE} FROM floor_notes WHERE job_id = $1 ORDER BY created_at DESC LIMIT 200`,
    [jobId],
  )) as FloorNote[];

export async function addNote(
  database: DataSource,
  jobId: string,
  { release, setup, text, author }: Pick<FloorNote, 'release' | 'setup' | 'text' | 'author'>,
): Promise<FloorNote> {
  const [note] = (await database.query(
    `INSERT INTO floor_notes (id, job_id, release, setup, text, author)
     SELECT $1, id, $3, $4, $5, $6 FROM jobs WHERE id = $2 AND deleted_at IS NULL RETURNING ${NOTE}`,
    [randomUUID(), jobId, release, setup, text, author],
  )) as FloorNote[];
  if (!note) throw notFound('job');
  return note;
}

/** A programmer has seen to it, or not yet after all. */
export async function settleNote(
  database: DataSource,
  jobId: string,
  id: string,
  isDone: boolean,
  who: string | null,
): Promise<void> {
  const [rows] = (await database.query(
    `UPDATE floor_notes SET done_at = CASE WHEN $3 THEN now() END, done_by = CASE WHEN $3 THEN $4::text END
     WHERE job_id = $1 AND id = $2 RETURNING id`,
    [jobId, id, isDone, who],
  )) as [unknown[], number];
  if (rows.length === 0) throw new HttpError(404, 'not-found', 'There is no such note any more.');
}
