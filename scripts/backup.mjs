#!/usr/bin/env node
// npm run backup [-- FILE]: all that a shop has made, its jobs with their files among it, as one file.
import { mkdirSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { nameOf } from './lib/backup-name.mjs';
import { dump } from './lib/dump.mjs';
import { needPostgres } from './lib/postgres.mjs';
import { fail, ROOT, say } from './lib/run.mjs';
import { withDatabase } from './lib/with-database.mjs';

async function main() {
  const [said] = process.argv.slice(2);
  const path = resolve(said ?? join(ROOT, 'backups', nameOf(new Date())));
  mkdirSync(dirname(path), { recursive: true });
  await withDatabase(needPostgres, async (url) => {
    const problem = await dump(url, path);
    if (problem !== null) fail(`The copy could not be made: ${problem} Nothing was written.`);
    say(`backed up to ${path} (${(statSync(path).size / 1048576).toFixed(1)} MB)`);
  });
}

main().catch((error) => fail(`The copy could not be made: ${error.message}`));
