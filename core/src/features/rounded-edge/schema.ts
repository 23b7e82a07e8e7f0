import { z } from 'zod';
import { edgeBase, stripKind } from '../edge/schema.ts';

export const roundedEdgeSchema = z.object({
  ...edgeBase,
  family: z.literal('rounded-edge'),
  kind: stripKind,
  radius: z.number().positive(),
});
export type RoundedEdgeFeature = z.infer<typeof roundedEdgeSchema>;
