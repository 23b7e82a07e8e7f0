#!/usr/bin/env node
// npm run restore -- FILE [--replace]: puts a backup in place of what the database has.
import { existsSync, mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import pg from 'pg';
import { nameOf } from './lib/backup-name.mjs';
import { dump, faultOf, migrationsOf, restore } from './lib/dump.mjs';
import { isServed } from './lib/instance.mjs';
import { needPostgres } from './lib/postgres.mjs';
import { fail, ROOT, say } from './lib/run.mjs';
import { withDatabase } from './lib/with-database.mjs';
import { knownMigrations } from './lib/known-migrations.mjs';

async function main() {
  const args = process.argv.slice(2);
  const [file] = args.filter((a) => !a.startsWith('--'));
  if (!file) fail('Which backup? Use: npm run restore -- FILE [--replace]');
  const path = resolve(file);
  if (!existsSync(path)) fail(`${path} is not there. Name the file that npm run backup has written.`);
  if (!process.env.DATABASE_URL && isServed())
    fail(
      'Yellow Pin is running. Stop it first (Ctrl-C where it was started), then restore. Nothing was changed.',
    );
  const fault = await faultOf(path);
  if (fault !== null) fail(`${path} cannot be restored: ${fault}. Nothing was changed.`);
  const known = new Set(knownMigrations());
  const newer = (await migrationsOf(path)).filter((m) => !known.has(m));
  if (newer.length > 0)
    fail(
      `${path} was made by a newer Yellow Pin (${newer.join(', ')}). Update this one first. Nothing was changed.`,
    );
  await withDatabase(needPostgres, async (url) => {
    const jobs = await countJobs(url);
    if (jobs > 0 && !args.includes('--replace'))
      fail(
        `The database has ${jobs} jobs, which the backup would take the place of. Say so with --replace; what is there is kept in a file first. Nothing was changed.`,
      );
    if (jobs > 0) {
      const kept = join(ROOT, 'backups', `before-restore-${nameOf(new Date())}`);
      mkdirSync(join(ROOT, 'backups'), { recursive: true });
      const problem = await dump(url, kept);
      if (problem !== null) fail(`What is there could not be kept: ${problem} Nothing was changed.`);
      say(`what was there is kept in ${kept}`);
    }
    const problem = await restore(url, path);
    if (problem !== null) fail(`The backup could not be restored: ${problem} The database is as it was.`);
    say(`restored from ${path}: ${await countJobs(url)} jobs`);
  });
}

/** Jobs that the database has, those in the bin too; 0 where it is new. */
async function countJobs(url) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    const { rows } = await client.query(`SELECT to_regclass('public.jobs') AS name`);
    if (!rows[0].name) return 0;
    return (await client.query('SELECT count(*)::int AS n FROM jobs')).rows[0].n;
  } finally {
    await client.end();
  }
}

main().catch((error) => fail(`The backup could not be restored: ${error.message}`));
