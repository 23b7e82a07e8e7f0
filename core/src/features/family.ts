import type { ModelNote, SolidModel } from '../model/solid-model.ts';
import type { RayCaster } from '../model/ray.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { HoleFeature } from './hole/schema.ts';

/** Every recognised feature. A new family adds its type here and its recogniser to the registry. */
export type Feature = HoleFeature;

export interface RecogniseContext {
  model: SolidModel;
  solid: number;
  /** Face numbers of that solid. */
  faces: number[];
  middle: Vec3;
  rays: RayCaster;
  /** Preferred tool direction where a feature can be read from both sides. */
  up: Vec3 | null;
}

export interface Recognised<F extends Feature = Feature> {
  /** Without ids: those are given to all features of a part together. */
  features: Omit<F, 'id'>[];
  notes: ModelNote[];
}

export interface FeatureFamily {
  family: Feature['family'];
  /** First letter of the ids, `H1`, `H2` … */
  prefix: string;
  recognise(context: RecogniseContext): Recognised;
}
