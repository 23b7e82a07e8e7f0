import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readProgram } from '@yellow-pin/core/code/read/read';
import { DxfError, readDxf } from '@yellow-pin/core/drawing/read-dxf';
import { modelFromDrawing, startingDepths } from '@yellow-pin/core/drawing/to-model';
import { recognise } from '@yellow-pin/core/features/recognise';
import { featureSchema } from '@yellow-pin/core/features/schema';
import { proveText } from '@yellow-pin/core/job/produce';
import { demoPartPath } from './jobs.ts';
import { chance, mutate } from './mutate.ts';
import { inputOfSample, produceSample, sampleJob } from './sample-job.ts';
import { SHOP } from './shop/index.ts';

/** A small share of what `npm run faults` tries at length. */
describe('mutated files', () => {
  const seeds = (count: number) => Array.from({ length: count }, (_, i) => i + 1);

  it('drawings are read or refused with a word, and what is found in them can be stored', () => {
    const text = readFileSync(demoPartPath('gasket-plate.dxf'), 'utf8');
    const kept = { read: 0, refused: 0 };
    for (const seed of seeds(120)) {
      try {
        const drawing = readDxf(mutate(text, chance(seed)), 'm');
        const { features } = recognise(modelFromDrawing(drawing, startingDepths(drawing)));
        for (const f of features) featureSchema.parse(f);
        kept.read++;
      } catch (error) {
        expect(error, `seed ${seed}`).toBeInstanceOf(DxfError);
        kept.refused++;
      }
    }
    // Both happen, or the mutations are too tame or too wild to show anything.
    expect(Math.min(kept.read, kept.refused)).toBeGreaterThan(10);
  });

  it('programs are read to their end, and one that is not understood is never proved', async () => {
    const job = await sampleJob('gasket-plate.dxf');
    const input = inputOfSample(job, 'gasket-plate.dxf');
    const [program] = produceSample(job, 'gasket-plate.dxf').programs;
    for (const seed of seeds(300)) {
      const text = mutate(program!.text, chance(seed));
      const read = readProgram(text, SHOP.machines[0]!);
      if (seed % 10 !== 0) continue;
      const { checks } = proveText(input, program!.setup.setup.id, text);
      const notUnderstood = read.problems.some((p) => p.severity === 'error');
      if (notUnderstood) expect(checks.some((c) => c.severity === 'error')).toBe(true);
    }
  });

  it('the same seed gives the same again', () => {
    const text = 'one\ntwo 1.5\nthree';
    for (const seed of seeds(50)) expect(mutate(text, chance(seed))).toBe(mutate(text, chance(seed)));
  });
});
