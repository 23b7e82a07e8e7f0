import type { AreaShape } from '../features/area/shape.ts';
import type { Feature } from '../features/family.ts';
import { familyOf } from '../features/registry.ts';
import type { Frame } from '../geometry/frame.ts';
import { isAlong } from '../geometry/vec.ts';

/** A face, step, pocket or outline as seen from a setup's direction: program coordinates, mm. */
export interface AreaView {
  feature: Feature;
  /** Tag and number, such as A1. */
  label: string;
  shape: AreaShape;
  /** Z of its top, and how far below it its floor or exit lies. */
  entryZ: number;
  depth: number;
  /** Z up to which metal may stand over it when its turn comes; its own top where it is free. */
  metalZ: number;
  /** Z at which the metal in it begins: lower than its top where what was milled before reaches down into it. */
  startZ: number;
  /** Why metal may stand over it, in words; null where none does. */
  metalFrom: string | null;
  /** Another setup looks at it from its other side: what is not reached from here is made there. */
  hasOtherSide: boolean;
  /** Z down to which it is left to this setup, where another has made the rest from its side; null: down to its floor. */
  until: number | null;
  /** All stock beyond the part's outline is gone when its turn comes. */
  isOutlineMade: boolean;
}

/** The area from the side of `frame`'s Z; null where it is not reached from there. */
export function viewArea(feature: Feature, label: string, frame: Frame): AreaView | null {
  if (!feature.reachableFrom.some((d) => isAlong(d, frame.z))) return null;
  const shape = familyOf(feature).area?.(feature, frame);
  if (!shape) return null;
  const { top, floor } = shape;
  return {
    feature,
    label,
    shape,
    entryZ: top,
    depth: top - floor,
    metalZ: top,
    startZ: top,
    metalFrom: null,
    hasOtherSide: false,
    until: null,
    isOutlineMade: false,
  };
}
