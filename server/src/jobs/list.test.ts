import { randomUUID } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import { decode } from 'fast-png';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plateStep } from '@yellow-pin/demo/plate-step';
import { PAGE, type ListedJob } from './list.ts';
import { testServer, type TestServer } from '../testing.ts';

const base = process.env['DATABASE_URL'];
const plate = (holes: number): Buffer => Buffer.from(plateStep({ holes, diameter: 5 }));

describe.skipIf(!base)('the list of jobs', () => {
  let server: TestServer;
  let client: TestServer['client'];
  beforeAll(async () => {
    server = await testServer(base!, 'list', 2 * 1048576);
    ({ client } = server);
  });
  afterAll(() => server?.close());

  const list = async (query = ''): Promise<{ jobs: ListedJob[]; total: number; page: number }> =>
    (await client.get(`/api/jobs${query}`)).body;
  async function ready(data: Buffer, name: string, author?: string): Promise<string> {
    const request = client.post('/api/jobs');
    if (author) void request.set('X-Yellow-Pin-Author', encodeURIComponent(author));
    const { body } = await request.attach('file', data, name);
    for (let i = 0; i < 200; i++) {
      const { job } = (await client.get(`/api/jobs/${body.id}`)).body;
      if (job.status === 'ready') return body.id as string;
      await new Promise((r) => setTimeout(r, 200));
    }
    throw new Error('the import did not end');
  }

  it('has a picture of each part, who changed it last, and how far it is', async () => {
    const id = await ready(plate(3), 'first.step', 'Änne & Co');
    const picture = await client.get(`/api/jobs/${id}/picture`);
    expect(picture.type).toBe('image/png');
    const { width, height, data } = decode(picture.body as Buffer);
    expect([width, height]).toEqual([144, 104]);
    expect(data.some((v) => v > 0)).toBe(true);
    const { plan, revision } = (await client.get(`/api/jobs/${id}`)).body;
    const summary = { planned: 3, total: 3, proof: 'proved' };
    await client
      .put(`/api/jobs/${id}/summary`)
      .send({ revision, ...summary })
      .expect(204);
    const [job] = (await list('?search=first')).jobs;
    expect(job).toMatchObject({ id, hasPicture: true, changedBy: 'Änne & Co', ...summary });
    // A plan that was saved meanwhile is not said to be proved.
    await client
      .put(`/api/jobs/${id}/plan`)
      .set('X-Yellow-Pin-Author', 'Bo')
      .send({ revision, plan })
      .expect(200);
    await client
      .put(`/api/jobs/${id}/summary`)
      .send({ revision, planned: 0, total: 3, proof: 'open' })
      .expect(204);
    expect((await list('?search=first')).jobs[0]).toMatchObject({ changedBy: 'Bo', ...summary });
    await client
      .put(`/api/jobs/${id}/summary`)
      .send({ revision: 2, planned: -1, total: 3, proof: 'x' })
      .expect(400);
  });

  it('says when the same file is there, and copies a job with its plan', async () => {
    const id = await ready(plate(4), 'twice.step');
    const again = (await client.post('/api/jobs').attach('file', plate(4), 'renamed.step')).body;
    expect(again.same).toMatchObject({ id });
    expect((await client.post('/api/jobs').attach('file', plate(5), 'twice.step')).body.same).toBeNull();
    const { plan, revision } = (await client.get(`/api/jobs/${id}`)).body;
    await client.put(`/api/jobs/${id}/plan`).send({ revision, plan: { ...plan, units: 'inch' } });
    const { body, status } = await client.post(`/api/jobs/${id}/copy`);
    expect(status).toBe(201);
    const copied = (await client.get(`/api/jobs/${body.id}`)).body;
    expect(copied).toMatchObject({ revision: 1, plan: { units: 'inch' }, job: { status: 'ready' } });
    expect(copied.features).toHaveLength((await client.get(`/api/jobs/${id}`)).body.features.length);
    expect((await client.get(`/api/jobs/${body.id}/model`)).body.format).toBe('yellow-pin/solid-model@1');
    await client.post(`/api/jobs/${randomUUID()}/copy`).expect(404);
  });

  it('keeps deleted jobs in a bin until they are taken away for good', async () => {
    const id = await ready(plate(6), 'binned.step');
    expect((await client.delete(`/api/jobs/${id}?forever=1`)).body.code).toBe('not-in-bin');
    await client.delete(`/api/jobs/${id}`).expect(204);
    expect((await list('?search=binned')).total).toBe(0);
    expect((await list('?search=binned&bin=1')).jobs[0]).toMatchObject({ id });
    await client.post(`/api/jobs/${id}/restore`).expect(200);
    expect((await list('?search=binned')).total).toBe(1);
    await client.delete(`/api/jobs/${id}`).expect(204);
    await client.delete(`/api/jobs/${id}?forever=1`).expect(204);
    expect((await list('?search=binned&bin=1')).total).toBe(0);
    await client.post(`/api/jobs/${id}/restore`).expect(404);
  });

  it('is paged, searched and sorted by the server, and stays quick with a thousand jobs', async () => {
    const step = gzipSync('x');
    await server.database.query(
      `WITH made AS (INSERT INTO jobs (id, name, file_name, status)
         SELECT gen_random_uuid(), 'rack ' || lpad(i::text, 4, '0'), 'rack_' || i || '%.step', 'failed'
         FROM generate_series(1, 1000) i RETURNING id)
       INSERT INTO parts (job_id, revision, step) SELECT id, 1, $1 FROM made`,
      [step],
    );
    const first = await list('?search=rack&sort=name&order=up');
    expect(first.total).toBe(1000);
    expect(first.jobs).toHaveLength(PAGE);
    expect(first.jobs[0]!.name).toBe('rack 0001');
    const last = await list('?search=rack&sort=name&order=up&page=99');
    expect(last.page).toBe(24);
    expect(last.jobs[last.jobs.length - 1]!.name).toBe('rack 1000');
    expect((await list('?search=RACK%200017')).total).toBe(1);
    // What means something to the database means itself here.
    expect((await list(`?search=${encodeURIComponent('rack_17%')}`)).total).toBe(1);
    for (const bad of ['sort=nothing', 'page=-1', 'page=x', 'order=1;drop', `search=${'x'.repeat(200)}`])
      expect((await client.get(`/api/jobs?${bad}`)).body.code).toBe('bad-query');
    expect((await client.get('/api/jobs/names')).body.every((j: { name: string }) => j.name)).toBe(true);
  });
});
