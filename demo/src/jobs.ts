import { fileURLToPath } from 'node:url';
import { isHole, type Feature } from '@yellow-pin/core/features/family';
import { narrowest } from '@yellow-pin/core/features/hole/recognise';
import { featureSizes } from '@yellow-pin/core/features/sets';
import { decisionFromCallout } from '@yellow-pin/core/job/print';
import type { Plan } from '@yellow-pin/core/plan/plan';

/** Sample jobs, the newest last. */
export const DEMO_PARTS = [
  'adapter-plate.step',
  'gasket-plate.dxf',
  'sensor-carrier.step',
  'mooring-rail.step',
  'hatch-cover.step',
  'manifold-block.step',
] as const;

export const demoPartPath = (fileName: string): string =>
  fileURLToPath(new URL(`../parts/${fileName}`, import.meta.url));

/** The sample shop's lists: tools, holders, materials, machines and methods in one file, as the shop's screens export them. */
export const demoShopPath = (): string => fileURLToPath(new URL('../shop.json', import.meta.url));

/** What the sample shop's print says of hole sizes, by file: narrowest diameter (mm), shallowest depth it holds for, callout. */
const PRINTS: Record<string, { diameter: number; deeperThan: number; callout: string }[]> = {
  'manifold-block.step': [{ diameter: 6.8, deeperThan: 22, callout: 'M8x1.25 - 6H ↧16' }],
  'sensor-carrier.step': [{ diameter: 6.8, deeperThan: 19, callout: 'M8x1.25 - 6H ↧14' }],
  'adapter-plate.step': [{ diameter: 5.1054, deeperThan: 0, callout: '1/4-20 UNC-2B THRU' }],
};

/** A sample job starts with what its print says; any other file keeps the plan as given. */
export function demoPlan(fileName: string, features: Feature[], plan: Plan): Plan {
  if (fileName === 'gasket-plate.dxf' && plan.drawing) {
    plan.drawing.thickness = 12;
    for (const [layer, depth] of [
      ['SEAL', 2.5],
      ['DOWELS', 9],
    ] as const) {
      const known = plan.drawing.layers[layer];
      if (known) plan.drawing.layers[layer] = { use: known.use, depth };
    }
  }
  for (const { diameter, deeperThan, callout } of PRINTS[fileName] ?? []) {
    const decided = decisionFromCallout(callout, plan.units);
    for (const size of featureSizes(features.filter(isHole))) {
      const [first] = size.features.filter(isHole);
      if (!first || Math.abs(narrowest(first) - diameter) > 0.02 || first.depth < deeperThan) continue;
      plan.sizes[size.key] = { ...decided, overrides: {} };
    }
  }
  return plan;
}
