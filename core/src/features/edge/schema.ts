import { z } from 'zod';
import { curvePieceSchema, featureBase, vec3Schema } from '../base.ts';

/** What chamfers, rounded edges and sharp edges have in common. `axis`: the way the face above the edge looks. */
export const edgeBase = {
  ...featureBase,
  loop: z.enum(['closed', 'open']),
  /** Along the upper edge, mm. */
  length: z.number().positive(),
  side: z.enum(['outside', 'inside']),
  /** A point on the upper edge. */
  at: vec3Schema,
  /** The upper edges, in order, by number in the model. */
  edges: z.array(z.number().int()),
  /** The upper edge as exact pieces, with the face above it on the left; left out where the file was read before it was kept. */
  upper: z.array(curvePieceSchema).optional(),
  /** Joints, by the piece before them, where strips do not meet at a mitre: something round goes about the corner. */
  rolled: z.array(z.number().int()).optional(),
  /** By how much the wall below leans outward from upright at the most, degrees. */
  lean: z.number().optional(),
  /** Faces above it. */
  above: z.array(z.number().int()).optional(),
  /** Faces above it and below it: they are there before it can be broken. */
  beside: z.array(z.number().int()).optional(),
  /** Free room beside it, to the next wall; null where nothing stands there. */
  roomBeside: z.number().nullable(),
  /** Free room below its top, to the next floor; null where nothing is there. */
  roomBelow: z.number().nullable(),
};
export const stripKind = z.enum(['straight', 'circular', 'mixed']);
