import { z } from 'zod';
import { areaBase } from '../area/schema.ts';

/** A closed cavity of upright walls that is no hole, slot or groove. Lengths in mm. */
export const pocketSchema = z.object({
  ...areaBase,
  family: z.literal('pocket'),
  bottom: z.enum(['flat', 'open']),
  depth: z.number().positive(),
  /** Smallest inside corner; 0 where one is sharp. */
  cornerRadius: z.number().nonnegative(),
  /** At the foot of its walls. */
  floorRadius: z.number().nonnegative(),
  /** Its box along its longest wall. */
  length: z.number().positive(),
  width: z.number().positive(),
  islands: z.number().int().nonnegative(),
});
export type PocketFeature = z.infer<typeof pocketSchema>;
