import { z } from 'zod';
import { featureBase, vec3Schema } from '../base.ts';

/** A round boss: a convex cylinder with a free end. Lengths in mm. */
export const bossSchema = z.object({
  ...featureBase,
  family: z.literal('boss'),
  /** The axis at the free end. */
  entry: vec3Schema,
  diameter: z.number().positive(),
  /** From the free end to where the cylinder ends. */
  height: z.number().positive(),
  /** A chamfer at the free end: how far down it goes, and its diameter on top. */
  chamfer: z.object({ length: z.number().positive(), diameter: z.number().nonnegative() }).nullable(),
  /** What the cylinder stands on: a shoulder, or nothing where it is free at both ends. */
  bottom: z.enum(['shoulder', 'open']),
});
export type BossFeature = z.infer<typeof bossSchema>;
