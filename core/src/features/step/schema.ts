import { z } from 'zod';
import { areaBase } from '../area/schema.ts';

/** A floor with walls that is open to at least one side. Lengths in mm. */
export const stepSchema = z.object({
  ...areaBase,
  family: z.literal('step'),
  /** Below the level it is cut into. */
  depth: z.number().positive(),
  /** How many upright walls stand on it, corner radii not counted. */
  walls: z.number().int().positive(),
  /** Smallest inside corner; 0 where one is sharp, null where there is none. */
  cornerRadius: z.number().nonnegative().nullable(),
  floorRadius: z.number().nonnegative(),
});
export type StepFeature = z.infer<typeof stepSchema>;
