import { pino } from 'pino';
import { readConfig } from './config.ts';
import { openDatabase } from './database/data-source.ts';
import { openImportQueue } from './queue/import-queue.ts';

/** Another worker for the same DATABASE_URL, on this or another machine. */
const config = readConfig();
const log = pino({ level: config.logLevel });
const database = await openDatabase(config.databaseUrl);
const queue = await openImportQueue(config.databaseUrl, database, log, { work: true, sizeLimit: config.stepLimitBytes });
process.stdout.write('worker ready\n');
const stop = (): void =>
  void queue
    .close()
    .then(() => database.destroy())
    .finally(() => process.exit(0));
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
