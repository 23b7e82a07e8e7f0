import { describe, expect, it } from 'vitest';
import { produceJob } from '@yellow-pin/core/job/produce';
import { DEMO_PARTS } from './jobs.ts';
import { inputOfSample, sampleJob } from './sample-job.ts';
import { SHOP } from './shop/index.ts';

/** What is said of a job, without where in the text. */
const findings = (checks: readonly { severity: string; message: string }[]): string[] =>
  checks.filter((c) => c.severity !== 'note').map((c) => c.message.replace(/(line|lines) [\d, ]+/gi, 'line'));

describe.each(DEMO_PARTS)('%s', (part) => {
  it('is written, read back and proved alike for every machine of the shop', async () => {
    const input = inputOfSample(await sampleJob(part), part);
    const on = (machineId: string) => produceJob({ ...input, plan: { ...input.plan, machineId } });
    const [first, ...others] = SHOP.machines.map((m) => ({ id: m.id, made: on(m.id) }));
    const wanted = findings(first!.made.checks);
    for (const { id, made } of others) {
      expect(
        made.programs.map((p) => p.made.length + p.milled.length),
        id,
      ).toEqual(first!.made.programs.map((p) => p.made.length + p.milled.length));
      expect(
        findings(made.checks).filter((f) => !wanted.includes(f)),
        id,
      ).toEqual([]);
      expect(
        made.programs.flatMap((p) => p.read.problems),
        id,
      ).toEqual([]);
    }
  });
});
