import { describe, expect, it } from 'vitest';
import { Producer, type ProducedJob, type ProduceInput } from '@yellow-pin/core/job/produce';
import { BOUNDS, hole, LIBRARY, plan } from '@yellow-pin/core/testing/fixtures';
import { MetalDesk, type MetalStep, type ReadJob } from './metal-steps.ts';

const input: ProduceInput = {
  features: [hole({ entry: [20, 20, 0] })],
  bounds: BOUNDS,
  plan: plan(),
  library: LIBRARY,
  name: 'plate',
};

function produced(producer: Producer, asked: ProduceInput): ReadJob {
  const steps = producer.steps(asked);
  for (;;) {
    const next: IteratorResult<unknown, ProducedJob> = steps.next();
    if (next.done) return { input: asked, faces: [], ...next.value };
  }
}

describe('metal beside the page', () => {
  const always = async (): Promise<boolean> => true;

  it('is told of once it is all off, and at once where only a finding was accepted', async () => {
    const [desk, producer] = [new MetalDesk(), new Producer()];
    const first = produced(producer, input);
    const told: MetalStep[] = [];
    const tell = (s: MetalStep) => void told.push(s);
    expect(desk.tellsKnown(first, 0.02, tell)).toBe(false);
    expect(await desk.takeOff(first, 0.02, tell, always)).toBe(true);
    const end = told.at(-1)!;
    if (end.step !== 'metal') throw new Error('not told');
    // Without the part's shape nothing is known of its volumes.
    expect(end.proof.overcutVolume).toBeNull();
    const accepted = [{ rule: 'none', setupId: null, message: 'none', reason: 'seen' }];
    const second = produced(producer, { ...input, plan: { ...input.plan, accepted } });
    expect(desk.tellsKnown(second, 0.02, tell)).toBe(true);
    expect(told.at(-1)).toMatchObject({ step: 'metal', proof: end.proof });
    // By another tolerance, or of another plan, nothing is known.
    expect(desk.tellsKnown(second, 0.1, tell)).toBe(false);
    expect(desk.tellsKnown(produced(new Producer(), input), 0.02, tell)).toBe(false);
  });

  it('is given up where nobody waits for it any more', async () => {
    const features = Array.from({ length: 400 }, (_, i) =>
      hole({ id: `H${i}`, entry: [(i % 20) * 5, Math.floor(i / 20) * 4, 0] }),
    );
    const job = produced(new Producer(), { ...input, features });
    const told: MetalStep[] = [];
    const desk = new MetalDesk();
    expect(
      await desk.takeOff(
        job,
        0.02,
        (s) => void told.push(s),
        async () => false,
      ),
    ).toBe(false);
    expect(told.every((s) => s.step === 'progress')).toBe(true);
    expect(desk.tellsKnown(job, 0.02, () => {})).toBe(false);
  });
});
