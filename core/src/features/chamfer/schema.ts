import { z } from 'zod';
import { edgeBase, stripKind } from '../edge/schema.ts';

export const chamferSchema = z.object({
  ...edgeBase,
  family: z.literal('chamfer'),
  kind: stripKind,
  /** Square to `axis`, mm. */
  width: z.number().positive(),
  /** From the top face, degrees. */
  angle: z.number(),
});
export type ChamferFeature = z.infer<typeof chamferSchema>;
