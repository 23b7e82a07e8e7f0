// What must be there before anything runs: Node, npm packages, room on the disk.
import { existsSync, mkdirSync, statfsSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { fail, ROOT, say, show } from './run.mjs';

export function needNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    fail(`Node.js ${process.versions.node} is too old. Install Node.js 20.19 or later.`);
}

/** Installs npm packages when there are none, or the lock file is newer. */
export async function needPackages() {
  const marker = join(ROOT, 'node_modules', '.package-lock.json');
  if (existsSync(marker) && statSync(marker).mtimeMs >= statSync(join(ROOT, 'package-lock.json')).mtimeMs)
    return;
  say('installing npm packages');
  if ((await show('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'])) !== 0)
    fail('npm packages could not be installed. Check the network, then run the command again.');
}

/** Below this nothing can be stored for long, MB. */
const LEAST_ROOM = 150;

/** Ends with a word where the disk below a folder is full: later it would be in the middle of something. */
export function needRoom(folder) {
  mkdirSync(folder, { recursive: true });
  const { bavail, bsize } = statfsSync(folder);
  const mb = Math.floor((bavail * bsize) / 1048576);
  if (mb < LEAST_ROOM)
    fail(
      `The disk that holds ${folder} is full: ${mb} MB are left, ${LEAST_ROOM} MB are needed. Make room, then run the command again.`,
    );
}
