import { dot, type Vec3 } from '../geometry/vec.ts';
import type { SolidModel } from '../model/solid-model.ts';
import { piecePoints } from './curves.ts';
import type { AnyFamily, Feature, FeatureFamily } from './family.ts';
import { bossFamily } from './boss/index.ts';
import { boreGrooveFamily } from './bore-groove/index.ts';
import { chamferFamily } from './chamfer/index.ts';
import { channelFamily } from './channel/index.ts';
import { dovetailFamily } from './dovetail/index.ts';
import { faceGrooveFamily } from './face-groove/index.ts';
import { faceFamily } from './face/index.ts';
import { holeFamily } from './hole/recognise.ts';
import { outlineFamily } from './outline/index.ts';
import { pocketFamily } from './pocket/index.ts';
import { roundedEdgeFamily } from './rounded-edge/index.ts';
import { risingEdgeFamily } from './rising-edge/index.ts';
import { sharpEdgeFamily } from './sharp-edge/index.ts';
import { slotFamily } from './slot/index.ts';
import { stepFamily } from './step/index.ts';
import { tSlotFamily } from './t-slot/index.ts';
import { wallGrooveFamily } from './wall-groove/index.ts';

/** All feature families, in the order in which they take faces: what is undercut before what is not, then edges and bosses, and last what is
 * left between all of them. */
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
  bossFamily,
  pocketFamily,
  outlineFamily,
  faceFamily,
  stepFamily,
  risingEdgeFamily,
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
  'edges' in f || 'centreline' in f || familyOf(f).curves !== undefined;

/** Its place at its far end, where `direction` looks at that; null where it looks at the near one, or nothing opens there. */
export const placeBelow = (f: Feature, direction: Vec3): Vec3 | null =>
  dot(f.axis, direction) < 0 ? (familyOf(f).placeBelow?.(f) ?? null) : null;

/** A point that names its place seen from `direction`: a hole that goes through has one at either end. */
export const placeSeen = (f: Feature, direction: Vec3): Vec3 => placeBelow(f, direction) ?? placeOf(f);

/** Whether a tool may come into a feature from below as well. */
export const isOpenBelow = (f: Feature): boolean =>
  familyOf(f).isOpenBelow?.(f) ?? ('bottom' in f && f.bottom === 'open');

/** Features that nothing in the model asks for: they are offered and never counted as open. */
export const isOptional = (f: Feature): boolean => familyOf(f).optional !== undefined;

/** Features that prepared stock has already: with any other they are to be made. */
export const isInPreparedStock = (f: Feature): boolean => familyOf(f).isInPreparedStock === true;

/** Lines in space that show a feature which is no single point: edges, centre lines, rings. Empty for features that a pin shows. */
export function featureCurves(f: Feature, model: SolidModel): Vec3[][] {
  if ('edges' in f) return f.edges.flatMap((e) => (model.edges[e] ? [model.edges[e].points] : []));
  if ('centreline' in f) return f.centreline.map((p) => piecePoints(p, f.axis));
  return familyOf(f).curves?.(f) ?? [];
}
