import type { AnyFamily, Feature, FeatureFamily } from './family.ts';
import { boreGrooveFamily } from './bore-groove/index.ts';
import { chamferFamily } from './chamfer/index.ts';
import { channelFamily } from './channel/index.ts';
import { dovetailFamily } from './dovetail/index.ts';
import { faceGrooveFamily } from './face-groove/index.ts';
import { holeFamily } from './hole/recognise.ts';
import { roundedEdgeFamily } from './rounded-edge/index.ts';
import { sharpEdgeFamily } from './sharp-edge/index.ts';
import { slotFamily } from './slot/index.ts';
import { tSlotFamily } from './t-slot/index.ts';
import { wallGrooveFamily } from './wall-groove/index.ts';

/** All feature families, in the order in which they take faces: what is undercut before what is not, edges last. */
export const FAMILIES: readonly AnyFamily[] = [
  holeFamily,
  boreGrooveFamily,
  tSlotFamily,
  dovetailFamily,
  wallGrooveFamily,
  faceGrooveFamily,
  slotFamily,
  channelFamily,
  chamferFamily,
  roundedEdgeFamily,
  sharpEdgeFamily,
];

const BY_NAME = new Map(FAMILIES.map((f) => [f.family, f]));

/** The family of a feature, which knows its place, group and size. */
export function familyOf<F extends Feature>(feature: F): FeatureFamily<F['family']> {
  return BY_NAME.get(feature.family) as unknown as FeatureFamily<F['family']>;
}

/** A point on the feature that names its place. */
export const placeOf = (f: Feature) => familyOf(f).place(f);

/** True for features that a line along them shows better than a point: edges, grooves, channels. */
export const isCurve = (f: Feature): boolean =>
  'edges' in f || 'centreline' in f || f.family === 'bore-groove';
