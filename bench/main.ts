import { readFileSync } from 'node:fs';
import { plateStep } from '@yellow-pin/demo/plate-step';
import { recognise } from '@yellow-pin/core/features/recognise';
import { meshModel } from '@yellow-pin/core/model/mesh';
import { shortestTour, tourLength } from '@yellow-pin/core/order/tour';
import { readProgram } from '@yellow-pin/core/code/read/read';
import { writeProgram } from '@yellow-pin/core/code/write/write';
import { RIGID_TAP_BUILT_IN } from '@yellow-pin/core/code/profiles/schema';
import type { MotionProgram } from '@yellow-pin/core/motion/program';
import { SHOP } from '@yellow-pin/demo/shop';
import { openCascade } from '@yellow-pin/kernel/opencascade';
import { readStep } from '@yellow-pin/kernel';
import { randomPoints } from './points.ts';

interface Line {
  what: string;
  value: number;
  unit: string;
  goal: string;
  met: boolean;
}

/** Speed of the slow stretches against their goals. Machines are noisy: compare ratios on one machine. */
async function main(): Promise<void> {
  const lines: Line[] = [];
  const timed = async <T>(work: () => T | Promise<T>): Promise<[T, number]> => {
    const start = performance.now();
    const value = await work();
    return [value, (performance.now() - start) / 1000];
  };
  const log = console.log;
  console.log = () => undefined;
  await openCascade();

  const plate = new TextEncoder().encode(plateStep({ holes: 2000 }));
  const [model, read] = await timed(() => readStep(plate));
  lines.push({ what: 'kernel: read a plate with 2,000 holes', value: read, unit: 's', goal: '< 10', met: read < 10 });
  const [mesh, meshing] = await timed(() => meshModel(model));
  lines.push({ what: 'mesh of that plate', value: meshing, unit: 's', goal: '< 1', met: meshing < 1 });
  recognise(await readStep(new TextEncoder().encode(plateStep({ holes: 50 }))));
  const [found, recognising] = await timed(() => recognise(model, { mesh }));
  lines.push({ what: `recognition on it (${found.features.length} holes)`, value: recognising, unit: 's', goal: '< 1', met: recognising < 1 });

  const points = randomPoints(2000);
  const reference = JSON.parse(readFileSync(new URL('./reference/tour-2000.json', import.meta.url), 'utf8')) as { order: number[] };
  const best = tourLength(points, reference.order);
  const [tour, ordering] = await timed(() => shortestTour(points));
  lines.push({ what: 'order of 2,000 points', value: ordering, unit: 's', goal: '< 1', met: ordering < 1 });
  const over = (100 * (tour.length - best)) / best;
  lines.push({ what: 'longer than the long search', value: over, unit: '%', goal: '< 4', met: over < 4 });

  const [written, writing] = await timed(() => writeProgram(longProgram(100_000), RIGID_TAP_BUILT_IN));
  const count = written.text.split('\n').length;
  lines.push({ what: `write ${count} lines`, value: count / writing, unit: 'lines/s', goal: '', met: true });
  readProgram(written.text.slice(0, 200_000), RIGID_TAP_BUILT_IN);
  const [back, reading] = await timed(() => readProgram(written.text, RIGID_TAP_BUILT_IN));
  lines.push({ what: `read them back (${back.motions.length} motions)`, value: count / reading, unit: 'lines/s', goal: '>= 300000', met: count / reading >= 300_000 });

  console.log = log;
  if (process.argv.includes('--json')) process.stdout.write(`${JSON.stringify(lines, null, 2)}\n`);
  else
    for (const l of lines)
      process.stdout.write(
        `${l.met ? 'met ' : 'MISS'}  ${l.what.padEnd(44)} ${(l.value >= 1000 ? Math.round(l.value).toLocaleString('en') : l.value.toFixed(2)).padStart(10)} ${l.unit.padEnd(8)} ${l.goal}\n`,
      );
}

/** One drill over many holes at three levels. */
function longProgram(holes: number): MotionProgram {
  const tool = SHOP.tools.find((t) => t.kind === 'drill')!;
  const list = Array.from({ length: holes }, (_, i) => ({
    feature: `H${i}`,
    label: `A${i + 1}`,
    x: (i % 300) * 1.237,
    y: Math.floor(i / 300) * 1.117,
    r: 2 - (i % 3),
    z: -8 - (i % 3),
    entryZ: -(i % 3),
    lift: i % 7 === 0,
  }));
  const operation = {
    tool,
    cycle: 'G81' as const,
    speed: 3000,
    feed: 300,
    holes: list,
    parameters: [],
    remarks: [],
    id: 'a',
    kind: 'drill',
    label: 'drill',
    rank: 1,
    setupId: 's1',
    tag: 'A',
    sizeKey: 'k',
    key: 'drill',
    position: 1,
  };
  return { name: 'bench', units: 'mm', workOffset: 'G54', zero: 'centre', clearanceZ: 25, visits: [{ tool, operations: [{ id: 'a', title: 'A drill', operation, holes: list }] }] };
}

await main();
