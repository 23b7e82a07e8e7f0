import { readFileSync } from 'node:fs';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plateStep } from '@yellow-pin/demo/plate-step';
import type { Feature } from '@yellow-pin/core/features/family';
import type { Plan } from '@yellow-pin/core/job/plan';
import { testServer, type TestServer } from '../testing.ts';
import { PartEntity } from './entity.ts';

const base = process.env['DATABASE_URL'];
const LIMIT = 4 * 1048576;
const gasket = readFileSync(new URL('../../../demo/parts/gasket-plate.dxf', import.meta.url));

interface Opened {
  job: { status: string; partRevision: number; fileName: string; error: string | null };
  features: Feature[];
  plan: Plan;
  revision: number;
  drawing: { outlines: unknown[] } | null;
  pending: { revision: number; status: string } | null;
}

describe.skipIf(!base)('parts by revision', () => {
  let server: TestServer;
  let app: TestServer['app'];
  beforeAll(async () => {
    server = await testServer(base!, 'revisions', LIMIT);
    ({ app } = server);
  });
  afterAll(() => server?.close());

  const upload = (data: Buffer | string, fileName: string) => request(app).post('/api/jobs').attach('file', Buffer.from(data), fileName);
  async function until<T>(path: string, done: (body: T) => boolean): Promise<T> {
    for (let i = 0; i < 200; i++) {
      const { body } = await request(app).get(path);
      if (done(body as T)) return body as T;
      await new Promise((r) => setTimeout(r, 200));
    }
    throw new Error(`${path} did not settle`);
  }
  const open = (id: string) => until<Opened>(`/api/jobs/${id}`, (b) => b.job.status !== 'reading');
  const holes = (f: Feature[]): number => f.filter((x) => x.family === 'hole').length;

  it('compares a newer file, goes on with it, and keeps the one before', async () => {
    const { body: job } = await upload(plateStep({ holes: 4 }), 'a.step');
    const first = await open(job.id);
    expect(holes(first.features)).toBe(4);
    const added = await request(app)
      .post(`/api/jobs/${job.id}/revisions`)
      .attach('file', Buffer.from(plateStep({ holes: 6 })), 'b.step');
    expect(added.status).toBe(201);
    expect(added.body).toEqual({ revision: 2 });
    const path = `/api/jobs/${job.id}/revisions/2`;
    const part = await until<{ status: string; features: Feature[] }>(path, (b) => b.status !== 'reading');
    expect(part.status).toBe('ready');
    expect(holes(part.features)).toBe(6);
    // Until it is taken the job is as it was.
    expect((await open(job.id)).pending).toMatchObject({ revision: 2 });
    expect(holes((await open(job.id)).features)).toBe(4);
    const stale = await request(app)
      .post(`${path}/accept`)
      .send({ revision: first.revision + 5, plan: first.plan });
    expect(stale.status).toBe(409);
    const taken = await request(app).post(`${path}/accept`).send({ revision: first.revision, plan: first.plan });
    expect(taken.body).toEqual({ revision: first.revision + 1 });
    const now = await open(job.id);
    expect(now.job).toMatchObject({ partRevision: 2, fileName: 'b.step' });
    expect(holes(now.features)).toBe(6);
    expect(now.pending).toBeNull();
    expect((await request(app).get(`/api/jobs/${job.id}/model?revision=1`)).body.format).toBe('yellow-pin/solid-model@1');
    expect((await request(app).get(`/api/jobs/${job.id}/model?revision=moon`)).status).toBe(404);
  });

  it('leaves a newer file, and not the one in use', async () => {
    const { body: job } = await upload(plateStep({ holes: 2 }), 'a.step');
    await open(job.id);
    await request(app)
      .post(`/api/jobs/${job.id}/revisions`)
      .attach('file', Buffer.from(plateStep({ holes: 3 })), 'b.step');
    expect((await request(app).delete(`/api/jobs/${job.id}/revisions/2`)).status).toBe(204);
    expect((await request(app).get(`/api/jobs/${job.id}/revisions/2`)).status).toBe(404);
    expect((await open(job.id)).pending).toBeNull();
    expect((await request(app).delete(`/api/jobs/${job.id}/revisions/1`)).status).toBe(409);
  });

  it('refuses a wrong newer file and says why a damaged one cannot be read', async () => {
    const { body: job } = await upload(plateStep({ holes: 2 }), 'a.step');
    await open(job.id);
    const wrong = await request(app).post(`/api/jobs/${job.id}/revisions`).attach('file', Buffer.from('hello'), 'b.step');
    expect(wrong.status).toBe(422);
    expect((await request(app).post(`/api/jobs/${job.id}/revisions`)).status).toBe(400);
    const empty = plateStep({ holes: 2 }).replace(/CLOSED_SHELL\('',\([^)]*\)\)/, "CLOSED_SHELL('',())");
    await request(app).post(`/api/jobs/${job.id}/revisions`).attach('file', Buffer.from(empty), 'c.step');
    const part = await until<{ status: string; error: string }>(`/api/jobs/${job.id}/revisions/2`, (b) => b.status !== 'reading');
    expect(part.status).toBe('failed');
    expect(part.error.length).toBeGreaterThan(10);
  });

  it('reads a drawing, with depths to type', async () => {
    const { body: job } = await upload(gasket, 'plate.dxf');
    const opened = await open(job.id);
    expect(opened.job.status).toBe('ready');
    expect(opened.drawing!.outlines.length).toBe(18);
    expect(opened.plan.drawing!.layers['PROFILE']).toEqual({ use: 'outline', depth: null });
    expect(opened.features.map((f) => f.family)).toEqual(expect.arrayContaining(['hole', 'slot', 'face-groove']));
    for (const [data, code] of [
      ['0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n', 'not-dxf'],
      ['rubbish', 'not-dxf'],
    ] as const)
      expect((await upload(data, 'bad.dxf')).body.code).toBe(code);
  });

  it('looks again at parts that were read before all families were known', async () => {
    const { body: job } = await upload(plateStep({ holes: 2 }), 'old.step');
    await open(job.id);
    await server.database.getRepository(PartEntity).update({ jobId: job.id, revision: 1 }, { features: [] as never, recogniser: 1 });
    expect(holes((await open(job.id)).features)).toBe(2);
  });
});
