import { gzipSync } from 'node:zlib';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Findable } from '@yellow-pin/core/job/findable';
import type { Plan } from '@yellow-pin/core/plan/plan';
import { plateStep } from '@yellow-pin/demo/plate-step';
import { createJob } from '../jobs/service.ts';
import { testServer, type TestServer } from '../testing.ts';
import { Indexer } from './indexer.ts';

const base = process.env['DATABASE_URL'];
const WAIT = 90_000;

describe.skipIf(!base)('jobs by what their plans come to', () => {
  let server: TestServer;
  let indexer: Indexer;
  const ids: string[] = [];
  const search = async (words: string) =>
    (await server.client.get('/api/jobs').query({ search: words }).expect(200)).body as {
      total: number;
      jobs: { id: string; found: Findable[] }[];
    };
  /** As if nothing was saved for a while. */
  const settle = () => server.database.query(`UPDATE plans SET created_at = now() - interval '1 minute'`);

  beforeAll(async () => {
    server = await testServer(base!, 'find', 5_000_000);
    indexer = new Indexer(server.database, pino({ level: 'silent' }), 4096);
    for (const diameter of [5, 6.6]) {
      const step = gzipSync(plateStep({ holes: 3, diameter }));
      ids.push(
        (await createJob(server.database, server.queue, { fileName: `plate-${diameter}.step`, step })).id,
      );
    }
    for (const until = Date.now() + WAIT; Date.now() < until; await new Promise((r) => setTimeout(r, 200)))
      if (
        ((await server.client.get('/api/jobs')).body as { jobs: { status: string }[] }).jobs.every(
          (j) => j.status === 'ready',
        )
      )
        return;
  }, WAIT);
  afterAll(async () => {
    await indexer?.close();
    await server?.close();
  });

  it(
    'are found by tool, row and thread once they are planned, and say where',
    async () => {
      expect((await search('drill')).total).toBe(0);
      await settle();
      while (await indexer.next());
      const drills = await search('drill');
      expect(drills.total).toBe(2);
      expect(drills.jobs[0]!.found[0]).toMatchObject({ what: 'tool' });
      const one = await search('drill ⌀6.6');
      expect(one.jobs.map((j) => j.id)).toEqual([ids[1]]);
      expect((await search('nowhere to be found')).total).toBe(0);
      expect((await search('plate-5')).jobs[0]!.found).toEqual([]);
    },
    WAIT,
  );

  it(
    'one whose plan cannot be read keeps none of the others from being planned',
    async () => {
      await server.database.query(`UPDATE plans SET revision = revision + 1, plan = '{}' WHERE job_id = $1`, [
        ids[1],
      ]);
      expect(await indexer.next()).toBe(true);
      expect(await indexer.next()).toBe(false);
      expect((await search('drill')).jobs.map((j) => j.id)).toEqual([ids[0]]);
    },
    WAIT,
  );

  it(
    'are planned again when they are changed, and not before',
    async () => {
      expect(await indexer.next()).toBe(false);
      const { plan, revision } = (await server.client.get(`/api/jobs/${ids[0]}`)).body as {
        plan: Plan;
        revision: number;
      };
      await server.client
        .put(`/api/jobs/${ids[0]}/plan`)
        .send({ plan: { ...plan, edgeBreak: 0.2 }, revision })
        .expect(200);
      // What was saved a moment ago waits.
      expect(await indexer.next()).toBe(false);
      await settle();
      expect(await indexer.next()).toBe(true);
      expect(await indexer.next()).toBe(false);
    },
    WAIT,
  );
});
