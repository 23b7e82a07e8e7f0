import { pino } from 'pino';
import { createApp } from './app.ts';
import { readConfig } from './config.ts';
import { openDatabase } from './database/data-source.ts';
import { seed } from './seed.ts';
import { openImportQueue } from './queue/import-queue.ts';

/** Serves the screens and the API, with one worker inside. */
async function main(): Promise<void> {
  const config = readConfig();
  const log = pino({ level: config.logLevel });
  const database = await openDatabase(config.databaseUrl);
  const queue = await openImportQueue(config.databaseUrl, database, log, { work: true, sizeLimit: config.stepLimitBytes });
  await seed(database, queue, config.demo);
  const app = createApp({ database, queue, log, stepLimitBytes: config.stepLimitBytes });
  const server = app.listen(config.port, config.host, (error?: Error) => {
    if (error) {
      process.stderr.write(`Port ${config.port} cannot be used (${error.message}). Set PORT to another one.\n`);
      process.exit(1);
    }
    const address = server.address();
    const port = typeof address === 'object' && address ? address.port : config.port;
    process.stdout.write(`ready on http://${config.host === '0.0.0.0' ? 'localhost' : config.host}:${port}\n`);
  });
  let stopping = false;
  const stop = (): void => {
    if (stopping) return;
    stopping = true;
    server.close();
    server.closeAllConnections();
    void queue
      .close()
      .then(() => database.destroy())
      .finally(() => process.exit(0));
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
});
