// What must be there before anything runs: Node, npm packages, PostgreSQL.
import { createHash } from 'node:crypto';
import { chownSync, existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { aptInstall, fail, freePort, isRoot, ROOT, run, say, show } from './run.mjs';

export function needNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) fail(`Node.js ${process.versions.node} is too old. Install Node.js 20.19 or later.`);
}

/** Installs npm packages when there are none, or the lock file is newer. */
export async function needPackages() {
  const marker = join(ROOT, 'node_modules', '.package-lock.json');
  if (existsSync(marker) && statSync(marker).mtimeMs >= statSync(join(ROOT, 'package-lock.json')).mtimeMs) return;
  say('installing npm packages');
  if ((await show('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'])) !== 0) fail('npm packages could not be installed. Check the network, then run the command again.');
}

function postgresFolder() {
  const base = '/usr/lib/postgresql';
  const versions = existsSync(base) ? readdirSync(base).filter((v) => existsSync(join(base, v, 'bin', 'initdb'))) : [];
  if (versions.length > 0) return join(base, versions.sort((a, b) => Number(b) - Number(a))[0], 'bin');
  const found = run('which', ['initdb']);
  return found.status === 0 ? found.stdout.trim().replace(/\/initdb$/, '') : null;
}

/** The unprivileged user that runs the database when we are root. */
const DATABASE_USER = 'postgres';

function asDatabaseUser(command, args) {
  return isRoot() ? run('setpriv', [`--reuid=${DATABASE_USER}`, `--regid=${DATABASE_USER}`, '--clear-groups', command, ...args], { cwd: '/' }) : run(command, args);
}

/** A folder the database user can reach: below .data, or in /var/tmp when the project lies in a private folder. */
function dataFolder(name) {
  const wanted = join(ROOT, '.data');
  mkdirSync(wanted, { recursive: true });
  if (!isRoot() || asDatabaseUser('test', ['-x', wanted]).status === 0) return join(wanted, name);
  const hash = createHash('sha256').update(ROOT).digest('hex').slice(0, 12);
  const outside = `/var/tmp/yellow-pin-${hash}`;
  mkdirSync(outside, { recursive: true });
  return join(outside, name);
}

/**
 * A running PostgreSQL: the one of DATABASE_URL, or our own on loopback with its data in `name`.
 * `keep: false` throws the data away at the end. Gives { url, stop }.
 */
export async function needPostgres(name, { keep }) {
  if (process.env.DATABASE_URL) return { url: process.env.DATABASE_URL, stop: () => undefined };
  let bin = postgresFolder();
  if (!bin) {
    say('installing PostgreSQL from Debian');
    if (!aptInstall(['postgresql'])) fail('PostgreSQL is not installed and cannot be installed from here. Run "apt-get install postgresql" as root, or set DATABASE_URL.');
    bin = postgresFolder();
  }
  if (!bin) fail('PostgreSQL was installed but its initdb was not found. Set DATABASE_URL to a running server.');
  const data = dataFolder(name);
  if (!keep) rmSync(data, { recursive: true, force: true });
  if (!existsSync(join(data, 'PG_VERSION'))) {
    say('making the database');
    mkdirSync(data, { recursive: true, mode: 0o700 });
    if (isRoot()) {
      const id = (flag) => Number(run('id', [flag, DATABASE_USER]).stdout);
      chownSync(data, id('-u'), id('-g'));
    }
    const made = asDatabaseUser(join(bin, 'initdb'), ['-D', data, '-U', 'yellow_pin', '-A', 'trust', '-E', 'UTF8', '--no-locale', '--no-sync']);
    if (made.status !== 0) fail(`The database could not be made in ${data}: ${made.stderr.trim().split('\n').pop()}. Delete that folder and try again.`);
  }
  const control = (...args) => asDatabaseUser(join(bin, 'pg_ctl'), ['-D', data, ...args]);
  let port;
  if (control('status').status === 0) {
    port = Number(asDatabaseUser('cat', [join(data, 'postmaster.pid')]).stdout.split('\n')[3]);
    say('PostgreSQL is running already');
  } else {
    say('starting PostgreSQL on loopback');
    port = await freePort();
    const started = control(
      '-w',
      '-t',
      '60',
      '-l',
      join(data, 'server.log'),
      '-o',
      `-p ${port} -c listen_addresses=127.0.0.1 -c unix_socket_directories= -c fsync=${keep ? 'on' : 'off'}`,
      'start',
    );
    if (started.status !== 0) {
      const log = existsSync(join(data, 'server.log')) ? readFileSync(join(data, 'server.log'), 'utf8').trim().split('\n').slice(-3).join(' ') : started.stderr;
      fail(`PostgreSQL did not start: ${log} See ${join(data, 'server.log')}.`);
    }
  }
  return {
    url: `postgres://yellow_pin@127.0.0.1:${port}/postgres`,
    stop: () => {
      control('-m', 'fast', '-w', '-t', '20', 'stop');
      if (!keep) rmSync(data, { recursive: true, force: true });
    },
  };
}
