import { z } from 'zod';
import { edgeBase } from '../edge/schema.ts';

/** An edge without a shape of its own that may be broken (ISO 13715). */
export const sharpEdgeSchema = z.object({
  ...edgeBase,
  family: z.literal('sharp-edge'),
  /** The hole whose rim it is. */
  holeId: z.string().optional(),
  /** Its rim diameter there, mm. */
  rimDiameter: z.number().positive().optional(),
});
export type SharpEdgeFeature = z.infer<typeof sharpEdgeSchema>;
