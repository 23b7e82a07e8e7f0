// The server's own process: never as root.
import { spawn } from 'node:child_process';
import { chownSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { known } from './processes.mjs';
import { asUser, DATA, fail, idsOf, isRoot, ROOT, run, say, SERVER_USER } from './run.mjs';

/** Reads past private folders, and nothing more. */
const READ_ONLY = [
  '--inh-caps=-all,+dac_read_search',
  '--ambient-caps=-all,+dac_read_search',
  '--bounding-set=-all,+dac_read_search',
];
const NO_RIGHTS = ['--no-new-privs', '--inh-caps=-all', '--bounding-set=-all'];

/** Folders of the data that the server itself writes to. */
const OWN_FOLDERS = ['machine'];

/** Makes them, and gives them to the user that it runs as. */
export function needServerFolders() {
  for (const path of OWN_FOLDERS.map((name) => join(DATA, name))) {
    mkdirSync(path, { recursive: true });
    if (isRoot()) chownSync(path, ...idsOf(SERVER_USER));
  }
}

/** How a command is run with no more rights than a server needs. */
function unprivileged(command, args) {
  if (!isRoot()) return [command, args];
  // By reading: what "may be read" is asked without regard to such rights (access(2)).
  const reads = (more) =>
    run(...asUser(SERVER_USER, 'cat', [join(ROOT, 'server', 'src', 'main.ts')], more), { cwd: '/' })
      .status === 0;
  if (reads(NO_RIGHTS)) return asUser(SERVER_USER, command, args, NO_RIGHTS);
  if (!reads(READ_ONLY))
    fail(
      `The server does not run as root, and the user ${SERVER_USER} cannot read ${ROOT}. Move it to a folder that others may read, or start it as another user.`,
    );
  say(`the folder is root's own: the server runs as ${SERVER_USER} with the right to read it`);
  return asUser(SERVER_USER, command, args, READ_ONLY);
}

/** How the server is run. Ends with a word where it cannot be without being root. */
export const serverCommand = () => unprivileged(process.execPath, ['--import', 'tsx', 'server/src/main.ts']);

/** Falls in a row, in this time, after which it is not begun again. */
const [MOST_FALLS, WITHIN_MS] = [5, 60_000];

/**
 * Runs the server by its {@link serverCommand}, and begins it again when it falls after it was ready; what it was reading is taken up then.
 * `onStart` gets its process, `onReady` its address, `onEnd` its code when it is over for good. Gives { stop }.
 */
export function runServer([command, args], databaseUrl, { onStart, onReady, onEnd }) {
  let falls = [];
  let isStopping = false;
  let port = process.env.PORT;
  let child;
  const begin = () => {
    let isReady = false;
    // Its own process group: Ctrl-C reaches the start script alone, which then stops all in order.
    child = spawn(command, args, {
      cwd: ROOT,
      stdio: ['ignore', 'pipe', 'inherit'],
      detached: true,
      env: {
        LOG_LEVEL: 'warn',
        ...process.env,
        ...(port ? { PORT: port } : {}),
        DATABASE_URL: databaseUrl,
        // The start script has just seen to that.
        YELLOW_PIN_BUILT: 'yes',
      },
    });
    onStart(known(child.pid));
    let line = '';
    child.stdout.on('data', (chunk) => {
      line = (line + chunk).slice(-1000);
      const url = /^ready on (.*)$/m.exec(line)?.[1];
      if (url && !isReady) {
        isReady = true;
        // The same address again after a fall: pages that are open find it.
        port = new URL(url).port || port;
        // What came with it is passed on like all else.
        process.stdout.write(String(chunk).replace(/^ready on .*\n?/m, ''));
        onReady(url);
      } else process.stdout.write(chunk);
    });
    child.on('exit', (code) => {
      const now = Date.now();
      falls = [...falls.filter((t) => now - t < WITHIN_MS), now];
      if (isStopping || !isReady || falls.length > MOST_FALLS) return onEnd(isStopping ? 0 : (code ?? 1));
      say('the server ended unexpectedly; it is started again');
      begin();
    });
  };
  begin();
  return {
    stop: () => {
      isStopping = true;
      child.kill('SIGTERM');
    },
  };
}
