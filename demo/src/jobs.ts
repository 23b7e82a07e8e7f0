import { fileURLToPath } from 'node:url';
import { isBoss, isHole, type Feature } from '@yellow-pin/core/features/family';
import { narrowest } from '@yellow-pin/core/features/hole/recognise';
import { featureSizes } from '@yellow-pin/core/features/sets';
import { loadTools } from '@yellow-pin/core/job/magazine';
import { decisionFromCallout } from '@yellow-pin/core/job/print';
import type { Plan } from '@yellow-pin/core/plan/plan';
import { SHOP } from './shop/index.ts';

/** Sample jobs, the newest last. */
export const DEMO_PARTS = [
  'adapter-plate.step',
  'gasket-plate.dxf',
  'vent-cap.step',
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
  'manifold-block.step': [
    { diameter: 6.8, deeperThan: 22, callout: 'M8x1.25 - 6H ↧16' },
    { diameter: 8.4, deeperThan: 20, callout: 'Rc 1/8' },
  ],
  'sensor-carrier.step': [
    { diameter: 6.8, deeperThan: 19, callout: 'M8x1.25 - 6H ↧14' },
    { diameter: 46.5, deeperThan: 0, callout: 'M48x1.5 - 6H THRU' },
  ],
  'vent-cap.step': [
    { diameter: 22, deeperThan: 0, callout: 'M24x2 2 STARTS ↧16' },
    { diameter: 40, deeperThan: 0, callout: 'M40x1.5 ↧12' },
  ],
  'adapter-plate.step': [{ diameter: 5.1054, deeperThan: 0, callout: '1/4-20 UNC-2B THRU' }],
};

/** Tools that the shop has put into the magazine for a sample job, by file. */
const LOADED: Record<string, readonly string[]> = {
  'manifold-block.step': ['thread mill ⌀6 Rc 1/8'],
  'sensor-carrier.step': ['thread mill ⌀20 lone tooth P1.5 to P6', 'end mill ⌀3', 'T-cutter ⌀19.5 × 2'],
  'hatch-cover.step': ['end mill ⌀5', 'end mill ⌀3'],
  'gasket-plate.dxf': ['end mill ⌀3'],
  'mooring-rail.step': [
    'end mill ⌀12',
    'end mill ⌀6 long',
    'T-cutter ⌀18 × 6',
    'dovetail cutter ⌀16 × 8 60°',
    'T-cutter ⌀25 × 4',
  ],
  'vent-cap.step': ['spot drill ⌀20 90°', 'end mill ⌀16 long', 'thread mill ⌀12 lone tooth P1 to P3'],
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
    for (const size of featureSizes(features.filter((f) => isHole(f) || isBoss(f)))) {
      const [first] = size.features;
      const [own, depth] = !first
        ? [0, 0]
        : isHole(first)
          ? [narrowest(first), first.depth]
          : isBoss(first)
            ? [first.diameter, first.height]
            : [0, 0];
      if (Math.abs(own - diameter) > 0.02 || depth < deeperThan) continue;
      plan.sizes[size.key] = { ...decided, overrides: {} };
    }
  }
  const wanted = SHOP.tools.filter((t) => LOADED[fileName]?.includes(t.description));
  return { ...plan, ...loadTools(plan, SHOP, wanted, SHOP.machines[0]!.magazineSize).change };
}
