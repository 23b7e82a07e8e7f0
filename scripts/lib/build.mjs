// The screens, built when a source is newer than the last build.
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fail, newest, ROOT, say, show } from './run.mjs';

export async function needBuild() {
  const stamp = join(ROOT, 'web', 'dist', '.built');
  const latest = newest(['web', 'core', 'package-lock.json']);
  if (existsSync(stamp) && Number(readFileSync(stamp, 'utf8')) >= latest) return;
  say('building the screens');
  if ((await show('npx', ['--no-install', 'vite', 'build', 'web', '--logLevel', 'warn'])) !== 0)
    fail('The screens could not be built. The lines above say where.');
  writeFileSync(stamp, String(latest));
}
