import { z } from 'zod';
import { areaBase } from '../area/schema.ts';

/** A plane that stock lies upon: the highest of a side, or one lower down that no wall rises from. Lengths in mm. */
export const faceSchema = z.object({
  ...areaBase,
  family: z.literal('face'),
  /** Where it lies along its axis, in the part file's frame. */
  level: z.number(),
  /** Its box. */
  length: z.number().positive(),
  width: z.number().positive(),
});
export type FaceFeature = z.infer<typeof faceSchema>;
