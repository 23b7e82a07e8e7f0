// The screens, and the server's work as plain JavaScript: each built when a source is newer than the last build.
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fail, newest, ROOT, say, show } from './run.mjs';

/** What is built, and out of which folders. */
const BUILDS = [
  { what: 'the screens', folder: 'web', sources: ['web', 'core', 'package-lock.json'] },
  {
    what: 'the work of the server',
    folder: 'server',
    sources: ['server', 'core', 'kernel', 'demo', 'package-lock.json'],
  },
];

export async function needBuild() {
  for (const { what, folder, sources } of BUILDS) {
    const stamp = join(ROOT, folder, 'dist', '.built');
    const latest = newest(sources);
    if (existsSync(stamp) && Number(readFileSync(stamp, 'utf8')) >= latest) continue;
    say(`building ${what}`);
    if ((await show('npx', ['--no-install', 'vite', 'build', folder, '--logLevel', 'warn'])) !== 0)
      fail(`Building ${what} failed. The lines above say where.`);
    writeFileSync(stamp, String(latest));
  }
}
