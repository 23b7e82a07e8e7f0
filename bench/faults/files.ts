import { readFileSync } from 'node:fs';
import { gzipSync, gunzipSync } from 'node:zlib';
import { featureSchema } from '@yellow-pin/core/features/schema';
import { readProgram } from '@yellow-pin/core/code/read/read';
import { DxfError, readDxf } from '@yellow-pin/core/drawing/read-dxf';
import { modelFromDrawing, startingDepths } from '@yellow-pin/core/drawing/to-model';
import { recognise } from '@yellow-pin/core/features/recognise';
import { chooseDirections, setupsFor } from '@yellow-pin/core/setup/choose-setups';
import { newPlan } from '@yellow-pin/core/plan/plan';
import { produceJob, proveText } from '@yellow-pin/core/job/produce';
import { metalOf } from '@yellow-pin/core/job/prove-metal';
import { meshModel } from '@yellow-pin/core/model/mesh';
import type { SolidModel } from '@yellow-pin/core/model/solid-model';
import { demoPartPath } from '@yellow-pin/demo/jobs';
import { chance, mutate } from '@yellow-pin/demo/mutate';
import { plateStep } from '@yellow-pin/demo/plate-step';
import { inputOfSample, produceSample, sampleJob } from '@yellow-pin/demo/sample-job';
import { SHOP } from '@yellow-pin/demo/shop/index';
import type { ReadPart, ReadRequest } from '@yellow-pin/server/work/read-request';
import { WorkError, WorkProcess } from '@yellow-pin/server/work/work-process';
import { atMost, type Figure } from './report.ts';

type Reader = WorkProcess<ReadRequest, ReadPart | null>;
/** Files here read in a tenth of a second: after this they are ended, s. */
const LIMIT = 12;
/** Not ended long after that is a hang, s. */
const HANG = 2 * LIMIT;
/** A good file is read again after every so many that were read, and after each that was not. */
const GOOD_EVERY = 5;
/** Of those read, every so many is planned and written too. */
const OPEN_EVERY = 3;
const PROGRAM_HANG_MS = 5000;

const say = (what: string, seed: number, error: unknown): void =>
  console.log(
    `     ${what} ${seed}: ${error instanceof Error ? error.message : String(error)}`.slice(0, 300),
  );

/** Plans and writes what was read, as opening it would: what is stored as ready must open. */
function openRead(model: SolidModel, features: ReadPart['features'], name: string): void {
  for (const f of features) featureSchema.parse(f);
  const stored = JSON.parse(JSON.stringify(model)) as SolidModel;
  const mesh = meshModel(stored);
  const plan = newPlan(model.sourceUnits, SHOP.materials[0]!.id, SHOP.machines[0]!.id);
  plan.setups = setupsFor(chooseDirections(features));
  produceJob({ features, bounds: stored.bounds, mesh, plan, library: SHOP, name });
}

/** Mutated STEP files through the process that reads parts, each followed by a look whether good files still read. */
export async function mutatedStep(count: number, from = 1): Promise<Figure[]> {
  const parts = ['adapter-plate.step', 'sensor-carrier.step'].map((f) =>
    readFileSync(demoPartPath(f), 'utf8'),
  );
  const small = [1, 2, 3].flatMap((holes) => [
    plateStep({ holes, wall: 'halves' }),
    plateStep({ holes, wall: 'spline' }),
    plateStep({ holes }),
  ]);
  // The larger ones take three times as long.
  const bases = [...small, ...parts];
  const good = gzipSync(plateStep({ holes: 4 }));
  let expected: string | null = null;
  const n = { hangs: 0, crashes: 0, ours: 0, unopened: 0, goodLost: 0, read: 0, refused: 0, ended: 0 };
  let next = from;
  const lane = async (): Promise<void> => {
    const reader: Reader = new WorkProcess(new URL('../../server/src/work/read-work.ts', import.meta.url), {
      heapMb: 1500,
      memoryMb: 3000,
      idleMb: 1500,
    });
    const readOnce = (packed: Uint8Array): Promise<ReadPart | null> =>
      Promise.race([
        reader.run(
          { kind: 'file', packed, fileName: 'm.step', sizeLimit: 1e8 },
          { seconds: LIMIT, once: true },
        ),
        new Promise<never>((_, reject) => setTimeout(() => reject(new Hung()), 1000 * HANG).unref()),
      ]);
    // What a file before it has spoilt is not its fault: a fresh process tells.
    const read = (packed: Uint8Array): Promise<ReadPart | null> =>
      readOnce(packed).catch((error: unknown) => {
        if (error instanceof WorkError && error.failure === 'too-long') return readOnce(packed);
        throw error;
      });
    const blame = (seed: number, error: unknown): void => {
      if (error instanceof Hung) n.hangs++;
      else if (!(error instanceof WorkError)) throw error;
      else if (error.failure === 'too-long' || error.failure === 'too-large') n.ended++;
      else if (error.failure === 'crashed') n.crashes++;
      else if (error.code === 'internal') n.ours++;
      else n.refused++;
      if (!(error instanceof WorkError) || error.failure !== 'refused' || error.code === 'internal')
        say('STEP', seed, error);
    };
    expected ??= textOf(await read(good));
    while (next < from + count) {
      const seed = next++;
      const random = chance(seed);
      const text = mutate(bases[Math.floor(random() * bases.length)]!, random);
      let wasRead = true;
      try {
        const part = await read(gzipSync(text, { level: 1 }));
        if (++n.read % OPEN_EVERY === 0) openStored(part!, seed);
      } catch (error) {
        wasRead = false;
        blame(seed, error);
      }
      if (wasRead && seed % GOOD_EVERY !== 0) continue;
      try {
        // To the last digit: memory that was spoilt without a word would show in the numbers.
        if (textOf(await read(good)) !== expected) throw new Error('its geometry is another');
      } catch (error) {
        n.goodLost++;
        say('good file after STEP', seed, error);
      }
    }
    await reader.close();
  };
  const openStored = (part: ReadPart, seed: number): void => {
    try {
      const model = JSON.parse(gunzipSync(part.model!).toString('utf8')) as SolidModel;
      openRead(model, part.features, 'mutated');
    } catch (error) {
      n.unopened++;
      say('STEP read and not opened', seed, error);
    }
  };
  await Promise.all([lane(), lane()]);
  return [
    atMost(
      `${count} mutated STEP (${n.read} read, ${n.refused} refused, ${n.ended} ended by a limit): hangs`,
      n.hangs,
      0,
    ),
    atMost('  crashes of the reader', n.crashes, 0),
    atMost('  errors of ours', n.ours, 0),
    atMost('  read and then not opened', n.unopened, 0),
    atMost('  good files not read afterwards', n.goodLost, 0),
  ];
}

const textOf = (part: ReadPart | null): string =>
  gunzipSync(part!.model!).toString() + JSON.stringify(part!.features);

class Hung extends Error {}

/** Mutated drawings, as the looking at an upload and the reading of it do. */
export function mutatedDxf(count: number, from = 1): Figure[] {
  const base = readFileSync(demoPartPath('gasket-plate.dxf'), 'utf8');
  const lines = { slow: 0, ours: 0, read: 0, refused: 0 };
  for (let seed = from; seed < from + count; seed++) {
    const text = mutate(base, chance(seed));
    const start = performance.now();
    try {
      const drawing = readDxf(text, 'm');
      const model = modelFromDrawing(drawing, startingDepths(drawing));
      const { features } = recognise(model);
      if (++lines.read % OPEN_EVERY === 0) openRead(model, features, 'mutated');
    } catch (error) {
      if (error instanceof DxfError) lines.refused++;
      else {
        lines.ours++;
        say('DXF', seed, error);
      }
    }
    if (performance.now() - start > PROGRAM_HANG_MS) {
      lines.slow++;
      say('DXF', seed, `${Math.round(performance.now() - start)} ms`);
    }
  }
  return [
    atMost(`${count} mutated DXF (${lines.read} read, ${lines.refused} refused): hangs`, lines.slow, 0),
    atMost('  errors of ours', lines.ours, 0),
  ];
}

/** Mutated programs, read back and proved against their part. */
export async function mutatedPrograms(count: number, from = 1): Promise<Figure[]> {
  const file = 'adapter-plate.step';
  const job = await sampleJob(file);
  const input = inputOfSample(job, file);
  const programs = produceSample(job, file).programs;
  const lines = { slow: 0, ours: 0 };
  let memory = 0;
  for (let seed = from; seed < from + count; seed++) {
    const random = chance(seed);
    const program = programs[Math.floor(random() * programs.length)]!;
    const text = mutate(program.text, random);
    const start = performance.now();
    try {
      // The proof looks at all of the part, and the metal of a few goes off as well: a share of them is enough, all are read.
      const setupId = program.setup.setup.id;
      if (seed % 20 === 0) {
        const proven = proveText(input, setupId, text);
        const setup = proven.job.setups.find((s) => s.setup.id === setupId)!;
        if (seed % 100 === 0)
          metalOf(input, { job: proven.job, programs: [{ ...proven, setup }], faces: null });
      } else readProgram(text, SHOP.machines[0]!);
    } catch (error) {
      lines.ours++;
      say('program', seed, error);
    }
    memory = Math.max(memory, process.memoryUsage().rss / 1e6);
    if (performance.now() - start > PROGRAM_HANG_MS) {
      lines.slow++;
      say('program', seed, `${Math.round(performance.now() - start)} ms`);
    }
  }
  return [
    atMost(`${count} mutated programs (${PROGRAM_HANG_MS / 1000} s each at most): hangs`, lines.slow, 0),
    atMost('  errors of ours', lines.ours, 0),
    atMost('  memory at most, MB', Math.round(memory), 1500),
  ];
}
