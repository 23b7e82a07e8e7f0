import type { Feature } from '../features/family.ts';
import type { EdgeProfile, EdgeShape } from '../features/edge/shape.ts';
import { familyOf } from '../features/registry.ts';
import type { Frame } from '../geometry/frame.ts';
import { isAlong } from '../geometry/vec.ts';

/** A chamfer, a rounded edge or a sharp edge as a setup's side finds it. Program coordinates, mm. */
export interface EdgeView {
  feature: Feature;
  /** Tag and number, such as E1. */
  label: string;
  shape: EdgeShape;
  /** Z of its upper edge, and how far down the model's own form of it reaches: 0 of a sharp one. */
  entryZ: number;
  depth: number;
  /** Z up to which metal may stand over it when its turn comes; its own top where it is free. */
  metalZ: number;
  /** What is not made before it, in words; null where all that it runs along is there. */
  metalFrom: string | null;
  /** Width that is broken before its turn comes, by what made the hole whose rim it is; 0: none. */
  broken: number;
  /** Radius of a hole's rim; null for any other edge. */
  rim: number | null;
}

const depthOf = (p: EdgeProfile): number =>
  p.kind === 'chamfer' ? p.drop : p.kind === 'round' ? p.radius : 0;

/** The edge from the side of `frame`'s Z; null where it is not reached from there, or where its curve was not kept. */
export function viewEdge(feature: Feature, label: string, frame: Frame): EdgeView | null {
  if (!feature.reachableFrom.some((d) => isAlong(d, frame.z))) return null;
  const shape = familyOf(feature).edge?.(feature, frame) ?? null;
  if (!shape) return null;
  const [piece] = shape.path;
  const isRim =
    !shape.rise &&
    shape.closed &&
    shape.side === 'inside' &&
    shape.path.length === 1 &&
    piece?.kind === 'arc';
  return {
    feature,
    label,
    shape,
    entryZ: shape.top,
    depth: depthOf(shape.profile),
    metalZ: shape.top,
    metalFrom: null,
    broken: 0,
    rim: isRim ? piece.radius : null,
  };
}
