// Looks after a server from a thread of its own, so that nothing the bench does itself counts as the server's.
import { readdirSync, readFileSync } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';

const { url, pid } = workerData;
const seen = { slowest: 0, missing: 0, memory: 0 };
let stop = false;
parentPort.on('message', () => (stop = true));

const status = (of) => {
  try {
    return readFileSync(`/proc/${of}/status`, 'utf8');
  } catch {
    return '';
  }
};
const rss = (text) => Number(/VmRSS:\s*(\d+)/.exec(text)?.[1] ?? 0) / 1024;

/** Memory of the server and its children, MB. */
function memory() {
  const children = readdirSync('/proc').flatMap((name) => {
    const text = /^\d+$/.test(name) ? status(name) : '';
    return Number(/PPid:\s*(\d+)/.exec(text)?.[1]) === pid ? [rss(text)] : [];
  });
  return children.reduce((sum, mb) => sum + mb, rss(status(pid)));
}

while (!stop) {
  const start = performance.now();
  const ok = await fetch(`${url}/api/health`, { signal: AbortSignal.timeout(10_000) }).then(
    (r) => r.ok,
    () => false,
  );
  seen.slowest = Math.max(seen.slowest, performance.now() - start);
  if (!ok) seen.missing++;
  seen.memory = Math.max(seen.memory, memory());
  await new Promise((resolve) => setTimeout(resolve, 50));
}
parentPort.postMessage(seen);
parentPort.close();
