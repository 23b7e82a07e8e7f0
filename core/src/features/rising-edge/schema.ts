import { z } from 'zod';
import { featureBase, vec3Schema } from '../base.ts';

/** An edge between a face that is not level and an upright wall: it rises and falls along the part. */
export const risingEdgeSchema = z.object({
  ...featureBase,
  family: z.literal('rising-edge'),
  loop: z.enum(['closed', 'open']),
  /** Along it, mm. */
  length: z.number().positive(),
  /** How far it rises along `axis`, mm. */
  rise: z.number().nonnegative(),
  /** Its highest point. */
  at: vec3Schema,
  /** Its edges, in order, by number in the model. */
  edges: z.array(z.number().int()),
  /** Points along it with the face above on the left, and how that face and the wall below look there. */
  run: z.array(z.object({ at: vec3Schema, up: vec3Schema, out: vec3Schema })).min(2),
  /** The hole whose rim it is. */
  holeId: z.string().optional(),
  /** Faces above it and below it: they are there before it can be broken. */
  beside: z.array(z.number().int()),
});
export type RisingEdgeFeature = z.infer<typeof risingEdgeSchema>;
