import { pino, type Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { readConfig, type Config } from './config.ts';
import { openDatabase } from './database/data-source.ts';
import { describeError } from './database/errors.ts';
import { openImportQueue, type ImportQueue } from './imports/queue.ts';

export interface Started {
  config: Config;
  log: Logger;
  database: DataSource;
  /** With a worker inside. */
  queue: ImportQueue;
}

/** Runs a process of ours from its settings on; what keeps it from starting is told in one line, and it ends with 1. */
export function start(main: (started: Started) => Promise<void>): void {
  open()
    .then(main)
    .catch((error: unknown) => {
      process.stderr.write(`${describeError(error)}\n`);
      process.exit(1);
    });
}

async function open(): Promise<Started> {
  const config = readConfig();
  const log = pino({ level: config.logLevel });
  // Whatever is forgotten somewhere must not end the server: it is logged, and mended.
  process.on('unhandledRejection', (error) => log.error({ err: error }, 'unhandled'));
  const database = await openDatabase(config.databaseUrl);
  const queue = await openImportQueue(config.databaseUrl, database, log, {
    work: true,
    warm: true,
    sizeLimit: config.stepLimitBytes,
    readSeconds: config.readSeconds,
    readMemoryMb: config.readMemoryMb,
  });
  return { config, log, database, queue };
}
