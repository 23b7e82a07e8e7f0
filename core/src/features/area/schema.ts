import { z } from 'zod';
import { curvePieceSchema, featureBase, vec3Schema } from '../base.ts';

/** A piece of an area's border: a wall that stands up from it, or where it ends in the open. */
export const borderPieceSchema = z.object({ piece: curvePieceSchema, isWall: z.boolean() });
export type BorderPiece = z.infer<typeof borderPieceSchema>;

/**
 * What areas share. Lengths in mm. `borders`: closed runs of exact pieces in space with the area on their left, seen against the axis:
 * the outer one first, then the islands.
 */
export const areaBase = {
  ...featureBase,
  /** A point on it. */
  at: vec3Schema,
  borders: z.array(z.array(borderPieceSchema)),
};
