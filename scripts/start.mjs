#!/usr/bin/env node
// npm start: installs what is missing, starts the database, builds what changed, serves, prints the address.
import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { needBuild } from './lib/build.mjs';
import { needNode, needPackages, needRoom } from './lib/groundwork.mjs';
import { takeInstance } from './lib/instance.mjs';
import { needPostgres } from './lib/postgres.mjs';
import { known } from './lib/processes.mjs';
import { DATA, fail, ROOT, say } from './lib/run.mjs';
import { needServerFolders, runServer, serverCommand } from './lib/serve.mjs';

/** How often the database is looked after, ms. */
const LOOK_AFTER = 3000;

async function main() {
  needNode();
  needRoom(DATA);
  const instance = await takeInstance();
  if (instance.other) {
    const { url, starter } = instance.other;
    say(
      url
        ? `runs already: open ${url} (stop it with Ctrl-C where it was started, or with: kill ${starter.pid})`
        : `is being started already by process ${starter.pid}; wait for its address there`,
    );
    return;
  }
  process.on('exit', () => instance.release());
  // Until there is something to stop, a stop just ends.
  let stop = () => process.exit(1);
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => stop());

  await needPackages();
  await needBuild();
  const command = serverCommand();
  const database = await needPostgres('postgres', { keep: true });
  needServerFolders();
  say('starting the server');
  const starter = known(process.pid);
  const kept = database.bin ? { bin: database.bin, data: database.data } : null;
  const watch = spawn(
    process.execPath,
    [fileURLToPath(new URL('./lib/watch.mjs', import.meta.url)), JSON.stringify({ starter, database: kept })],
    { cwd: ROOT, detached: true, stdio: ['pipe', 'ignore', 'ignore'] },
  );
  watch.stdin.on('error', () => undefined);
  process.stdout.on('error', () => undefined);
  const server = runServer(command, database.url, {
    onStart: (one) => instance.note({ server: one }),
    onReady: (url) => {
      instance.note({ url });
      process.stdout.write(`yellow-pin: open ${url} (Ctrl-C stops everything)\n`);
    },
    onEnd: (code) => {
      clearInterval(lookAfter);
      database.stop();
      watch.stdin.end('done');
      process.exit(code);
    },
  });
  const lookAfter = setInterval(() => {
    if (database.revive?.()) say('PostgreSQL had been stopped from outside; it is started again');
  }, LOOK_AFTER);
  let stopping = false;
  stop = () => {
    if (stopping) return;
    stopping = true;
    clearInterval(lookAfter);
    say('stopping');
    server.stop();
  };
}

main().catch((error) =>
  fail(
    error.code === 'ENOSPC'
      ? 'The disk is full. Make room, then run the command again.'
      : `The start failed: ${error.message}`,
  ),
);
