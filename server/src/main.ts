import { hostname, networkInterfaces } from 'node:os';
import type { Logger } from 'pino';
import { createApp } from './app.ts';
import type { Config } from './config.ts';
import { describeError } from './database/errors.ts';
import { sessionSecret } from './database/settings.ts';
import { Uploads } from './http/uploads.ts';
import { Indexer } from './find/indexer.ts';
import { startStandIn, type StandIn } from './machine/stand-in.ts';
import { onStop } from './on-stop.ts';
import { needPeople } from './people/first.ts';
import { signIn } from './people/sign-in.ts';
import { ReleaseDesk } from './releases/desk.ts';
import { failStranded } from './releases/service.ts';
import { seed } from './seed.ts';
import { start, type Started } from './startup.ts';

/** Serves the screens and the API, with one worker inside. */
async function main({ config, log, database, queue }: Started): Promise<void> {
  await seed(database, queue, config.demo);
  const uploads = new Uploads(config.stepLimitBytes);
  const secret = await sessionSecret(database);
  if (config.isNetwork) await needPeople(database, config.first);
  const people = signIn({
    database,
    databaseUrl: config.databaseUrl,
    secret,
    isRequired: config.isNetwork,
  });
  await failStranded(database);
  const indexer = new Indexer(database, log, config.readMemoryMb);
  indexer.start();
  const machine = await standIn(config.machineFolder, log);
  const releases = new ReleaseDesk(database, log, config.readMemoryMb);
  const app = createApp({
    releases,
    machinePort: machine?.port ?? null,
    database,
    queue,
    uploads,
    log,
    hosts: hostsOf(config),
    secret,
    people,
    isNetwork: config.isNetwork,
  });
  const server = app.listen(config.port, config.host, (error?: Error) => {
    if (error) {
      process.stderr.write(
        `Port ${config.port} cannot be used (${error.message}). Set PORT to another one.\n`,
      );
      process.exit(1);
    }
    const address = server.address();
    const port = typeof address === 'object' && address ? address.port : config.port;
    const name = ['0.0.0.0', '::'].includes(config.host) ? 'localhost' : config.host;
    process.stdout.write(`ready on http://${name.includes(':') ? `[${name}]` : name}:${port}\n`);
  });
  // Longer than browsers pause between two requests: a connection closed under one being sent is an error there.
  server.keepAliveTimeout = 65_000;
  onStop(async () => {
    server.close();
    await Promise.all([
      queue.close(),
      uploads.close(),
      people.close(),
      releases.close(),
      machine?.close(),
      indexer.close(),
    ]);
    server.closeAllConnections();
    await database.destroy();
  });
}

/** Without its simulated machine the server does all else: what kept it away is logged. */
function standIn(folder: string, log: Logger): Promise<StandIn | null> {
  return startStandIn(folder).catch((error: unknown) => {
    log.warn(`The simulated machine is switched off: ${describeError(error)}`);
    return null;
  });
}

/** On an open network, this machine's own names and addresses; beside them what the settings name. */
function hostsOf({ isNetwork, hosts, host }: Config): string[] {
  if (!isNetwork) return hosts;
  const own = Object.values(networkInterfaces()).flatMap((list) => (list ?? []).map((i) => i.address));
  return [...hosts, host, hostname(), ...own.map((a) => (a.includes(':') ? `[${a}]` : a))];
}

start(main);
