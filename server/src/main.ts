import { hostname, networkInterfaces } from 'node:os';
import { createApp } from './app.ts';
import type { Config } from './config.ts';
import { sessionSecret } from './database/settings.ts';
import { Uploads } from './http/uploads.ts';
import { onStop } from './on-stop.ts';
import { seed } from './seed.ts';
import { start, type Started } from './startup.ts';

/** Serves the screens and the API, with one worker inside. */
async function main({ config, log, database, queue }: Started): Promise<void> {
  await seed(database, queue, config.demo);
  const uploads = new Uploads(config.stepLimitBytes);
  const secret = await sessionSecret(database);
  const app = createApp({ database, queue, uploads, log, hosts: hostsOf(config), secret });
  const server = app.listen(config.port, config.host, (error?: Error) => {
    if (error) {
      process.stderr.write(
        `Port ${config.port} cannot be used (${error.message}). Set PORT to another one.\n`,
      );
      process.exit(1);
    }
    if (config.isOpen)
      process.stdout.write(
        `WARNING: open to the whole network at ${config.host}: anybody there can read and change all jobs.\n`,
      );
    const address = server.address();
    const port = typeof address === 'object' && address ? address.port : config.port;
    const name = ['0.0.0.0', '::'].includes(config.host) ? 'localhost' : config.host;
    process.stdout.write(`ready on http://${name.includes(':') ? `[${name}]` : name}:${port}\n`);
  });
  // Longer than browsers pause between two requests: a connection closed under one being sent is an error there.
  server.keepAliveTimeout = 65_000;
  onStop(async () => {
    server.close();
    await Promise.all([queue.close(), uploads.close()]);
    server.closeAllConnections();
    await database.destroy();
  });
}

/** On an open network, this machine's own names and addresses; beside them what the settings name. */
function hostsOf({ isOpen, hosts, host }: Config): string[] {
  if (!isOpen) return hosts;
  const own = Object.values(networkInterfaces()).flatMap((list) => (list ?? []).map((i) => i.address));
  return [...hosts, host, hostname(), ...own.map((a) => (a.includes(':') ? `[${a}]` : a))];
}

start(main);
