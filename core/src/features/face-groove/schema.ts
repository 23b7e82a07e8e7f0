import { z } from 'zod';
import { curvePieceSchema, featureBase, vec3Schema } from '../base.ts';

/** A cavity of constant width that closes on itself, cut into a face. */
export const faceGrooveSchema = z.object({
  ...featureBase,
  family: z.literal('face-groove'),
  shape: z.enum(['ring', 'racetrack', 'path']),
  width: z.number().positive(),
  depth: z.number().positive(),
  centrelineLength: z.number().positive(),
  floorRadius: z.number().positive().optional(),
  /** At the level of the face. */
  centreline: z.array(curvePieceSchema),
  /** On the centre line, at the face. */
  at: vec3Schema,
  /** Rings only. */
  centre: vec3Schema.optional(),
  innerDiameter: z.number().positive().optional(),
  outerDiameter: z.number().positive().optional(),
});
export type FaceGrooveFeature = z.infer<typeof faceGrooveSchema>;
