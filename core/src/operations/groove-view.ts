import type { Feature } from '../features/family.ts';
import { bottomOf, topOf, type GrooveShape } from '../features/groove-shape.ts';
import { familyOf } from '../features/registry.ts';
import type { Frame } from '../geometry/frame.ts';
import { isAlong } from '../geometry/vec.ts';
import { first } from '../lists.ts';

/** A slot, groove or channel as seen from a setup's direction: program coordinates, mm. */
export interface GrooveView {
  feature: Feature;
  /** Tag and number, such as A1. */
  label: string;
  shape: GrooveShape;
  /** Z of its top, and how far below it its floor or exit lies. */
  entryZ: number;
  depth: number;
  /** At its top; of a groove in a wall or a bore how high it is. */
  width: number;
  /** Z up to which metal may stand over it when its turn comes; its own top where it is free. */
  metalZ: number;
  /** Why metal may stand over it, in words; null where none does. */
  metalFrom: string | null;
}

/** What of a slot, groove or channel there is to make: one width throughout, a throat over a wider head, or a groove in a wall or a bore. */
export type GroovePart = 'strip' | 'throat' | 'head' | 'side groove';

export function partsOf({ shape }: Pick<GrooveView, 'shape'>): GroovePart[] {
  if (shape.isOneSided || shape.bore !== undefined) return ['side groove'];
  const isLeaning = shape.levels.some((l) => l.halfTop !== l.halfBottom);
  return shape.levels.length > 1 || isLeaning ? ['throat', 'head'] : ['strip'];
}

/** The groove from the side of `frame`'s Z; null where it is not reached from there, or where its walls were not kept. */
export function viewGroove(feature: Feature, label: string, frame: Frame): GrooveView | null {
  if (!feature.reachableFrom.some((d) => isAlong(d, frame.z))) return null;
  const shape = familyOf(feature).groove?.(feature, frame) ?? null;
  if (!shape) return null;
  const [top, bottom] = [topOf(shape), bottomOf(shape)];
  const isSideways = shape.isOneSided || shape.bore !== undefined;
  return {
    feature,
    label,
    shape,
    entryZ: top,
    depth: top - bottom,
    width: isSideways ? top - bottom : 2 * first(shape.levels).halfTop,
    metalZ: top,
    metalFrom: null,
  };
}
