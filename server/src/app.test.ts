import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plateStep } from '@yellow-pin/demo/plate-step';
import type { Plan } from '@yellow-pin/core/plan/plan';
import { testServer, type TestServer } from './testing.ts';

const base = process.env['DATABASE_URL'];
const LIMIT = 2 * 1048576;
const part = readFileSync(new URL('../../demo/parts/adapter-plate.step', import.meta.url));

describe.skipIf(!base)('server', () => {
  let server: TestServer;
  let client: TestServer['client'];
  beforeAll(async () => {
    server = await testServer(base!, 'server', LIMIT);
    ({ client } = server);
  });
  afterAll(() => server?.close());

  const upload = (data: Buffer | string, fileName = 'part.step') =>
    client.post('/api/jobs').attach('file', Buffer.from(data), fileName);

  async function settled(id: string): Promise<{
    job: { status: string; name: string; error: string | null };
    features: unknown[];
    plan: Plan;
    revision: number;
  }> {
    for (let i = 0; i < 200; i++) {
      const { body } = await client.get(`/api/jobs/${id}`);
      if (body.job.status !== 'reading') return body;
      await new Promise((r) => setTimeout(r, 200));
    }
    throw new Error('the import did not end');
  }

  it('reads a part, finds its holes and gives it a plan', async () => {
    const { body, status } = await upload(part, 'größe.step');
    expect(status).toBe(201);
    const open = await settled(body.id);
    expect(open.job).toMatchObject({ status: 'ready', name: 'Adapter plate TW-207' });
    expect(open.features.filter((f) => (f as { family: string }).family === 'hole')).toHaveLength(21);
    expect(open.plan.units).toBe('inch');
    const model = await client.get(`/api/jobs/${body.id}/model`);
    expect(model.body.format).toBe('yellow-pin/solid-model@1');
  });

  it('answers bad files clearly and stores nothing', async () => {
    const before = (await client.get('/api/jobs')).body.total;
    for (const [data, code, status] of [
      ['', 'empty', 422],
      ['hello', 'not-step', 422],
      [part.subarray(0, 4000), 'truncated', 422],
      [Buffer.alloc(LIMIT + 10, 65), 'too-large', 413],
    ] as const) {
      const { body, status: got } = await upload(Buffer.from(data as string));
      expect([got, body.code]).toEqual([status, code]);
      expect(body.message.length).toBeGreaterThan(20);
    }
    expect((await client.post('/api/jobs')).body.code).toBe('no-file');
    expect((await client.get('/api/jobs')).body.total).toBe(before);
  });

  it('says in the job what the kernel could not read, and goes on', async () => {
    const { body } = await upload(
      "ISO-10303-21;\nHEADER;\nFILE_SCHEMA(('X'));\nENDSEC;\nDATA;\n#1=CARTESIAN_POINT('',(0.,0.,0.));\nENDSEC;\nEND-ISO-10303-21;",
    );
    expect((await settled(body.id)).job).toMatchObject({
      status: 'failed',
      error: expect.stringContaining('no solid') as string,
    });
    expect((await client.get('/api/health')).body).toEqual({
      ok: true,
      database: 'up',
      worker: 'idle',
      reading: 0,
    });
  });

  it('cancels a running import', async () => {
    const { body } = await upload(plateStep({ holes: 900 }));
    await client.post(`/api/jobs/${body.id}/cancel`);
    expect((await settled(body.id)).job.status).toBe('cancelled');
    const next = await upload(part);
    expect((await settled(next.body.id)).job.status).toBe('ready');
  });

  it('keeps every revision and refuses a stale one', async () => {
    const { body } = await upload(part);
    const { plan, revision } = await settled(body.id);
    const put = (r: number, p: unknown) =>
      client.put(`/api/jobs/${body.id}/plan`).send({ revision: r, plan: p });
    expect((await put(revision, { ...plan, units: 'mm' })).body).toEqual({ revision: revision + 1 });
    const stale = await put(revision, plan);
    expect([stale.status, stale.body.code, stale.body.details]).toEqual([
      409,
      'stale',
      { revision: revision + 1 },
    ]);
    expect((await client.get(`/api/jobs/${body.id}`)).body.plan.units).toBe('mm');
    expect((await put(revision + 1, { ...plan, setups: [] })).status).toBe(400);
    expect((await put(revision + 1, 'x')).body.code).toBe('bad-request');
  });

  it('lets only one of two saves at once through', async () => {
    const { body } = await upload(part);
    const { plan, revision } = await settled(body.id);
    const answers = await Promise.all(
      [1, 2, 3].map(() => client.put(`/api/jobs/${body.id}/plan`).send({ revision, plan })),
    );
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409, 409]);
  });

  it('deletes with a way back', async () => {
    const { body } = await upload(part);
    await settled(body.id);
    expect((await client.delete(`/api/jobs/${body.id}`)).status).toBe(204);
    expect((await client.get(`/api/jobs/${body.id}`)).status).toBe(404);
    expect((await client.post(`/api/jobs/${body.id}/restore`)).status).toBe(200);
    expect((await client.get(`/api/jobs/${body.id}`)).body.job.status).toBe('ready');
  });

  it('answers nonsense with a sentence', async () => {
    expect((await client.get('/api/jobs/7')).status).toBe(404);
    expect((await client.get('/api/nothing')).body.code).toBe('not-found');
    expect(
      (
        await client
          .put('/api/jobs/00000000-0000-4000-8000-000000000000/plan')
          .set('Content-Type', 'application/json')
          .send('{')
      ).body.code,
    ).toBe('bad-json');
  });
});
