import type { DataSource, EntityManager } from 'typeorm';
import { planSchema } from '@yellow-pin/core/plan/plan';
import { notFound } from '../errors.ts';
import type { StoredJob } from '../work/plan-input.ts';

/** A job's part and newest plan as they are stored, to be planned elsewhere, and which revisions they are. */
export async function storedJob(
  sql: DataSource | EntityManager,
  jobId: string,
): Promise<{ job: Omit<StoredJob, 'library'>; planRevision: number; partRevision: number }> {
  const [row] = (await sql.query(
    `SELECT j.name, j.part_revision AS "partRevision", p.model, p.features, p.drawing, n.revision AS "planRevision", n.plan
     FROM jobs j JOIN parts p ON p.job_id = j.id AND p.revision = j.part_revision AND p.model IS NOT NULL
     JOIN LATERAL (SELECT revision, plan FROM plans WHERE job_id = j.id ORDER BY revision DESC LIMIT 1) n ON true
     WHERE j.id = $1 AND j.deleted_at IS NULL`,
    [jobId],
  )) as (Omit<StoredJob, 'library' | 'plan'> & {
    plan: unknown;
    planRevision: number;
    partRevision: number;
  })[];
  if (!row) throw notFound('job');
  const { planRevision, partRevision, plan, ...part } = row;
  return { job: { ...part, plan: planSchema.parse(plan) }, planRevision, partRevision };
}
