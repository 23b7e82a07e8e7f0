import { readFileSync } from 'node:fs';
import { demoPartPath } from '@yellow-pin/demo/jobs';
import type { SolidModel } from '@yellow-pin/core/model/solid-model';
import { plateStep } from '@yellow-pin/demo/plate-step';
import { recognise } from '@yellow-pin/core/features/recognise';
import { meshModel } from '@yellow-pin/core/model/mesh';
import { shortestTour, tourLength } from '@yellow-pin/core/order/tour';
import { readProgram } from '@yellow-pin/core/code/read/read';
import { writeProgram } from '@yellow-pin/core/code/write/write';
import { RIGID_TAP_BUILT_IN } from '@yellow-pin/core/code/profiles/shipped';
import type { MotionProgram } from '@yellow-pin/core/motion/program';
import { SHOP } from '@yellow-pin/demo/shop/index';
import { readStep } from '@yellow-pin/kernel';
import { exponent, type Line } from './growth.ts';
import { areaLines } from './areas.ts';
import { edgeLines } from './edges.ts';
import { grooveLines } from './grooves.ts';
import { metalLines } from './metal.ts';
import { planningLines } from './planning.ts';
import { randomPoints } from './points.ts';
import { readingLines } from './reading.ts';
import { screenLines } from './screens.ts';

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
  lines.push(...(await readingLines()));

  const plate = new TextEncoder().encode(plateStep({ holes: 2000 }));
  const model = await readStep(plate);
  const [mesh, meshing] = await timed(() => meshModel(model));
  lines.push({ what: 'mesh of that plate', value: meshing, unit: 's', goal: '< 1', met: meshing < 1 });
  recognise(await readStep(new TextEncoder().encode(plateStep({ holes: 50 }))));
  const [found, recognising] = await timed(() => recognise(model, { mesh }));
  lines.push({
    what: `all families on it (${found.features.length} features)`,
    value: recognising,
    unit: 's',
    goal: '< 2',
    met: recognising < 2,
  });
  lines.push(await growth(model, timed));
  for (const name of ['hatch-cover', 'mooring-rail', 'sensor-carrier', 'manifold-block']) {
    const bytes = readFileSync(demoPartPath(`${name}.step`));
    const [demo, reading] = await timed(() => readStep(bytes));
    const demoMesh = meshModel(demo);
    let looking = Infinity;
    for (let i = 0; i < 5; i++)
      looking = Math.min(looking, (await timed(() => recognise(demo, { mesh: demoMesh })))[1]);
    lines.push({
      what: `${name}: all families, share of its read`,
      value: (100 * looking) / reading,
      unit: '%',
      goal: '< 10',
      met: looking < 0.1 * reading,
    });
  }

  const points = randomPoints(2000);
  const reference = JSON.parse(
    readFileSync(new URL('./reference/tour-2000.json', import.meta.url), 'utf8'),
  ) as { order: number[] };
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
  lines.push({
    what: `read them back (${back.motions.length} motions)`,
    value: count / reading,
    unit: 'lines/s',
    goal: '>= 300000',
    met: count / reading >= 300_000,
  });

  lines.push(...(await planningLines()));
  lines.push(...(await grooveLines()));
  lines.push(...(await areaLines()));
  lines.push(...(await edgeLines()));
  lines.push(...(await metalLines()));
  // A database, a server and a browser take their time to start: asked for by name.
  if (process.argv.includes('screens')) lines.push(...(await screenLines()));

  console.log = log;
  if (process.argv.includes('--json')) process.stdout.write(`${JSON.stringify(lines, null, 2)}\n`);
  else
    for (const l of lines)
      process.stdout.write(
        `${l.met ? 'met ' : 'MISS'}  ${l.what.padEnd(44)} ${(l.value >= 1000 ? Math.round(l.value).toLocaleString('en') : l.value.toFixed(2)).padStart(10)} ${l.unit.padEnd(8)} ${l.goal}\n`,
      );
}

/** How recognition grows with faces, over three sizes: the slope of time against faces in logarithms. n log n is some 1.1 here. */
async function growth(
  largest: SolidModel,
  timed: <T>(work: () => T | Promise<T>) => Promise<[T, number]>,
): Promise<Line> {
  const sizes = [
    await readStep(new TextEncoder().encode(plateStep({ holes: 500 }))),
    await readStep(new TextEncoder().encode(plateStep({ holes: 1000 }))),
    largest,
  ];
  const points: [number, number][] = [];
  for (const model of sizes) {
    const mesh = meshModel(model);
    let best = Infinity;
    for (let i = 0; i < 3; i++) best = Math.min(best, (await timed(() => recognise(model, { mesh })))[1]);
    points.push([model.faces.length, best]);
  }
  const slope = exponent(points);
  return {
    what: 'its growth with faces, exponent',
    value: slope,
    unit: '',
    goal: '< 1.25',
    met: slope < 1.25,
  };
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
    metalZ: -(i % 3),
    motion: { kind: 'cycle' as const, how: { how: 'straight' as const } },
    lift: i % 7 === 0,
  }));
  const operation = {
    tool,
    speed: 3000,
    feed: 300,
    work: list,
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
    after: [],
  };
  return {
    name: 'bench',
    units: 'mm',
    workOffset: 'G54',
    zero: 'centre',
    clearanceZ: 25,
    head: { index: 0, lines: [], notMade: [] },
    visits: [{ tool, operations: [{ id: 'a', title: 'A drill', notes: [], operation, work: list }] }],
  };
}

await main();
