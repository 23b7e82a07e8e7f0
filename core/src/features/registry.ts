import type { FeatureFamily } from './family.ts';
import { holeFamily } from './hole/recognise.ts';

/** All feature families. Slots, grooves, channels and edges join here, a folder and a line each. */
export const FAMILIES: readonly FeatureFamily[] = [holeFamily];
