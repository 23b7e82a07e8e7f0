import { describe, expect, it } from 'vitest';
import type { DerivedJob } from '@yellow-pin/core/job/derive';
import type { WrittenSetup } from '@yellow-pin/core/job/produce';
import { newPlan } from '@yellow-pin/core/plan/plan';
import type { ProgramProof } from '../workers/produce-steps.ts';
import { withStep } from './produced.ts';

const plan = newPlan('mm', 'alu', 'mill');
const job = (n: number) => ({ rows: [], setups: [], n }) as unknown as DerivedJob;
const written = (text: string) => ({ text, setup: { setup: { id: 's1' } } }) as unknown as WrittenSetup;
const proof = { total: 5 } as ProgramProof;
const line = (v: number) => new Float32Array([v, 0, 0, v, 1, 0]);

describe('what follows from a plan', () => {
  const first = withStep(null, { step: 'plan', job: job(1), curves: new Map([['H1', line(1)]]) }, plan);
  const coded = withStep(first, { step: 'code', programs: [written('A')] }, plan);
  const proved = withStep(coded, { step: 'proof', proofs: new Map([['s1', proof]]), checks: [] }, plan)!;

  it('is known step by step, and of the plan only when all of it is', () => {
    expect(first).toMatchObject({ programs: [], checks: null, of: null });
    expect(coded!.programs[0]).toMatchObject({ text: 'A', proof: null });
    expect(proved).toMatchObject({ checks: [], of: plan });
    expect(proved.programs[0]!.proof).toBe(proof);
  });
  it('keeps the program of before until the next is written, and is never called proved meanwhile', () => {
    const next = withStep(proved, { step: 'plan', job: job(2), curves: new Map() }, plan)!;
    expect(next.programs[0]).toMatchObject({ text: 'A', proof });
    expect(next).toMatchObject({ of: null, checks: null });
    const recoded = withStep(next, { step: 'code', programs: [written('B')] }, plan)!;
    expect(recoded).toMatchObject({ checks: null, of: null });
    expect(recoded.programs[0]!.proof).toBeNull();
    // A text that was edited by hand comes without a new plan.
    expect(withStep(proved, { step: 'code', programs: [written('C')] }, plan)).toMatchObject({
      checks: null,
      of: null,
    });
  });
  it('gathers curves, which are sent once', () => {
    const next = withStep(proved, { step: 'plan', job: job(2), curves: new Map([['H2', line(2)]]) }, plan)!;
    expect([...next.curves.keys()]).toEqual(['H1', 'H2']);
    expect(withStep(null, { step: 'code', programs: [] }, plan)).toBeNull();
  });
});
