import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plateStep } from '@yellow-pin/demo/plate-step';
import type { Feature } from '@yellow-pin/core/features/family';
import type { Plan } from '@yellow-pin/core/plan/plan';
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
  let client: TestServer['client'];
  beforeAll(async () => {
    server = await testServer(base!, 'revisions', LIMIT);
    ({ client } = server);
  });
  afterAll(() => server?.close());

  const upload = (data: Buffer | string, fileName: string) =>
    client.post('/api/jobs').attach('file', Buffer.from(data), fileName);
  async function until<T>(path: string, done: (body: T) => boolean): Promise<T> {
    for (let i = 0; i < 200; i++) {
      const { body } = await client.get(path);
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
    const added = await client
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
    const stale = await client
      .post(`${path}/accept`)
      .send({ revision: first.revision + 5, plan: first.plan });
    expect(stale.status).toBe(409);
    const taken = await client.post(`${path}/accept`).send({ revision: first.revision, plan: first.plan });
    expect(taken.body).toEqual({ revision: first.revision + 1 });
    const now = await open(job.id);
    expect(now.job).toMatchObject({ partRevision: 2, fileName: 'b.step' });
    expect(holes(now.features)).toBe(6);
    expect(now.pending).toBeNull();
    expect((await client.get(`/api/jobs/${job.id}/model?revision=1`)).body.format).toBe(
      'yellow-pin/solid-model@1',
    );
    expect((await client.get(`/api/jobs/${job.id}/model?revision=moon`)).status).toBe(404);
  });

  it('goes on with a newer file as a whole, or not at all', async () => {
    const { body: job } = await upload(plateStep({ holes: 4 }), 'a.step');
    const first = await open(job.id);
    const { body } = await client
      .post(`/api/jobs/${job.id}/revisions`)
      .attach('file', Buffer.from(plateStep({ holes: 6 })), 'b.step');
    const path = `/api/jobs/${job.id}/revisions/${body.revision}`;
    await until<{ status: string }>(path, (b) => b.status === 'ready');
    const accept = (revision: number) =>
      client.post(`${path}/accept`).send({ revision, plan: { ...first.plan, units: 'inch' } });
    expect((await accept(first.revision + 5)).body.code).toBe('stale');
    // What comes after the plan is stored fails: then the plan is not stored either.
    await server.database.query(`CREATE FUNCTION refuse() RETURNS trigger AS
      $$ BEGIN RAISE EXCEPTION 'not now'; END $$ LANGUAGE plpgsql`);
    await server.database.query(
      'CREATE TRIGGER refuse BEFORE UPDATE OF part_revision ON jobs FOR EACH ROW EXECUTE FUNCTION refuse()',
    );
    expect((await accept(first.revision)).status).toBe(500);
    await server.database.query('DROP TRIGGER refuse ON jobs');
    const after = await open(job.id);
    expect([after.revision, after.plan.units, after.job.partRevision]).toEqual([first.revision, 'mm', 1]);
    await client.delete(path);
    expect((await accept(first.revision)).status).toBe(404);
    expect((await open(job.id)).revision).toBe(first.revision);
  });

  it('leaves a newer file, and not the one in use', async () => {
    const { body: job } = await upload(plateStep({ holes: 2 }), 'a.step');
    await open(job.id);
    await client
      .post(`/api/jobs/${job.id}/revisions`)
      .attach('file', Buffer.from(plateStep({ holes: 3 })), 'b.step');
    expect((await client.delete(`/api/jobs/${job.id}/revisions/2`)).status).toBe(204);
    expect((await client.get(`/api/jobs/${job.id}/revisions/2`)).status).toBe(404);
    expect((await open(job.id)).pending).toBeNull();
    expect((await client.delete(`/api/jobs/${job.id}/revisions/1`)).status).toBe(409);
  });

  it('refuses a wrong newer file and says why a damaged one cannot be read', async () => {
    const { body: job } = await upload(plateStep({ holes: 2 }), 'a.step');
    await open(job.id);
    const wrong = await client
      .post(`/api/jobs/${job.id}/revisions`)
      .attach('file', Buffer.from('hello'), 'b.step');
    expect(wrong.status).toBe(422);
    expect((await client.post(`/api/jobs/${job.id}/revisions`)).status).toBe(400);
    const empty = plateStep({ holes: 2 }).replace(/CLOSED_SHELL\('',\([^)]*\)\)/, "CLOSED_SHELL('',())");
    await client.post(`/api/jobs/${job.id}/revisions`).attach('file', Buffer.from(empty), 'c.step');
    const part = await until<{ status: string; error: string }>(
      `/api/jobs/${job.id}/revisions/2`,
      (b) => b.status !== 'reading',
    );
    expect(part.status).toBe('failed');
    expect(part.error.length).toBeGreaterThan(10);
  });

  it('reads a drawing, with depths to type', async () => {
    const { body: job } = await upload(gasket, 'plate.dxf');
    const opened = await open(job.id);
    expect(opened.job.status).toBe('ready');
    expect(opened.drawing!.outlines.length).toBe(18);
    expect(opened.plan.drawing!.layers['PROFILE']).toEqual({ use: 'outline', depth: null });
    expect(opened.features.map((f) => f.family)).toEqual(
      expect.arrayContaining(['hole', 'slot', 'face-groove']),
    );
    for (const [data, code] of [
      ['0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n', 'not-dxf'],
      ['rubbish', 'not-dxf'],
    ] as const)
      expect((await upload(data, 'bad.dxf')).body.code).toBe(code);
  });

  it('looks again at parts that were read before all families were known', async () => {
    const { body: job } = await upload(plateStep({ holes: 2 }), 'old.step');
    await open(job.id);
    await server.database
      .getRepository(PartEntity)
      .update({ jobId: job.id, revision: 1 }, { features: [] as never, recogniser: 1 });
    expect(holes((await open(job.id)).features)).toBe(2);
  });
});
