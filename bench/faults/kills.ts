import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { chance } from '@yellow-pin/demo/mutate';
import { plateStep } from '@yellow-pin/demo/plate-step';
import { atMost, type Figure } from './report.ts';
import { childrenOf, settled, sleep, startServer, upload, type RunningServer } from './server.ts';

/** Takes some seconds to read. */
const LARGE = plateStep({ holes: 400 });

/** Our own PostgreSQL's folder and programs. */
export interface Postgres {
  url: string;
  data: string;
  bin: string;
}

/** As the database's own user, where we are root. */
function control({ bin, data }: Postgres, ...args: string[]): void {
  const command = [join(bin, 'pg_ctl'), '-D', data, '-w', ...args];
  const asUser =
    process.getuid?.() === 0
      ? ['setpriv', '--reuid=postgres', '--regid=postgres', '--clear-groups', ...command]
      : command;
  spawnSync(asUser[0]!, asUser.slice(1), { cwd: '/' });
}

const health = (server: RunningServer): Promise<{ ok: boolean; database: string } | null> =>
  fetch(`${server.url}/api/health`).then(
    async (r) => (await r.json()) as { ok: boolean; database: string },
    () => null,
  );

/** The server, its reader and the database killed at any moment of an import. */
export async function kills(
  databaseUrl: string,
  count: number,
  postgres: Postgres | null,
): Promise<Figure[]> {
  const random = chance(3);
  let [stuck, blamed, slowest] = [0, 0, 0];
  let server = await startServer(databaseUrl);
  for (let i = 0; i < count; i++) {
    const { body } = await upload(server, LARGE, `kill-${i}.step`);
    await sleep(3000 * random());
    // The one way after the other: the whole server, its reader, the server told to stop.
    if (i % 3 === 1) {
      for (const pid of childrenOf(server.child.pid!)) process.kill(pid, 'SIGKILL');
    } else {
      await server.stop(i % 3 === 0 ? 'SIGKILL' : 'SIGTERM');
      server = await startServer(databaseUrl);
    }
    const from = Date.now();
    const status = await settled(server, body.id ?? '');
    slowest = Math.max(slowest, (Date.now() - from) / 1000);
    if (status === 'stuck') stuck++;
    else if (status !== 'ready') blamed++;
  }
  // Twice over the same import.
  const { body: twice } = await upload(server, LARGE, 'twice.step');
  for (let i = 0; i < 2; i++) {
    await sleep(1500);
    await server.stop('SIGKILL');
    server = await startServer(databaseUrl);
  }
  if ((await settled(server, twice.id ?? '')) === 'stuck') stuck++;
  const listed = (await (await fetch(`${server.url}/api/jobs?search=kill-`)).json()) as { total: number };
  const lost = count - listed.total;

  let [down, wrongHealth, away] = [0, 0, 'ready'];
  if (postgres) {
    const { body } = await upload(server, LARGE, 'away.step');
    await sleep(1500);
    control(postgres, '-m', 'immediate', 'stop');
    await sleep(500);
    if ((await health(server))?.database !== 'down') wrongHealth++;
    await sleep(3000);
    control(postgres, '-l', join(postgres.data, 'server.log'), '-o', optionsOf(postgres), 'start');
    away = await settled(server, body.id ?? '');
    if (server.child.exitCode !== null) down++;
    if ((await health(server))?.database !== 'up') wrongHealth++;
  }
  await server.stop();
  return [
    atMost(`${count} kills during an import: never ended`, stuck, 0),
    atMost('  parts blamed for a kill', blamed, 0),
    atMost('  jobs lost', lost, 0),
    atMost('  slowest to be taken up and read', Math.round(slowest), 60, 's'),
    ...(postgres
      ? [
          atMost('database stopped and started during an import: server ended', down, 0),
          atMost('  import not read afterwards', away === 'ready' ? 0 : 1, 0),
          atMost('  health said what is not true', wrongHealth, 0),
        ]
      : []),
  ];
}

const optionsOf = ({ url }: Postgres): string =>
  `-p ${new URL(url).port} -c listen_addresses=127.0.0.1 -c unix_socket_directories=`;
