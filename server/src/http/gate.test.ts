import { describe, expect, it } from 'vitest';
import { Gate } from './gate.ts';

const settle = () => new Promise((resolve) => setTimeout(resolve, 0));

describe('a gate', () => {
  it('lets so many in, and the next as soon as one leaves, in their order', async () => {
    const gate = new Gate(2, 5);
    const inside: number[] = [];
    const leaves = new Map<number, () => void>();
    for (let i = 0; i < 5; i++)
      void gate.enter().then((leave) => {
        inside.push(i);
        leaves.set(i, leave);
      });
    await settle();
    expect(inside).toEqual([0, 1]);
    leaves.get(1)!();
    // Leaving twice is leaving once.
    leaves.get(1)!();
    await settle();
    expect(inside).toEqual([0, 1, 2]);
    leaves.get(0)!();
    leaves.get(2)!();
    await settle();
    expect(inside).toEqual([0, 1, 2, 3, 4]);
  });

  it('sends away where the line is full, and forgets those who left it', async () => {
    const gate = new Gate(1, 1);
    const leave = await gate.enter();
    const gone = new AbortController();
    const waiting = gate.enter(gone.signal);
    await expect(gate.enter()).rejects.toMatchObject({ status: 503, code: 'busy' });
    gone.abort();
    await expect(waiting).rejects.toMatchObject({ code: 'gone' });
    const next = gate.enter();
    leave();
    (await next)();
    (await gate.enter())();
  });
});
