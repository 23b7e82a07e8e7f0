import { z } from 'zod';
import { featureBase, grooveEndSchema, vec3Schema } from '../base.ts';

export const dovetailSchema = z.object({
  ...featureBase,
  family: z.literal('dovetail'),
  direction: vec3Schema,
  mouthWidth: z.number().positive(),
  bottomWidth: z.number().positive(),
  depth: z.number().positive(),
  /** Between floor and side (acute), degrees. */
  angle: z.number(),
  /** Of the floor, mm. */
  length: z.number().positive(),
  openEnds: z.number().int().min(0).max(2),
  /** Against its direction, and along it. */
  ends: z.tuple([grooveEndSchema, grooveEndSchema]).optional(),
  /** The middle of the throat at the face. */
  at: vec3Schema,
});
export type DovetailFeature = z.infer<typeof dovetailSchema>;
