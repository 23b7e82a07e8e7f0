import { beforeAll, describe, expect, it } from 'vitest';
import { recognise } from '@yellow-pin/core/features/recognise';
import { chooseDirections, setupsFor } from '@yellow-pin/core/setup/choose-setups';
import { newPlan, type Plan } from '@yellow-pin/core/plan/plan';
import { withDrawerLoaded } from '@yellow-pin/core/job/magazine';
import { produceJob } from '@yellow-pin/core/job/produce';
import type { Row } from '@yellow-pin/core/job/row';
import { edgeSegments, meshModel } from '@yellow-pin/core/model/mesh';
import { boundsOf, type SolidModel } from '@yellow-pin/core/model/solid-model';
import { usualTool } from '@yellow-pin/core/tools/usual';
import { withJobTools } from '@yellow-pin/core/plan/library';
import { readStep } from '@yellow-pin/kernel';
import { SHOP } from './shop/index.ts';
import { prepare, stepText } from './solids.ts';
import { STRANGE, type Strange } from './strange.ts';

/** The job as the screens open it: each solid by itself, setups chosen for it. */
async function opened({ bodies, name, unit }: Strange): Promise<{ model: SolidModel; jobs: Job[] }> {
  const model = await readStep(new TextEncoder().encode(await stepText(bodies(), name, unit)));
  const { features } = recognise(model);
  return { model, jobs: model.solids.map((_, solid) => jobOf(model, features, solid)) };
}

type Features = ReturnType<typeof recognise>['features'];
interface Job {
  plan: Plan;
  produce(plan: Plan): ReturnType<typeof produceJob>;
}

function jobOf(model: SolidModel, all: Features, solid: number): Job {
  const features = all.filter((f) => f.solid === solid);
  const plan = newPlan(model.sourceUnits, SHOP.materials[0]!.id, SHOP.machines[0]!.id);
  plan.setups = setupsFor(chooseDirections(features));
  const mesh = meshModel(model, (f) => f.solid === solid);
  const edges = model.edges.filter((e) => e.faces.some((f) => model.faces[f]!.solid === solid));
  expect(edgeSegments({ ...model, edges }).positions.length).toBeGreaterThan(0);
  const bounds = boundsOf(edges.flatMap((e) => e.points));
  return {
    plan,
    produce: (p) =>
      produceJob(withDrawerLoaded({ features, bounds, plan: p, library: SHOP, name: 'strange', mesh })),
  };
}

/** Takes the one action that a row's reason offers, as the screens do; the plan after it. */
function wayOn(row: Row, plan: Plan): Plan | null {
  const leaveOut = (): Plan => ({
    ...plan,
    sizes: {
      ...plan.sizes,
      [row.size.key]: { overrides: {}, ...plan.sizes[row.size.key], leftOut: 'elsewhere' },
    },
  });
  switch (row.notMade) {
    case 'no tool': {
      const tool = row.wants[0] && usualTool(row.wants[0], withJobTools(SHOP, plan));
      return tool ? { ...plan, tools: [...plan.tools, tool] } : null;
    }
    case 'out of reach': {
      const seen = row.size.features.filter((f) => f.reachableFrom.length > 0);
      if (seen.length === 0) return leaveOut();
      const [setup] = setupsFor([chooseDirections(seen)[0]!]);
      return { ...plan, setups: [...plan.setups, { ...setup!, id: `s${plan.setups.length + 1}` }] };
    }
    case 'no method yet':
    case 'to decide':
      return leaveOut();
    case null:
      return null;
  }
}

describe('a stranger’s part', () => {
  beforeAll(prepare, 60_000);

  it.each(STRANGE)('$name leads to code, or each row to a way on', async (part) => {
    const { jobs } = await opened(part);
    for (const { plan: first, produce } of jobs) {
      let plan = first;
      let { job, programs, checks } = produce(plan);
      expect(job.rows.length).toBeGreaterThan(0);
      // Each step takes one row on: there are never more steps than wants and rows together.
      for (let i = 0; i < 40; i++) {
        const row = job.rows.find((r) => r.notMade !== null);
        if (!row) break;
        expect(row.reasons.length).toBeGreaterThan(0);
        const next = wayOn(row, plan);
        expect(next, `${row.tag}: ${row.reasons.join(' ')}`).not.toBeNull();
        plan = next!;
        ({ job, programs, checks } = produce(plan));
      }
      expect(
        job.rows.filter((r) => r.notMade !== null).map((r) => `${r.tag}: ${r.reasons.join(' ')}`),
      ).toEqual([]);
      const made = job.rows.some((r) => r.state === 'planned');
      expect(programs.length > 0).toBe(made);
      expect(checks.filter((c) => c.severity === 'error').map((c) => c.message)).toEqual([]);
      expect(job.coverage.planned).toBe(job.coverage.total);
    }
  });
});
