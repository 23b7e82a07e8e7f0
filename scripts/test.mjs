#!/usr/bin/env node
// npm test: the same groundwork with a throw-away database, then every check. Ends on the first that fails.
import { existsSync } from 'node:fs';
import { needBuild } from './lib/build.mjs';
import { needNode, needPackages } from './lib/groundwork.mjs';
import { needPostgres, sweepPostgres } from './lib/postgres.mjs';
import { aptInstall, fail, freePort, say, show } from './lib/run.mjs';

needNode();
await needPackages();
const chromium = ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find((p) => existsSync(p));
if (!chromium && !process.env.CHROMIUM) {
  say('installing Chromium from Debian');
  if (!aptInstall(['chromium']))
    fail(
      'Chromium is not installed and cannot be installed from here. Run "apt-get install chromium" as root, or set CHROMIUM to its path.',
    );
}
await needBuild();
if (!process.env.DATABASE_URL) sweepPostgres('test-postgres');
// Its own for each run: two at a time are in nobody's way.
const database = await needPostgres(`test-postgres-${process.pid}`, { keep: false });
process.on('exit', () => database.stop());
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => process.exit(1));
const env = {
  ...process.env,
  DATABASE_URL: database.url,
  CHROMIUM: process.env.CHROMIUM ?? chromium ?? '/usr/bin/chromium',
  E2E_PORT: String(await freePort()),
};

const steps = [
  ['formatting', 'npx', ['--no-install', 'prettier', '--check', '--log-level', 'warn', '.']],
  ['lint', 'npx', ['--no-install', 'eslint', '.']],
  ['types', 'npx', ['--no-install', 'tsc', '-p', 'tsconfig.check.json']],
  ['unit and server tests', 'npx', ['--no-install', 'vitest', 'run']],
  ['browser tests', 'npx', ['--no-install', 'playwright', 'test']],
];
for (const [what, command, args] of steps) {
  say(`checking: ${what}`);
  if ((await show(command, args, { env })) !== 0) fail(`${what} failed; the lines above say where.`);
}
say('all checks passed');
