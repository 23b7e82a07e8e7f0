import type { DerivedJob } from '@yellow-pin/core/job/derive';
import type { Plan } from '@yellow-pin/core/plan/plan';
import type { Check } from '@yellow-pin/core/proof/checks/check';
import type { Curves, ScreenProgram, ScreenStep } from '../workers/produce-steps.ts';

/** What follows from a plan, as far as it is known. */
export interface Produced {
  job: DerivedJob;
  curves: Curves;
  /** The code of the plan; of the plan before while the new one is written. */
  programs: ScreenProgram[];
  /** What proving found; null while the code is read back. */
  checks: Check[] | null;
  /** The plan that all of it is of; null while parts are of the plan before. */
  of: Plan | null;
}

/** Takes the worker's next step into what is known. Until its code is there the program of before stands, so that nothing flickers. */
export function withStep(known: Produced | null, step: ScreenStep, plan: Plan): Produced | null {
  if (step.step === 'plan') {
    const curves = step.curves.size > 0 ? new Map([...(known?.curves ?? []), ...step.curves]) : known?.curves;
    return {
      job: step.job,
      curves: curves ?? new Map(),
      programs: known?.programs ?? [],
      // What was found is of the plan before: of this one nothing is known to be in order yet.
      checks: null,
      of: null,
    };
  }
  if (!known) return null;
  if (step.step === 'code') {
    return { ...known, programs: step.programs.map((p) => ({ ...p, proof: null })), checks: null, of: null };
  }
  return {
    ...known,
    programs: known.programs.map((p) => ({ ...p, proof: step.proofs.get(p.setup.setup.id) ?? null })),
    checks: step.checks,
    of: plan,
  };
}
