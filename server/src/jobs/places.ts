import type { DataSource } from 'typeorm';
import { z } from 'zod';
import { findableSchema, type Findable } from '@yellow-pin/core/job/findable';

export const findablesSchema = z.array(findableSchema).max(5000);

/** Keeps what can be looked for in a job: what its plan came to, as it was last worked out. */
export async function keepFindables(
  database: DataSource,
  jobId: string,
  places: readonly Findable[],
): Promise<void> {
  const words = [...new Set(places.map((p) => p.text))].join('\n');
  await database.query(
    `INSERT INTO found_in (job_id, places, words) SELECT id, $2::jsonb, $3 FROM jobs WHERE id = $1
     ON CONFLICT (job_id) DO UPDATE SET places = excluded.places, words = excluded.words`,
    [jobId, JSON.stringify(places), words],
  );
}
