import { spawn, type ChildProcess } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';

const ROOT = fileURLToPath(new URL('../../', import.meta.url));

export interface RunningServer {
  url: string;
  child: ChildProcess;
  /** Headers with the cookie that writes need. */
  headers: Record<string, string>;
  /** Resident memory of the server and its children, MB. */
  memory(): number;
  stop(signal?: NodeJS.Signals): Promise<number | null>;
}

/** Starts the real server on a database, as npm start does. */
export async function startServer(
  databaseUrl: string,
  env: Record<string, string> = {},
): Promise<RunningServer> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      PORT: '0',
      LOG_LEVEL: 'error',
      YELLOW_PIN_DEMO: 'no',
      ...env,
    },
  });
  let text = '';
  const url = await new Promise<string>((resolve, reject) => {
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (chunk: Buffer) => {
        text = (text + String(chunk)).slice(-4000);
        const ready = /ready on (\S+)/.exec(text)?.[1];
        if (ready) resolve(ready);
      });
    child.on('exit', (code) => reject(new Error(`the server ended with ${code}: ${text}`)));
  });
  const cookie = (await fetch(`${url}/api/session`)).headers.get('set-cookie')?.split(';')[0] ?? '';
  return {
    url,
    child,
    headers: { cookie },
    memory: () => [child.pid!, ...childrenOf(child.pid!)].reduce((sum, pid) => sum + rssOf(pid), 0),
    stop: (signal = 'SIGTERM') =>
      new Promise((resolve) => {
        if (child.exitCode !== null || child.signalCode !== null) return resolve(child.exitCode);
        child.once('exit', (code) => resolve(code));
        child.kill(signal);
      }),
  };
}

/** Resident memory of a process, MB. */
export function rssOf(pid: number): number {
  try {
    return Number(/VmRSS:\s*(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;
  } catch {
    return 0;
  }
}

export const childrenOf = (pid: number): number[] =>
  readdirSync('/proc').flatMap((name) => {
    try {
      const parent = /PPid:\s*(\d+)/.exec(readFileSync(`/proc/${name}/status`, 'utf8'))?.[1];
      return Number(parent) === pid ? [Number(name)] : [];
    } catch {
      return [];
    }
  });

/** Sends a file as a browser does. */
export async function upload(
  { url, headers }: RunningServer,
  file: Blob | string | Uint8Array<ArrayBuffer>,
  name = 'part.step',
  path = '/api/jobs',
): Promise<{ status: number; body: { id?: string; code?: string } }> {
  const form = new FormData();
  form.append('file', file instanceof Blob ? file : new Blob([file]), name);
  const response = await fetch(url + path, { method: 'POST', body: form, headers });
  return { status: response.status, body: (await response.json()) as { id?: string; code?: string } };
}

export const sleep = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** Waits until a job is read, one way or the other; gives its status, or "stuck". */
export async function settled({ url }: RunningServer, id: string, seconds = 90): Promise<string> {
  for (const end = Date.now() + 1000 * seconds; Date.now() < end; await sleep(150)) {
    const response = await fetch(`${url}/api/jobs/${id}`).catch(() => null);
    if (!response?.ok) continue;
    const { job } = (await response.json()) as { job: { status: string } };
    if (job.status !== 'reading') return job.status;
  }
  return 'stuck';
}

/** What was seen of a server meanwhile: its slowest answer, ms; answers missing; most memory with its children, MB. */
export interface Seen {
  slowest: number;
  missing: number;
  memory: number;
}

/** Asks after the health and looks at the memory again and again, from a thread of its own, until it is called. */
export function watch({ url, child }: RunningServer): () => Promise<Seen> {
  const worker = new Worker(new URL('./watcher.mjs', import.meta.url), {
    workerData: { url, pid: child.pid },
  });
  const seen = new Promise<Seen>((resolve, reject) => {
    worker.on('message', resolve);
    worker.on('error', reject);
  });
  return () => {
    worker.postMessage('stop');
    return seen;
  };
}
