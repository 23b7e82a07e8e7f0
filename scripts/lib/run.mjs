// Small helpers for the scripts: they run before anything is installed, so they use Node alone.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { createServer } from 'node:net';
import { fileURLToPath } from 'node:url';

export const ROOT = dirname(dirname(dirname(fileURLToPath(import.meta.url))));

/** Where everything that is kept lies: database, its password, what runs. */
export const DATA = process.env.YELLOW_PIN_DATA || join(ROOT, '.data');

export const say = (text) => process.stdout.write(`yellow-pin: ${text}\n`);

/** Ends with a sentence that says what to do. */
export function fail(text) {
  process.stderr.write(`yellow-pin: ${text}\n`);
  process.exit(1);
}

/** Runs a command to its end; gives { status, stdout, stderr }. */
export function run(command, args, options = {}) {
  return spawnSync(command, args, { cwd: ROOT, encoding: 'utf8', ...options });
}

/** Runs a command with its output shown; gives the exit code. */
export function show(command, args, options = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: 'inherit', ...options });
    child.on('error', (error) => {
      process.stderr.write(`yellow-pin: ${command}: ${error.message}\n`);
      resolve(127);
    });
    child.on('exit', (code, signal) => resolve(signal ? 1 : (code ?? 1)));
  });
}

export const isRoot = () => process.getuid?.() === 0;

/** The unprivileged users that database and server run as when we are root. */
export const DATABASE_USER = 'postgres';
export const SERVER_USER = 'nobody';

/** A command and its arguments as another user, for root; `more` goes to setpriv. */
export const asUser = (user, command, args, more = []) => [
  'setpriv',
  [`--reuid=${user}`, `--regid=${groupOf(user)}`, '--clear-groups', ...more, command, ...args],
];
const groupOf = (user) => run('id', ['-g', user]).stdout.trim();

/** User and group of a name, as numbers. */
export const idsOf = (user) => ['-u', '-g'].map((flag) => Number(run('id', [flag, user]).stdout));

export const sleep = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** A port that nothing listens on. */
export function freePort() {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.on('error', reject);
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => resolve(port));
    });
  });
}

/** Newest change below some paths, ms since 1970. */
export function newest(paths) {
  let latest = 0;
  const walk = (path) => {
    const s = statSync(path);
    latest = Math.max(latest, s.mtimeMs);
    if (!s.isDirectory()) return;
    for (const name of readdirSync(path))
      if (!['node_modules', 'dist', '.git'].includes(name)) walk(join(path, name));
  };
  for (const p of paths) if (existsSync(join(ROOT, p))) walk(join(ROOT, p));
  return latest;
}

/** Installs packages from Debian when that may be done; gives whether it worked. */
export function aptInstall(packages) {
  if (!isRoot() || run('which', ['apt-get']).status !== 0) return false;
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  run('apt-get', ['update'], { env });
  return (
    run('apt-get', ['install', '-y', '--no-install-recommends', ...packages], { env, timeout: 600_000 })
      .status === 0
  );
}
