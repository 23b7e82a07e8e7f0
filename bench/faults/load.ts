import { gzipSync } from 'node:zlib';
import { plateStep } from '@yellow-pin/demo/plate-step';
import type { ReadPart, ReadRequest } from '@yellow-pin/server/work/read-request';
import { WorkProcess } from '@yellow-pin/server/work/work-process';
import { atMost, type Figure } from './report.ts';
import { rssOf, settled, sleep, startServer, upload } from './server.ts';

const PER_SECOND = 200;

const quantile = (values: number[], q: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(q * values.length))] ?? 0;

/** Saves, openings and lists at 200 a second, while a part is read beside them. */
export async function load(databaseUrl: string, seconds: number): Promise<Figure[]> {
  const server = await startServer(databaseUrl);
  const jobs: { id: string; plan: unknown; revision: number; saving: boolean }[] = [];
  for (let i = 0; i < 12; i++) {
    const { body } = await upload(server, plateStep({ holes: 60 + i }), `load-${i}.step`);
    await settled(server, body.id ?? '');
    const open = (await (await fetch(`${server.url}/api/jobs/${body.id}`)).json()) as {
      plan: unknown;
      revision: number;
    };
    jobs.push({ id: body.id!, ...open, saving: false });
  }
  await sleep(1000);
  const saves: number[] = [];
  const others: number[] = [];
  const memory: number[] = [];
  let failed = 0;
  const timed = async (into: number[], ask: () => Promise<Response>): Promise<Response | null> => {
    const start = performance.now();
    try {
      const response = await ask();
      await response.arrayBuffer();
      into.push(performance.now() - start);
      if (response.status >= 500) failed++;
      return response;
    } catch {
      failed++;
      return null;
    }
  };
  const save = async (job: (typeof jobs)[number]): Promise<void> => {
    job.saving = true;
    const response = await timed(saves, () =>
      fetch(`${server.url}/api/jobs/${job.id}/plan`, {
        method: 'PUT',
        headers: { ...server.headers, 'Content-Type': 'application/json' },
        body: JSON.stringify({ revision: job.revision, plan: job.plan }),
      }),
    );
    if (response?.status === 200) job.revision++;
    job.saving = false;
  };
  const start = performance.now();
  const running: Promise<unknown>[] = [];
  for (let n = 0; performance.now() - start < 1000 * seconds; n++) {
    const job = jobs[n % jobs.length]!;
    const { url } = server;
    if (n % 2 === 0 && !job.saving) running.push(save(job));
    else if (n % 8 === 1) running.push(timed(others, () => fetch(`${url}/api/jobs/${job.id}`)));
    else if (n % 8 === 3) running.push(timed(others, () => fetch(`${url}/api/jobs/${job.id}/model`)));
    else running.push(timed(others, () => fetch(`${url}/api/health`)));
    if (n % PER_SECOND === 0) memory.push(rssOf(server.child.pid!));
    const due = ((n + 1) * 1000) / PER_SECOND;
    const wait = due - (performance.now() - start);
    if (wait > 0) await sleep(wait);
  }
  await Promise.all(running);
  await server.stop();
  const third = Math.floor(memory.length / 3);
  const mean = (list: number[]): number => list.reduce((s, v) => s + v, 0) / (list.length || 1);
  const rate = (saves.length + others.length) / seconds;
  return [
    atMost(
      `${Math.round(rate)} requests a second for ${seconds} s (${saves.length} saves): failed`,
      failed,
      0,
    ),
    atMost('  save, 99 of 100 within', Math.round(quantile(saves, 0.99)), 250, 'ms'),
    atMost('  other answers, 99 of 100 within', Math.round(quantile(others, 0.99)), 500, 'ms'),
    atMost(
      '  memory of the last third against the second',
      Math.round((100 * mean(memory.slice(2 * third))) / mean(memory.slice(third, 2 * third))),
      120,
      '%',
    ),
  ];
}

/** Memory of the process that reads, over many imports. */
export async function manyImports(count: number): Promise<Figure[]> {
  const reader = new WorkProcess<ReadRequest, ReadPart | null>(
    new URL('../../server/src/work/read-work.ts', import.meta.url),
    { heapMb: 3072, memoryMb: 4096, idleMb: 1228 },
  );
  const files = [4, 9, 16, 25].map((holes) => gzipSync(plateStep({ holes })));
  const memory: number[] = [];
  let replaced = 0;
  let pid = 0;
  for (let i = 0; i < count; i++) {
    await reader.run(
      { kind: 'file', packed: files[i % files.length]!, fileName: 'm.step', sizeLimit: 1e8 },
      { seconds: 60 },
    );
    if (pid !== 0 && reader.pid !== pid) replaced++;
    pid = reader.pid ?? 0;
    memory.push(rssOf(pid));
  }
  await reader.close();
  const around = (i: number): number => quantile(memory.slice(Math.max(0, i - 20), i + 1), 0.5);
  const [early, late] = [around(Math.floor(count / 10)), around(count - 1)];
  return [
    atMost(
      `${count} imports (${Math.round(early)} MB after ${Math.floor(count / 10)}): memory at the end`,
      Math.round((100 * late) / early),
      120,
      '%',
    ),
    atMost('  readers replaced on the way', replaced, 0),
  ];
}
