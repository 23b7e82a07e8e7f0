import { z } from 'zod';
import { curvePieceSchema, featureBase, grooveEndSchema, vec3Schema } from '../base.ts';

/** A cavity of constant width that is neither straight nor closed on itself. */
export const channelSchema = z.object({
  ...featureBase,
  family: z.literal('channel'),
  width: z.number().positive(),
  depth: z.number().positive(),
  /** Without round ends, mm. */
  centrelineLength: z.number().positive(),
  centreline: z.array(curvePieceSchema),
  /** The others are round. */
  openEnds: z.number().int().min(0).max(2),
  /** At the start of its centre line, and at its end. */
  ends: z.tuple([grooveEndSchema, grooveEndSchema]).optional(),
  floorRadius: z.number().positive().optional(),
  bottom: z.enum(['flat', 'open']),
  /** The middle of its centre line, at the face. */
  at: vec3Schema,
});
export type ChannelFeature = z.infer<typeof channelSchema>;
