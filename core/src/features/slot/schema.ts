import { z } from 'zod';
import { featureBase, grooveEndSchema, vec3Schema } from '../base.ts';

export const slotSchema = z.object({
  ...featureBase,
  family: z.literal('slot'),
  kind: z.enum(['closed', 'open-one-end', 'open-both-ends']),
  width: z.number().positive(),
  /** Over round ends, at the level of the face it is cut into, mm. */
  length: z.number().positive(),
  depth: z.number().positive(),
  bottom: z.enum(['flat', 'open']),
  /** Half-way along and across, at the level of the face it is cut into. */
  centre: vec3Schema,
  /** Along it. */
  direction: vec3Schema,
  /** Against its direction, and along it. */
  ends: z.tuple([grooveEndSchema, grooveEndSchema]).optional(),
  /** At the foot of its walls, mm. */
  floorRadius: z.number().positive().optional(),
});
export type SlotFeature = z.infer<typeof slotSchema>;
