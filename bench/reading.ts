import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { demoPartPath } from '@yellow-pin/demo/jobs';
import { plateStep } from '@yellow-pin/demo/plate-step';
import { readStep } from '@yellow-pin/kernel';
import { openCascade } from '@yellow-pin/kernel/opencascade';
import { WARM_STEPS } from '@yellow-pin/server/work/read-request';
import { needBuild } from '../scripts/lib/build.mjs';
import { exponent, type Line } from './growth.ts';

const PARTS = [
  'hatch-cover',
  'mooring-rail',
  'sensor-carrier',
  'manifold-block',
  'adapter-plate',
  'vent-cap',
];
const SIZES = [500, 1000, 2000];

interface ByItself {
  /** Up to its features, s. */
  seconds: number;
  /** With its picture, packed to be stored. */
  all: number;
  /** The most memory that it took. */
  megabytes: number;
}

/** A plate read by the server's work as it is built, in a new process or in one that got ready as the server's does. */
function byItself(plate: Uint8Array, state: 'new' | 'ready'): ByItself {
  const folder = mkdtempSync(join(tmpdir(), 'bench-'));
  try {
    const path = join(folder, 'plate.step');
    writeFileSync(path, plate);
    const script = fileURLToPath(new URL('./memory.mjs', import.meta.url));
    const said = execFileSync(process.execPath, [script, path, state, String(WARM_STEPS)], {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    return JSON.parse(said) as ByItself;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Both readers in one run: the sample parts, plates of three sizes, and what it takes up to the features. */
export async function readingLines(): Promise<Line[]> {
  const parts = PARTS.map((name) => readFileSync(demoPartPath(`${name}.step`)));
  const plates = SIZES.map((holes) => new TextEncoder().encode(plateStep({ holes })));
  const largest = plates[plates.length - 1]!;
  const timed = async (work: () => Promise<unknown>): Promise<number> => {
    const start = performance.now();
    await work();
    return (performance.now() - start) / 1000;
  };
  const best = async (times: number, work: () => Promise<unknown>): Promise<number> => {
    let least = Infinity;
    for (let i = 0; i < times; i++) least = Math.min(least, await timed(work));
    return least;
  };
  const all = (reader: 'own' | 'kernel') => async () => {
    for (const bytes of parts) await readStep(bytes, { reader });
  };
  const own = await best(3, all('own'));
  await needBuild();
  const first = byItself(largest, 'new');
  const ready = byItself(largest, 'ready');
  const byOwn: number[] = [];
  for (const plate of plates) byOwn.push(await best(3, () => readStep(plate, { reader: 'own' })));
  await openCascade();
  const kernel = await best(3, all('kernel'));
  const plateByKernel = await timed(() => readStep(largest, { reader: 'kernel' }));
  const plateByOwn = byOwn[byOwn.length - 1]!;
  const slope = exponent(SIZES.map((n, i) => [n, byOwn[i]!]));
  const line = (what: string, value: number, unit: string, goal: string, met: boolean): Line => ({
    what,
    value,
    unit,
    goal,
    met,
  });
  return [
    line('own reader: the six sample parts', own, 's', '< 1', own < 1),
    line('the kernel’s time for them, by ours', kernel / own, '×', '', true),
    line('own reader: a plate with 2,000 holes', plateByOwn, 's', '< 1', plateByOwn < 1),
    line(
      'the kernel’s time for it, by ours',
      plateByKernel / plateByOwn,
      '×',
      '> 20',
      plateByKernel > 20 * plateByOwn,
    ),
    line('that plate to its features, in a new process', first.seconds, 's', '', true),
    line('the same in the server’s, which got ready', ready.seconds, 's', '< 1.5', ready.seconds < 1.5),
    line('there with its picture, packed to be stored', ready.all, 's', '', true),
    line('memory for it at the most', ready.megabytes, 'MB', '< 500', ready.megabytes < 500),
    line('growth of reading with holes, exponent', slope, '', '< 1.2', slope < 1.2),
  ];
}
