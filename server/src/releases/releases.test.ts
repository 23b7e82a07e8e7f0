import { gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Plan } from '@yellow-pin/core/plan/plan';
import type { ReleaseDifference } from '@yellow-pin/core/release/difference';
import { plateStep } from '@yellow-pin/demo/plate-step';
import { createJob } from '../jobs/service.ts';
import { testServer, type TestServer } from '../testing.ts';
import { beginRelease, failStranded, type ReleaseHead } from './service.ts';

const base = process.env['DATABASE_URL'];
const WAIT = 90_000;

describe.skipIf(!base)('releases', () => {
  let server: TestServer;
  let id = '';
  const get = async <T>(path: string): Promise<T> => (await server.client.get(path).expect(200)).body as T;
  const settled = async <T>(read: () => Promise<T>, isSettled: (v: T) => boolean): Promise<T> => {
    for (const until = Date.now() + WAIT; ; await new Promise((r) => setTimeout(r, 200))) {
      const value = await read();
      if (isSettled(value) || Date.now() > until) return value;
    }
  };
  const newest = async (): Promise<ReleaseHead> =>
    settled(
      async () => (await get<ReleaseHead[]>(`/api/jobs/${id}/releases`))[0]!,
      (r) => r.status !== 'proving',
    );
  const release = async (remark = ''): Promise<ReleaseHead> => {
    await server.client
      .post(`/api/jobs/${id}/releases`)
      .set('x-yellow-pin-author', 'Ada')
      .send({ remark })
      .expect(202);
    return newest();
  };
  const changePlan = async (change: (plan: Plan) => void): Promise<void> => {
    const { plan, revision } = await get<{ plan: Plan; revision: number }>(`/api/jobs/${id}`);
    change(plan);
    await server.client.put(`/api/jobs/${id}/plan`).send({ plan, revision }).expect(200);
  };

  beforeAll(async () => {
    server = await testServer(base!, 'releases', 5_000_000);
    const step = gzipSync(plateStep({ holes: 4, diameter: 5 }));
    ({ id } = await createJob(server.database, server.queue, { fileName: 'plate.step', step }));
    await settled(
      () => get<{ job: { status: string } }>(`/api/jobs/${id}`),
      ({ job }) => job.status !== 'reading',
    );
  }, WAIT);
  afterAll(() => server?.close());

  it('nothing is on the floor before it is released', async () => {
    await server.client.get(`/api/floor/${id}`).expect(404);
    expect(await get(`/api/floor`)).toEqual([]);
    expect(await get(`/api/jobs/${id}/releases`)).toEqual([]);
  });

  it(
    'a proved job is frozen with its hash, who and why, and stands on the floor',
    async () => {
      const first = await release('first parts');
      expect(first).toMatchObject({
        number: 1,
        status: 'ready',
        error: null,
        author: 'Ada',
        remark: 'first parts',
        isOutOfDate: false,
      });
      const { content } = await get<{
        content: { files: { text: string; sha256: string }[]; sha256: string };
      }>(`/api/jobs/${id}/releases/1`);
      expect(content.files[0]!.text).toMatch(/M30/);
      expect(first.sha256).toBe(content.sha256);
      expect(await get(`/api/floor`)).toMatchObject([{ id, number: 1, setups: 1 }]);
      expect(await get(`/api/floor/${id}`)).toMatchObject({ release: { number: 1 }, notes: [] });
    },
    WAIT,
  );

  it(
    'a changed plan shows it as out of date, and the next says what is other',
    async () => {
      await changePlan((p) => (p.setups[0]!.clearance = 40));
      expect((await newest()).isOutOfDate).toBe(true);
      expect(await release()).toMatchObject({ number: 2, status: 'ready', isOutOfDate: false });
      const { plan, files } = await get<ReleaseDifference>(`/api/jobs/${id}/releases/2/since/1`);
      expect(plan.some((l) => l.includes('clearance: 25 mm → 40 mm'))).toBe(true);
      expect(files).toHaveLength(1);
      // The first is as it was.
      expect((await get<ReleaseHead>(`/api/jobs/${id}/releases/1`)).sha256).not.toBe((await newest()).sha256);
    },
    WAIT,
  );

  it(
    'what is wrong is not released, and says what to mend',
    async () => {
      const { plan } = await get<{ plan: Plan }>(`/api/jobs/${id}`);
      await changePlan(
        (p) =>
          (p.setups[0]!.holding.keepOuts = [
            { id: 'k', name: 'clamp', kind: 'clamp', min: [-200, -200, -20], max: [200, 200, 90] },
          ] as never),
      );
      const refused = await release();
      expect(refused).toMatchObject({ number: 3, status: 'failed' });
      expect(refused.error).toMatch(/not released|no program/);
      expect(await get(`/api/floor`)).toMatchObject([{ number: 2 }]);
      await changePlan((p) => (p.setups = plan.setups));
    },
    WAIT,
  );

  it('one at a time; what nobody proves any more is said to be so', async () => {
    await beginRelease(server.database, id, { author: null, remark: '' });
    await server.client.post(`/api/jobs/${id}/releases`).send({}).expect(409);
    await failStranded(server.database);
    expect(await newest()).toMatchObject({
      status: 'failed',
      error: expect.stringContaining('server ended') as string,
    });
    await beginRelease(server.database, id, { author: null, remark: '' });
    await server.client
      .post(
        `/api/jobs/${id}/releases/${(await get<ReleaseHead[]>(`/api/jobs/${id}/releases`))[0]!.number}/cancel`,
      )
      .expect(204);
    expect(await newest()).toMatchObject({ status: 'cancelled' });
  });

  it('notes from the machine come back to the job, and are settled there', async () => {
    const note = (body: object) => server.client.post(`/api/floor/${id}/notes`).send(body);
    await note({ text: '  ' }).expect(400);
    await note({ text: 'T2 chatters in A3', setup: 'top up', release: 2 }).expect(201);
    const [first] = await get<[{ id: string; text: string; doneAt: string | null }]>(`/api/jobs/${id}/notes`);
    expect(first).toMatchObject({ text: 'T2 chatters in A3', setup: 'top up', release: 2, doneAt: null });
    await server.client.patch(`/api/jobs/${id}/notes/${first.id}`).send({ isDone: true }).expect(204);
    const [again] = await get<[{ doneAt: string | null }]>(`/api/jobs/${id}/notes`);
    expect(again.doneAt).not.toBeNull();
    await server.client.patch(`/api/jobs/${id}/notes/${id}`).send({ isDone: true }).expect(404);
  });

  it('addresses of nothing say so', async () => {
    for (const path of ['/releases/99', '/releases/x', '/releases/1/since/99'])
      await server.client.get(`/api/jobs/${id}${path}`).expect(404);
    await server.client.get('/api/floor/nobody').expect(404);
  });
});
