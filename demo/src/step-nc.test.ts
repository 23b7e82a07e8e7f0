import { describe, expect, it } from 'vitest';
import { produceJob } from '@yellow-pin/core/job/produce';
import { readStepNc } from '@yellow-pin/core/step-nc/read';
import { stepNc } from '@yellow-pin/core/step-nc/write';
import { fromFrame } from '@yellow-pin/core/geometry/frame';
import { DEMO_PARTS } from './jobs.ts';
import { inputOfSample, sampleJob } from './sample-job.ts';

describe.each(DEMO_PARTS)('%s', (part) => {
  it('features and workplan come back from an ISO 14649 file as they are planned', async () => {
    const { job } = produceJob(inputOfSample(await sampleJob(part), part));
    const text = stepNc({ name: part, time: '2026-01-01T00:00:00', job });
    const plan = readStepNc(new TextEncoder().encode(text));
    expect([plan.name, plan.workpiece]).toEqual([part, part]);
    const made = job.setups.filter((s) => s.operations.length > 0);
    expect(plan.setups.map((s) => s.name)).toEqual(made.map((s) => s.setup.name));
    made.forEach(({ operations }, i) => {
      const works = operations.flatMap((o) => o.work.map((work) => ({ o, work })));
      const steps = plan.setups[i]!.steps;
      expect(steps.map((s) => s.name)).toEqual(works.map(({ o, work }) => `${work.label} ${o.label}`));
      works.forEach(({ o, work }, n) => {
        const step = steps[n]!;
        expect(step.tool.diameter).toBe(o.tool.diameter);
        expect(step.feed).toBeCloseTo(o.feed, 6);
        expect(step.speed * (o.tool.thread?.hand === 'left' ? -1 : 1)).toBeCloseTo(o.speed, 6);
        expect(step.operation.retract).toBe(work.r);
        expect(step.operation.depth).toBeCloseTo(work.entryZ - work.z, 9);
        expect(step.feature.operations).toContain(step.operation.name);
      });
    });
    const features = new Map(plan.setups.flatMap((s) => s.steps.map((t) => [t.feature.name, t.feature])));
    for (const row of job.rows)
      for (const hole of row.holes) {
        const read = features.get(hole.label);
        if (!read) continue;
        const { frame } = job.setups.find((s) => s.setup.id === row.setupId)!.frame;
        fromFrame(frame, [hole.x, hole.y, hole.entryZ]).forEach((c, k) =>
          expect(read.at[k]).toBeCloseTo(c, 6),
        );
        frame.z.forEach((c, k) => expect(read.axis[k]).toBeCloseTo(c, 6));
        expect(read.thread).toBe(row.thread?.majorDiameter ?? null);
        const [top] = hole.steps.filter((s) => s.length > 0);
        expect(read.holes[0]!.diameter).toBeCloseTo(
          top!.shape === 'cone' ? top!.startDiameter : top!.diameter,
          6,
        );
        expect(read.depth).toBeCloseTo(hole.depth, 6);
      }
  });
});
