import { readFileSync } from 'node:fs';
import { demoPartPath } from '@yellow-pin/demo/jobs';
import { plateStep } from '@yellow-pin/demo/plate-step';
import { recognise } from '@yellow-pin/core/features/recognise';
import { meshOf } from '@yellow-pin/core/model/mesh';
import { readStep } from '@yellow-pin/kernel';
import { openCascade } from '@yellow-pin/kernel/opencascade';
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
  const first = await timed(async () => {
    const model = await readStep(largest, { reader: 'own' });
    recognise(model, { mesh: meshOf(model) });
  });
  const byOwn: number[] = [];
  for (const plate of plates) byOwn.push(await best(3, () => readStep(plate, { reader: 'own' })));
  const memory = process.memoryUsage().rss / 1048576;
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
    line('that plate, first time, to its features', first, 's', '< 1.5', first < 1.5),
    line('growth of reading with holes, exponent', slope, '', '< 1.2', slope < 1.2),
    line('memory after it', memory, 'MB', '< 500', memory < 500),
  ];
}
