#!/usr/bin/env node
// npm test: the same groundwork with a throw-away database, then every check. Ends on the first that fails.
import { existsSync } from 'node:fs';
import { needBuild } from './lib/build.mjs';
import { needNode, needPackages } from './lib/groundwork.mjs';
import { needPostgres, sweepPostgres } from './lib/postgres.mjs';
import { aptInstall, fail, freePort, say, show } from './lib/run.mjs';

/** Browsers that test side by side, each with a server and a database of its own. */
const SCREENS = 2;

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
  E2E_PORTS: (await freePorts(SCREENS)).join(','),
  E2E_DATABASES: (await freshDatabases(database.url, SCREENS)).join(','),
};

const steps = [
  ['formatting', 'npx', ['--no-install', 'prettier', '--check', '--log-level', 'warn', '.']],
  ['lint', 'npx', ['--no-install', 'eslint', '.']],
  ['types', 'npx', ['--no-install', 'tsc', '-p', 'tsconfig.check.json']],
  ['unit and server tests', 'npx', ['--no-install', 'vitest', 'run']],
  // As "npm start" runs it: with the server's work as it is built.
  ['browser tests', 'npx', ['--no-install', 'playwright', 'test'], { YELLOW_PIN_BUILT: 'yes' }],
];
for (const [what, command, args, more] of steps) {
  say(`checking: ${what}`);
  if ((await show(command, args, { env: { ...env, ...more } })) !== 0)
    fail(`${what} failed; the lines above say where.`);
}
say('all checks passed');

/** Ports that nobody listens on, all different. */
async function freePorts(count) {
  const ports = new Set();
  while (ports.size < count) ports.add(await freePort());
  return [...ports];
}

/** Empty databases beside the one of an address. */
async function freshDatabases(address, count) {
  // Installed by now: not so when this file was read.
  const { Client } = (await import('pg')).default;
  const client = new Client({ connectionString: address });
  await client.connect();
  const names = Array.from({ length: count }, (_, n) => `yellow_pin_screens_${n + 1}`);
  for (const name of names) {
    await client.query(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
    await client.query(`CREATE DATABASE ${name}`);
  }
  await client.end();
  return names.map((name) => {
    const url = new URL(address);
    url.pathname = `/${name}`;
    return url.href;
  });
}
