import pg from 'pg';
import { pino } from 'pino';
import type { DataSource } from 'typeorm';
import { SHOP } from '@yellow-pin/demo/shop';
import { createApp } from './app.ts';
import { openDatabase } from './database/data-source.ts';
import { seedLibrary } from './library/service.ts';
import { openImportQueue, type ImportQueue } from './queue/import-queue.ts';

export interface TestServer {
  app: ReturnType<typeof createApp>;
  database: DataSource;
  queue: ImportQueue;
  close(): Promise<void>;
}

/** The whole server on a database of its own beside `base`, with its queue working; for tests. */
export async function testServer(base: string, label: string, stepLimitBytes: number): Promise<TestServer> {
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
  const queue = await openImportQueue(url, database, log, { work: true, sizeLimit: stepLimitBytes });
  const close = async (): Promise<void> => {
    await queue.close();
    await database.destroy();
    await onBase(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
  };
  return { app: createApp({ database, queue, log, stepLimitBytes }), database, queue, close };
}
