import { z } from 'zod';
import { featureBase, grooveEndSchema, vec3Schema } from '../base.ts';

export const tSlotSchema = z.object({
  ...featureBase,
  family: z.literal('t-slot'),
  direction: vec3Schema,
  mouthWidth: z.number().positive(),
  /** Face to ceiling, mm. */
  mouthDepth: z.number().positive(),
  headWidth: z.number().positive(),
  headHeight: z.number().positive(),
  /** Of the head, over a round end, mm. */
  length: z.number().positive(),
  openEnds: z.number().int().min(0).max(2),
  /** Against its direction, and along it. */
  ends: z.tuple([grooveEndSchema, grooveEndSchema]).optional(),
  /** Where the throat's straight walls begin and end, along the direction from `at`, mm. */
  throat: z.tuple([z.number(), z.number()]).optional(),
  floorRadius: z.number().positive().optional(),
  /** The middle of the throat at the face. */
  at: vec3Schema,
});
export type TSlotFeature = z.infer<typeof tSlotSchema>;
