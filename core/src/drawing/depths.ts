import { z } from 'zod';

/** How deep what is drawn on a layer is cut. */
export const layerDepthSchema = z.object({
  /** `outline`: the part's own. `cut`: holes and cavities. `ignore`: centre lines, dimensions, title block. */
  use: z.enum(['outline', 'cut', 'ignore']),
  /** mm; null: through. */
  depth: z.number().positive().max(1000).nullable(),
  /** Nobody has typed it yet, and through would be wrong. */
  assumed: z.boolean().optional(),
});

/** What a 2D drawing does not say and the programmer types. */
export const drawingDepthsSchema = z.object({
  thickness: z.number().positive().max(1000),
  layers: z
    .record(z.string().max(300), layerDepthSchema)
    .refine((r) => Object.keys(r).length <= 2000, 'holds more than 2000 layers'),
  /** Depths of single sizes, which win over their layer's: key as in {@link sizeOfOutline}; null: through. */
  sizes: z
    .record(z.string().max(300), z.number().positive().max(1000).nullable())
    .refine((r) => Object.keys(r).length <= 5000, 'holds more than 5000 sizes')
    .default({}),
});
export type DrawingDepths = z.infer<typeof drawingDepthsSchema>;
