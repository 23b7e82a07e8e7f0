import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { gzipSync } from 'node:zlib';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plateStep } from '@yellow-pin/demo/plate-step';
import { createJob } from '../jobs/service.ts';
import { testServer, type TestServer } from '../testing.ts';

const base = process.env['DATABASE_URL'];
const ROOT = fileURLToPath(new URL('../../../', import.meta.url));
const WAIT = 120_000;

/** Runs one of the two commands on a database; gives how it ended and what it said. */
function command(script: 'backup' | 'restore', url: string, ...args: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, [`scripts/${script}.mjs`, ...args], {
    cwd: ROOT,
    env: { ...process.env, DATABASE_URL: url },
    encoding: 'utf8',
  });
  return { status, said: stdout + stderr };
}

describe.skipIf(!base)('backup and restore', () => {
  const folder = mkdtempSync(join(tmpdir(), 'yellow-pin-backup-'));
  const file = join(folder, 'shop.backup');
  let from: TestServer;
  let to: TestServer;
  let id = '';
  const get = async (server: TestServer, path: string): Promise<unknown> =>
    (await server.client.get(path).expect(200)).body as unknown;
  const settled = async (path: string, isSettled: (v: never) => boolean): Promise<void> => {
    for (const until = Date.now() + WAIT; Date.now() < until; await new Promise((r) => setTimeout(r, 200)))
      if (isSettled((await get(from, path)) as never)) return;
  };

  beforeAll(async () => {
    from = await testServer(base!, 'backup_from', 5_000_000);
    to = await testServer(base!, 'backup_to', 5_000_000);
    const step = gzipSync(plateStep({ holes: 3, diameter: 5 }));
    ({ id } = await createJob(from.database, from.queue, { fileName: 'plate.step', step }));
    await settled(`/api/jobs/${id}`, (v: { job: { status: string } }) => v.job.status === 'ready');
    await from.client.post(`/api/jobs/${id}/releases`).send({ remark: 'first' }).expect(202);
    await settled(`/api/jobs/${id}/releases`, ([r]: [{ status: string }]) => r.status !== 'proving');
    await from.client.post(`/api/floor/${id}/notes`).send({ text: 'runs well' }).expect(201);
  }, WAIT);
  afterAll(async () => {
    rmSync(folder, { recursive: true, force: true });
    await from?.close();
    await to?.close();
  });

  it(
    'a job comes back the same: part, plan, release, notes and the shop’s lists',
    async () => {
      const made = command('backup', from.url, file);
      expect(made.said).toContain(`backed up to ${file}`);
      const back = command('restore', to.url, file);
      expect(back.said).toContain('restored from');
      expect(back.said).toContain('1 jobs');
      for (const path of [
        `/api/jobs/${id}`,
        `/api/jobs/${id}/model`,
        `/api/jobs/${id}/releases`,
        `/api/jobs/${id}/releases/1`,
        `/api/jobs/${id}/notes`,
        '/api/library',
        '/api/floor',
      ])
        expect(await get(to, path), path).toEqual(await get(from, path));
    },
    WAIT,
  );

  it(
    'what is there is only replaced where that is said, and is kept first',
    () => {
      const refused = command('restore', to.url, file);
      expect(refused.status).toBe(1);
      expect(refused.said).toContain('The database has 1 jobs');
      const back = command('restore', to.url, file, '--replace');
      const kept = /is kept in (\S+)/.exec(back.said)![1]!;
      expect(readFileSync(kept).subarray(0, 5).toString()).toBe('PGDMP');
      rmSync(kept);
    },
    WAIT,
  );

  it(
    'a damaged file is refused, and nothing is changed',
    async () => {
      const whole = readFileSync(file);
      const damaged = join(folder, 'damaged.backup');
      for (const bytes of [Buffer.from('no backup'), whole.subarray(0, whole.length - 2000)]) {
        writeFileSync(damaged, bytes);
        const refused = command('restore', to.url, damaged, '--replace');
        for (const kept of refused.said.matchAll(/is kept in (\S+)/g)) rmSync(kept[1]!);
        expect(refused.status, refused.said).toBe(1);
        expect(refused.said).toMatch(/Nothing was changed|as it was/);
      }
      await request(to.app).get(`/api/jobs/${id}`).expect(200);
      expect(command('restore', to.url, join(folder, 'none')).said).toContain('is not there');
    },
    WAIT,
  );
});
