import { z } from 'zod';

export const vec3Schema = z.tuple([z.number(), z.number(), z.number()]);

/** What every feature has. Lengths in mm, coordinates in the part file's frame, unit vectors. */
export const featureBase = {
  id: z.string(),
  solid: z.number().int(),
  /** Face numbers in file order. */
  faces: z.array(z.number().int()),
  /** Directions, out of the material, from which a straight tool reaches it. */
  reachableFrom: z.array(vec3Schema),
  /** Out of the material, toward the tool. */
  axis: vec3Schema,
  /** What the part's file says of its faces, as a print would, lengths in `unit`; where it says anything. */
  said: z.array(z.object({ text: z.string(), unit: z.enum(['mm', 'inch']) })).optional(),
};

/** An exact piece of a centre line in space. `turn`: radians about `axis`, counter-clockwise positive. */
export const curvePieceSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('line'), from: vec3Schema, to: vec3Schema }),
  z.object({
    kind: z.literal('arc'),
    from: vec3Schema,
    to: vec3Schema,
    centre: vec3Schema,
    radius: z.number().positive(),
    turn: z.number(),
  }),
]);
/** How a cavity ends along its middle line: in the open, or in its own shape. `beyond`: how much farther one of its walls runs, mm. */
export const grooveEndSchema = z.object({ open: z.boolean(), beyond: z.number().nonnegative() });
export type GrooveEnd = z.infer<typeof grooveEndSchema>;

export type CurvePiece = z.infer<typeof curvePieceSchema>;
