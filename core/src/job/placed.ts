import type { MachineProfile } from '../code/profiles/schema.ts';
import type { Material } from '../cutting/material.ts';
import type { Feature } from '../features/family.ts';
import type { FeatureSize } from '../features/sets.ts';
import { isAlong } from '../geometry/vec.ts';
import type { Space } from '../space/space.ts';
import type { Library } from '../plan/library.ts';
import type { Plan } from '../plan/plan.ts';
import type { Setup } from '../setup/setup.ts';
import type { SetupFrame } from '../setup/setup-frame.ts';

/** One setup with what is in the way in it. */
export interface PlacedSetup {
  setup: Setup;
  frame: SetupFrame;
  space: Space;
}

export interface PlannerInput {
  sizes: readonly FeatureSize[];
  setups: readonly PlacedSetup[];
  plan: Plan;
  library: Library;
  machine: MachineProfile;
  material: Material;
  /** Setup id → tool ids to be taken before others that would do as well. */
  favour: ReadonlyMap<string, readonly string[]>;
}

/** Whether a setup's direction is one from which the feature is reached. */
export const isReached = (f: Feature, { frame }: Pick<PlacedSetup, 'frame'>): boolean =>
  f.reachableFrom.some((d) => isAlong(d, frame.frame.z));

export const labelOf = (size: FeatureSize, index: number): string => `${size.tag}${index + 1}`;
