import type { DataSource } from 'typeorm';
import type { Logger } from 'pino';
import type { Findable } from '@yellow-pin/core/job/findable';
import { isAway } from '../database/errors.ts';
import { readLibrary } from '../library/service.ts';
import type { StoredJob } from '../work/plan-input.ts';
import { WorkProcess } from '../work/work-process.ts';
import { storedJob } from './stored-job.ts';

/** How often jobs are looked for whose plans are other than when they were last planned for the search, ms. */
const LOOK = 4000;
/** A plan that was saved just now is likely to be saved again, s. */
const SETTLED = 6;
/** Longest that planning one may take, s. */
const SECONDS = 120;

/** Plans jobs in the background, one after the other, so that all can be searched by what their plans come to. */
export class Indexer {
  private readonly planner: WorkProcess<StoredJob, Findable[]>;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private isClosed = false;

  constructor(
    private readonly database: DataSource,
    private readonly log: Logger,
    memoryMb: number,
  ) {
    this.planner = new WorkProcess(new URL('../work/find-work.ts', import.meta.url), {
      heapMb: Math.round(0.75 * memoryMb),
      memoryMb,
      idleMb: Math.round(0.15 * memoryMb),
    });
  }

  /** Goes on until it is closed. */
  start(): void {
    this.again(LOOK);
  }

  async close(): Promise<void> {
    this.isClosed = true;
    if (this.timer) clearTimeout(this.timer);
    await this.planner.close();
  }

  private again(ms: number): void {
    if (this.isClosed) return;
    this.timer = setTimeout(() => {
      this.next().then(
        (found) => this.again(found ? 0 : LOOK),
        (error: unknown) => {
          if (!this.isClosed) this.log.warn({ err: error }, 'jobs could not be planned for the search');
          this.again(LOOK);
        },
      );
    }, ms);
  }

  /** Plans one job that was changed since; false where none was. */
  async next(): Promise<boolean> {
    const [stale] = (await this.database.query(
      `SELECT j.id, j.part_revision AS "partRevision", n.revision AS "planRevision" FROM jobs j
       JOIN LATERAL (SELECT revision, created_at FROM plans WHERE job_id = j.id ORDER BY revision DESC LIMIT 1) n ON true
       LEFT JOIN found_in f ON f.job_id = j.id
       WHERE j.deleted_at IS NULL AND j.status = 'ready' AND n.created_at < now() - interval '${SETTLED} seconds'
         AND (f.job_id IS NULL OR f.plan_revision <> n.revision OR f.part_revision <> j.part_revision)
       ORDER BY j.changed_at DESC LIMIT 1`,
    )) as { id: string; planRevision: number; partRevision: number }[];
    if (!stale || this.isClosed) return false;
    const places = await this.placesIn(stale.id);
    await this.database.query(
      `INSERT INTO found_in (job_id, plan_revision, part_revision, places, words)
       SELECT id, $2, $3, $4::jsonb, $5 FROM jobs WHERE id = $1
       ON CONFLICT (job_id) DO UPDATE SET plan_revision = excluded.plan_revision,
         part_revision = excluded.part_revision, places = excluded.places, words = excluded.words`,
      [
        stale.id,
        stale.planRevision,
        stale.partRevision,
        JSON.stringify(places),
        [...new Set(places.map((p) => p.text))].join('\n'),
      ],
    );
    return true;
  }

  /** What can be looked for in a job; nothing where it cannot be planned: it is not tried again until it is changed. */
  private async placesIn(jobId: string): Promise<Findable[]> {
    try {
      const { job } = await storedJob(this.database, jobId);
      return await this.planner.run(
        { ...job, library: await readLibrary(this.database) },
        { seconds: SECONDS },
      );
    } catch (error) {
      if (this.isClosed || isAway(error)) throw error;
      this.log.warn({ err: error, jobId }, 'a job could not be planned for the search');
      return [];
    }
  }
}
