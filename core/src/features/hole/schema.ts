import { z } from 'zod';
import { featureBase, vec3Schema } from '../base.ts';

/** One step of a hole, from the entry down. Lengths in mm, angles (included) in degrees. */
export const stackStepSchema = z.discriminatedUnion('shape', [
  z.object({
    shape: z.literal('cylinder'),
    diameter: z.number().positive(),
    length: z.number().nonnegative(),
  }),
  z.object({
    shape: z.literal('cone'),
    startDiameter: z.number().nonnegative(),
    endDiameter: z.number().nonnegative(),
    angle: z.number(),
    length: z.number().nonnegative(),
  }),
  z.object({ shape: z.literal('flat'), startDiameter: z.number(), endDiameter: z.number() }),
]);

export const bottomSchema = z.discriminatedUnion('shape', [
  z.object({ shape: z.literal('open') }),
  z.object({ shape: z.literal('flat') }),
  z.object({ shape: z.literal('cone'), angle: z.number() }),
  z.object({ shape: z.literal('ball') }),
  /** It ends in a surface that is not understood. */
  z.object({ shape: z.literal('unknown') }),
]);

export const threadCandidateSchema = z.object({
  designation: z.string(),
  basis: z.enum(['tap drill diameter', 'minor diameter', 'major diameter', 'taper']),
});

export const holeSchema = z.object({
  ...featureBase,
  family: z.literal('hole'),
  kind: z.enum(['blind', 'through']),
  /** The axis at the top of the feature: the highest point of the rim. */
  entry: vec3Schema,
  /** How far the lowest point of the entry rim lies below the highest (slanted or curved faces), mm. */
  entryDrop: z.number().nonnegative(),
  /** Entry to the end of full diameter of the last step; through holes to the exit, mm. */
  depth: z.number().positive(),
  stack: z.array(stackStepSchema),
  bottom: bottomSchema,
  role: z.enum(['plain', 'counterbored', 'countersunk', 'stepped', 'tapered']),
  threadCandidates: z.array(threadCandidateSchema),
  interrupted: z.boolean(),
});

export type HoleFeature = z.infer<typeof holeSchema>;
export type StackStep = z.infer<typeof stackStepSchema>;
export type HoleBottom = z.infer<typeof bottomSchema>;
export type ThreadCandidate = z.infer<typeof threadCandidateSchema>;
