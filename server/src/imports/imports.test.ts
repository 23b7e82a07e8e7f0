import { readdirSync, readFileSync } from 'node:fs';
import { hostname } from 'node:os';
import { pino } from 'pino';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { plateStep } from '@yellow-pin/demo/plate-step';
import { testServer, type TestServer } from '../testing.ts';
import { beat, MOST_ATTEMPTS, ownName, release, takeClaim } from './claims.ts';
import { openImportQueue, type ImportQueue } from './queue.ts';

const base = process.env['DATABASE_URL'];
const SMALL = plateStep({ holes: 2 });
/** Takes some seconds to read. */
const LARGE = plateStep({ holes: 500 });
const LIMITS = { sizeLimit: 10 * 1048576, readSeconds: 60, readMemoryMb: 4096 };

/** Processes of ours that read parts. */
const readers = (): number[] =>
  readdirSync('/proc').flatMap((pid) => {
    try {
      const isReader = readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('read-work');
      const parent = /^PPid:\s*(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1];
      return isReader && Number(parent) === process.pid ? [Number(pid)] : [];
    } catch {
      return [];
    }
  });

describe.skipIf(!base)('imports', () => {
  let server: TestServer;
  let extra: ImportQueue[] = [];
  beforeAll(async () => {
    server = await testServer(base!, 'imports', 10 * 1048576);
  });
  afterEach(async () => {
    for (const q of extra) await q.close();
    extra = [];
  });
  afterAll(() => server?.close());

  const upload = async (step: string): Promise<string> =>
    (await server.client.post('/api/jobs').attach('file', Buffer.from(step), 'p.step')).body.id;
  const row = async (id: string) =>
    (
      (await server.database.query(
        `SELECT jobs.status, jobs.error, parts.status AS part, taken_by, attempts, parts.progress
         FROM jobs JOIN parts ON job_id = id WHERE id = $1`,
        [id],
      )) as {
        status: string;
        part: string;
        taken_by: string | null;
        attempts: number;
        error: string | null;
        progress: number;
      }[]
    )[0]!;
  const until = (id: string, status: string) =>
    expect.poll(async () => (await row(id)).status, { timeout: 40_000, interval: 100 }).toBe(status);
  const isRead = (id: string) =>
    expect
      .poll(async () => (await row(id)).progress, { timeout: 40_000, interval: 20 })
      .toBeGreaterThan(0.05);
  /** As after the end of the only worker: what is read stays claimed, in the name of a process that is no more. */
  const strand = (id: string, by: string, attempts: number) =>
    server.database.query(
      `UPDATE parts SET status = 'reading', taken_by = $2, heartbeat_at = now(), attempts = $3 WHERE job_id = $1`,
      [id, by, attempts],
    );
  const another = async (): Promise<ImportQueue> => {
    const q = await openImportQueue(server.url, server.database, pino({ level: 'silent' }), {
      work: true,
      ...LIMITS,
    });
    extra.push(q);
    return q;
  };
  const DEAD = `${hostname()}/4194305/ab`;

  it('a job is stored with its queue entry, or not at all', async () => {
    const before = (await server.client.get('/api/jobs')).body.total;
    await server.database.query('ALTER TABLE queue.job RENAME TO job_away');
    try {
      const { status } = await server.client.post('/api/jobs').attach('file', Buffer.from(SMALL), 'p.step');
      expect(status).toBe(500);
    } finally {
      await server.database.query('ALTER TABLE queue.job_away RENAME TO job');
    }
    expect((await server.client.get('/api/jobs')).body.total).toBe(before);
  });

  it('one at a time has a part, and only while it lives', async () => {
    const id = await upload(SMALL);
    await until(id, 'ready');
    const key = { jobId: id, revision: 1 };
    await strand(id, 'elsewhere/1/ab', 0);
    const sql = server.database;
    expect(await takeClaim(sql, key, ownName())).toBeNull();
    await sql.query(`UPDATE parts SET heartbeat_at = now() - interval '1 minute' WHERE job_id = $1`, [id]);
    expect(await takeClaim(sql, key, 'me')).toEqual({ attempts: 1 });
    expect([await beat(sql, key, 'me'), await beat(sql, key, 'elsewhere/1/ab')]).toEqual([true, false]);
    await release(sql, key, 'me', { counts: false });
    expect(await row(id)).toMatchObject({ taken_by: null, attempts: 0 });
    await sql.query(`UPDATE parts SET status = 'ready' WHERE job_id = $1`, [id]);
  });

  it('what a killed server was reading is taken up by the next', async () => {
    const id = await upload(SMALL);
    await until(id, 'ready');
    await server.database.query(`UPDATE jobs SET status = 'reading' WHERE id = $1`, [id]);
    await strand(id, DEAD, 1);
    await another();
    await until(id, 'ready');
  });

  it('cut off again and again it fails with a sentence, and can be read again', async () => {
    const id = await upload(SMALL);
    await until(id, 'ready');
    await server.database.query(`UPDATE jobs SET status = 'reading' WHERE id = $1`, [id]);
    await strand(id, DEAD, MOST_ATTEMPTS);
    await another();
    await until(id, 'failed');
    expect((await row(id)).error).toMatch(/cut off 3 times/);
    expect((await server.client.post(`/api/jobs/${id}/retry`)).body.status).toBe('reading');
    await until(id, 'ready');
    expect((await server.client.post(`/api/jobs/${id}/retry`)).status).toBe(409);
  });

  it('stopping lets a part go unread and unblamed; the next start reads it', async () => {
    const own = await testServer(base!, 'imports_stop', 10 * 1048576);
    try {
      const { body } = await own.client.post('/api/jobs').attach('file', Buffer.from(LARGE), 'p.step');
      const part = async () =>
        (
          (await own.database.query(
            'SELECT status, taken_by, attempts, progress, error FROM parts WHERE job_id = $1',
            [body.id],
          )) as Record<string, unknown>[]
        )[0]!;
      await expect
        .poll(async () => (await part())['progress'], { timeout: 40_000, interval: 20 })
        .toBeGreaterThan(0.05);
      await own.queue.close();
      expect(await part()).toMatchObject({ status: 'reading', taken_by: null, attempts: 0, error: null });
      expect((await own.client.get('/api/health')).body).toMatchObject({ ok: false, worker: 'stopped' });
      const next = await openImportQueue(own.url, own.database, pino({ level: 'silent' }), {
        work: true,
        ...LIMITS,
      });
      await expect
        .poll(async () => (await part())['status'], { timeout: 60_000, interval: 200 })
        .toBe('ready');
      await next.close();
    } finally {
      await own.close();
    }
  });

  it('a reader that dies is replaced, and dying each time the part fails with a retry', async () => {
    const id = await upload(LARGE);
    await isRead(id);
    const [first] = readers();
    process.kill(first!, 'SIGKILL');
    await expect.poll(() => readers().some((pid) => pid !== first), { timeout: 30_000 }).toBe(true);
    const killer = setInterval(() => {
      for (const pid of readers()) process.kill(pid, 'SIGKILL');
    }, 300);
    await until(id, 'failed');
    clearInterval(killer);
    expect((await row(id)).error).toMatch(/ended by itself/);
    await server.client.post(`/api/jobs/${id}/retry`);
    await until(id, 'ready');
  });

  it('goes on when the database drops every connection', async () => {
    const id = await upload(LARGE);
    await isRead(id);
    for (let i = 0; i < 3; i++) {
      await server.database
        .query(
          'SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid()',
        )
        .catch(() => undefined);
      await new Promise((r) => setTimeout(r, 700));
    }
    await expect
      .poll(async () => (await row(id).catch(() => ({ status: 'away' }))).status, {
        timeout: 60_000,
        interval: 200,
      })
      .toBe('ready');
  });
});
