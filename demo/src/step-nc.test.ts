import { describe, expect, it } from 'vitest';
import { produceJob } from '@yellow-pin/core/job/produce';
import { Part21File } from '@yellow-pin/core/part21/file';
import { readStepNc } from '@yellow-pin/core/step-nc/read';
import { stepNc } from '@yellow-pin/core/step-nc/write';
import { fromFrame } from '@yellow-pin/core/geometry/frame';
import { DEMO_PARTS } from './jobs.ts';
import { encode } from './model-of.ts';
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

it('a drill that pecks says how deep each peck is, and how far it backs off: all the way out, or as the machine does', async () => {
  const seen = new Set<string>();
  for (const part of DEMO_PARTS) {
    const { job } = produceJob(inputOfSample(await sampleJob(part), part));
    const file = new Part21File(encode(stepNc({ name: part, time: '2026-01-01T00:00:00', job })));
    const written = new Map(
      file.ofType('MULTISTEP_DRILLING').map((id) => {
        const args = file.entity(id).parts[0]?.args ?? [];
        return [args[2], args.slice(-4)] as const;
      }),
    );
    for (const { operations } of job.setups)
      for (const o of operations)
        for (const work of o.work) {
          const how = o.kind === 'drill' && work.motion.kind === 'cycle' ? work.motion.how : null;
          if (how?.how !== 'chip-break' && how?.how !== 'full-retract') continue;
          const [back, first, peck] = written.get(`${work.label} ${o.label}`)!;
          expect([first, peck]).toEqual([how.peck, how.peck]);
          const out = how.how === 'chip-break' ? job.machine.chipBreakBackOff : work.entryZ - work.z;
          expect(back).toBeCloseTo(out, 9);
          seen.add(how.how);
        }
  }
  expect([...seen].sort()).toEqual(['chip-break', 'full-retract']);
});
