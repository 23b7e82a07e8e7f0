import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { pino } from 'pino';
import request from 'supertest';
import type { DataSource } from 'typeorm';
import { SHOP } from '@yellow-pin/demo/shop/index';
import { createApp } from './app.ts';
import { openDatabase } from './database/data-source.ts';
import { sessionSecret } from './database/settings.ts';
import { Uploads } from './http/uploads.ts';
import { openImportQueue, type ImportQueue } from './imports/queue.ts';
import { seedLibrary } from './library/service.ts';
import { ReleaseDesk } from './releases/desk.ts';
import { startStandIn } from './machine/stand-in.ts';
import { signIn } from './people/sign-in.ts';

export interface TestServer {
  app: ReturnType<typeof createApp>;
  /** Asks as one of our own pages does: with the cookie. */
  client: ReturnType<typeof request.agent>;
  database: DataSource;
  queue: ImportQueue;
  /** The database's own address. */
  url: string;
  close(): Promise<void>;
}

/** The whole server on a database of its own beside `base`, with its queue working; for tests. */
export async function testServer(
  base: string,
  label: string,
  stepLimitBytes: number,
  isNetwork = false,
): Promise<TestServer> {
  const name = `${label}_test_${process.pid}`;
  const onBase = async (sql: string): Promise<void> => {
    const admin = new pg.Client(base);
    await admin.connect();
    await admin.query(sql);
    await admin.end();
  };
  await onBase(`CREATE DATABASE ${name}`);
  const url = base.replace(/\/[^/]*$/, `/${name}`);
  const log = pino({ level: 'silent' });
  const database = await openDatabase(url);
  await seedLibrary(database, SHOP);
  const queue = await openImportQueue(url, database, log, {
    work: true,
    sizeLimit: stepLimitBytes,
    readSeconds: 60,
    readMemoryMb: 4096,
  });
  const uploads = new Uploads(stepLimitBytes);
  const secret = await sessionSecret(database);
  const people = signIn({ database, databaseUrl: url, secret, isRequired: isNetwork });
  const machine = await startStandIn(mkdtempSync(join(tmpdir(), 'yellow-pin-machine-')));
  const releases = new ReleaseDesk(database, log, 4096);
  const app = createApp({
    database,
    queue,
    uploads,
    log,
    hosts: [],
    secret,
    people,
    isNetwork,
    releases,
    machinePort: machine.port,
  });
  const client = request.agent(app);
  await client.get('/api/session');
  const close = async (): Promise<void> => {
    await queue.close();
    await uploads.close();
    await people.close();
    await releases.close();
    await machine.close();
    rmSync(machine.folder, { recursive: true, force: true });
    await database.destroy();
    await onBase(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
  };
  return { app, client, database, queue, url, close };
}
