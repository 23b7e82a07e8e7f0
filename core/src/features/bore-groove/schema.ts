import { z } from 'zod';
import { featureBase, vec3Schema } from '../base.ts';

/** A ring undercut in a hole. */
export const boreGrooveSchema = z.object({
  ...featureBase,
  family: z.literal('bore-groove'),
  /** On the axis, half-way across its width. */
  centre: vec3Schema,
  boreDiameter: z.number().positive(),
  grooveDiameter: z.number().positive(),
  width: z.number().positive(),
  /** The hole it is in. */
  holeId: z.string(),
});
export type BoreGrooveFeature = z.infer<typeof boreGrooveSchema>;
