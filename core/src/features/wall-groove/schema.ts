import { z } from 'zod';
import { curvePieceSchema, featureBase, grooveEndSchema, vec3Schema } from '../base.ts';

/** An undercut in an outside or pocket wall. `axis` is the direction that the wall runs along. */
export const wallGrooveSchema = z.object({
  ...featureBase,
  family: z.literal('wall-groove'),
  /** Along `axis`, mm. */
  width: z.number().positive(),
  /** Into the wall, mm. */
  depth: z.number().positive(),
  loop: z.enum(['closed', 'open']),
  /** Along the wall it is cut into, mm. */
  length: z.number().positive(),
  side: z.enum(['outside', 'inside']),
  /** Half-way across its width, at the wall. */
  at: vec3Schema,
  /** The wall's edge along the groove, exactly, half-way across its width, with the air on its left seen along `axis`. */
  mouth: z.array(curvePieceSchema).optional(),
  ends: z.tuple([grooveEndSchema, grooveEndSchema]).optional(),
  /** Radius in which it runs out at ends that are not open, mm: that of its cutter. */
  runOut: z.number().positive().optional(),
  /** The mouth's edges, by number in the model. */
  edges: z.array(z.number().int()),
});
export type WallGrooveFeature = z.infer<typeof wallGrooveSchema>;
