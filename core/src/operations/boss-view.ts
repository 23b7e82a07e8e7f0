import type { BossFeature } from '../features/boss/schema.ts';
import { toFrame, type Frame } from '../geometry/frame.ts';
import { along, dot, isAlong, type Vec3 } from '../geometry/vec.ts';

/** A boss as seen from a setup's direction: program coordinates, mm. */
export interface BossView {
  feature: BossFeature;
  /** Tag and number, such as A1. */
  label: string;
  x: number;
  y: number;
  /** Z of its free end that looks up. */
  entryZ: number;
  /** From there to where the cylinder ends. */
  height: number;
  /** How far below the end it is chamfered. */
  chamfered: number;
  /** Nothing stands at its foot. */
  isOpen: boolean;
}

/** The boss from the side of `frame`'s Z; null where it cannot be reached from there. */
export function viewBoss(feature: BossFeature, label: string, frame: Frame): BossView | null {
  if (!feature.reachableFrom.some((d) => isAlong(d, frame.z))) return null;
  const same = dot(feature.axis, frame.z) > 0;
  const entry: Vec3 = same ? feature.entry : along(feature.entry, feature.axis, -feature.height);
  const [x, y, z] = toFrame(frame, entry);
  return {
    feature,
    label,
    x,
    y,
    entryZ: z,
    height: feature.height,
    chamfered: same ? (feature.chamfer?.length ?? 0) : 0,
    isOpen: feature.bottom === 'open',
  };
}
