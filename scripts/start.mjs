#!/usr/bin/env node
// npm start: installs what is missing, starts the database, builds what changed, serves, prints the address.
import { spawn } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { needNode, needPackages, needPostgres } from './lib/groundwork.mjs';
import { fail, newest, ROOT, say, show } from './lib/run.mjs';

/** Builds the screens when a source is newer than the last build. */
export async function needBuild() {
  const stamp = join(ROOT, 'web', 'dist', '.built');
  const latest = newest(['web', 'core', 'package-lock.json']);
  if (existsSync(stamp) && Number(readFileSync(stamp, 'utf8')) >= latest) return;
  say('building the screens');
  if ((await show('npx', ['--no-install', 'vite', 'build', 'web', '--logLevel', 'warn'])) !== 0) fail('The screens could not be built. The lines above say where.');
  writeFileSync(stamp, String(latest));
}

if (process.argv[1]?.endsWith('start.mjs')) {
  needNode();
  await needPackages();
  await needBuild();
  const database = await needPostgres('postgres', { keep: true });
  say('starting the server');
  // Its own process group: Ctrl-C reaches this script alone, which then stops server and database in order.
  const server = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'inherit'],
    detached: true,
    env: { LOG_LEVEL: 'warn', ...process.env, DATABASE_URL: database.url },
  });
  server.stdout.on('data', (chunk) => process.stdout.write(String(chunk).replace(/^ready on (.*)$/m, 'yellow-pin: open $1 (Ctrl-C stops everything)')));
  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    say('stopping');
    server.kill('SIGTERM');
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  server.on('exit', (code) => {
    database.stop();
    process.exit(stopping ? 0 : (code ?? 1));
  });
}
