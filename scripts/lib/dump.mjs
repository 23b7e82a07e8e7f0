// PostgreSQL's own programs for copies of a whole database, wherever Debian has put them.
import { spawn } from 'node:child_process';
import { createWriteStream, existsSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { fail, run } from './run.mjs';

const BASE = '/usr/lib/postgresql';
/** What is of the moment and no part of what a shop has made: who is signed in, who has a page open, work under way. */
const PASSING = ['public.sessions', 'public.presence'];

/** A program of PostgreSQL: the newest installed, which reads what older ones wrote. */
function program(name) {
  const versions = existsSync(BASE) ? readdirSync(BASE).sort((a, b) => Number(b) - Number(a)) : [];
  const found = versions.map((v) => join(BASE, v, 'bin', name)).find((p) => existsSync(p));
  if (found) return found;
  if (run('which', [name]).status === 0) return name;
  return fail(`${name} is not installed. Run "apt-get install postgresql-client" as root.`);
}

/** The database's address as the programs take it without a password in the list of processes. */
export function connection(url) {
  const u = new URL(url);
  return {
    PGHOST: u.hostname,
    PGPORT: u.port || '5432',
    PGUSER: decodeURIComponent(u.username),
    PGPASSWORD: decodeURIComponent(u.password),
    PGDATABASE: decodeURIComponent(u.pathname.slice(1)),
  };
}

/** Runs a program to its end; gives what it said where something went wrong. */
function ended(child) {
  let said = '';
  child.stderr.on('data', (d) => (said += d));
  return new Promise((resolve) => {
    child.on('error', (e) => resolve(e.message));
    child.on('close', (code) => resolve(code === 0 ? null : lastLine(said)));
  });
}

/** What went wrong, in one line: PostgreSQL says it first and gives hints after. */
const lastLine = (said) => {
  const lines = said.trim().split('\n');
  return lines.find((l) => /error|fatal/i.test(l)) ?? lines[lines.length - 1] ?? '';
};

/** Writes a copy of the whole database to a file: all of it, or no file. Gives what went wrong, or null. */
export async function dump(url, path) {
  const part = `${path}.part`;
  const child = spawn(
    program('pg_dump'),
    [
      '--format=custom',
      '--no-owner',
      '--no-privileges',
      '--schema=public',
      ...PASSING.map((t) => `--exclude-table-data=${t}`),
    ],
    { env: { ...process.env, ...connection(url) }, stdio: ['ignore', 'pipe', 'pipe'] },
  );
  const end = ended(child);
  try {
    await pipeline(child.stdout, createWriteStream(part, { mode: 0o600, flags: 'w' }));
  } catch (error) {
    child.kill();
    rmSync(part, { force: true });
    return error.message;
  }
  const problem = await end;
  if (problem !== null) rmSync(part, { force: true });
  else renameSync(part, path);
  return problem;
}

/** What stands against a file as a copy; null where it is one, whole as far as its list of contents tells. */
export async function faultOf(path) {
  const child = spawn(program('pg_restore'), ['--list', path], { stdio: ['ignore', 'pipe', 'pipe'] });
  let list = '';
  child.stdout.on('data', (d) => (list += d));
  const problem = await ended(child);
  if (problem !== null) return problem;
  return /TABLE DATA public migrations /.test(list) ? null : 'it holds no Yellow Pin database';
}

/** The migrations that a copy was made with. */
export async function migrationsOf(path) {
  const child = spawn(program('pg_restore'), ['--data-only', '--table=migrations', '--file=-', path], {
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let text = '';
  child.stdout.on('data', (d) => (text += d));
  await ended(child);
  return [...text.matchAll(/^\d+\t\d+\t(\S+)$/gm)].map((m) => m[1]);
}

/** Puts a copy in place of what the database has: in one transaction, so all of it or nothing. Gives what went wrong, or null. */
export async function restore(url, path) {
  const env = { ...process.env, ...connection(url) };
  const reader = spawn(program('pg_restore'), ['--no-owner', '--no-privileges', '--file=-', path], {
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  const writer = spawn(
    program('psql'),
    ['--quiet', '--no-psqlrc', '--single-transaction', '--set=ON_ERROR_STOP=1', '--output=/dev/null'],
    { env, stdio: ['pipe', 'ignore', 'pipe'] },
  );
  const [read, written] = [ended(reader), ended(writer)];
  writer.stdin.on('error', () => undefined);
  // Work that was queued then is queued anew by whoever finds it undone.
  writer.stdin.write('DROP SCHEMA IF EXISTS queue CASCADE; DROP SCHEMA IF EXISTS public CASCADE;\n');
  let cut = null;
  reader.stdout.on('data', (chunk) => {
    if (!writer.stdin.write(chunk)) {
      reader.stdout.pause();
      writer.stdin.once('drain', () => reader.stdout.resume());
    }
  });
  const problem = await read;
  // A copy that could not be read to its end must not be put in place: the transaction is given up.
  if (problem !== null) {
    cut = problem;
    writer.stdin.end('\nSELECT 1/0;\n');
  } else writer.stdin.end();
  const failed = await written;
  return cut ?? failed;
}
