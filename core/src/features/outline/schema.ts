import { z } from 'zod';
import { areaBase } from '../area/schema.ts';

/** The part's outer wall as seen along its axis: one closed border, with the part on its left. Lengths in mm. */
export const outlineSchema = z.object({
  ...areaBase,
  family: z.literal('outline'),
  /** Once round. */
  length: z.number().positive(),
  /** From the lowest to the highest place of its walls. */
  height: z.number().positive(),
  /** Smallest inside corner; 0 where one is sharp, null where there is none. */
  cornerRadius: z.number().nonnegative().nullable(),
});
export type OutlineFeature = z.infer<typeof outlineSchema>;
