import { z } from 'zod';
import { curvePieceSchema, vec3Schema } from '../features/base.ts';

/** Finds a feature again, also in a new revision of the file: its family, its place and the way it looks. */
export const targetSchema = z.object({ family: z.string().max(40), at: vec3Schema, axis: vec3Schema });
export type Target = z.infer<typeof targetSchema>;

const targets = z.array(targetSchema).min(1).max(3000);
const length = z.number().min(-1e4).max(1e4);
const unit = vec3Schema.refine(
  (v) => Math.abs(Math.hypot(...v) - 1) < 1e-6,
  'a direction must have length 1',
);

/** A hole put in by hand. */
export const handMadeHoleSchema = z.object({
  family: z.literal('hole'),
  entry: vec3Schema,
  axis: unit,
  diameter: z.number().positive().max(2000),
  /** mm; a through hole's is to its exit. */
  depth: z.number().positive().max(5000),
  through: z.boolean(),
  faces: z.array(z.number().int()).max(500),
});
/** Edges chosen by hand, to be broken. */
export const handMadeEdgeSchema = z.object({
  family: z.literal('sharp-edge'),
  axis: unit,
  edges: z.array(z.number().int()).min(1).max(500),
  at: vec3Schema,
  length: z.number().positive(),
  side: z.enum(['outside', 'inside']),
  loop: z.enum(['closed', 'open']),
  /** As of recognised edges; left out where the edges make no level run. */
  upper: z.array(curvePieceSchema).max(2000).optional(),
  rolled: z.array(z.number().int()).max(2000).optional(),
  lean: z.number().optional(),
  above: z.array(z.number().int()).max(500).optional(),
  beside: z.array(z.number().int()).max(1000).optional(),
});

const base = { id: z.string().min(1).max(40) };

/** What the programmer changes about what was recognised. Each stands alone and can be taken back alone. */
export const correctionSchema = z.discriminatedUnion('kind', [
  /** It is no such feature. */
  z.object({ ...base, kind: z.literal('dismiss'), targets }),
  /** Top moved up (positive) or down along the axis, bottom moved deeper (positive) or up, or the depth as typed. mm. */
  z.object({
    ...base,
    kind: z.literal('levels'),
    targets,
    raiseTop: length.default(0),
    lowerBottom: length.default(0),
    depth: z.number().positive().max(5000).nullable().default(null),
  }),
  /** The tool comes from here. */
  z.object({ ...base, kind: z.literal('approach'), targets, from: unit }),
  /** Coaxial holes that are one. */
  z.object({ ...base, kind: z.literal('join'), targets: z.array(targetSchema).min(2).max(50) }),
  /** One hole that is two, with air between these depths below its entry, mm. */
  z.object({
    ...base,
    kind: z.literal('split'),
    targets,
    from: z.number().nonnegative(),
    to: z.number().positive(),
  }),
  /** The entry chamfer is a job of its own. */
  z.object({ ...base, kind: z.literal('own-chamfer'), targets }),
  /** Made by hand from faces, edges or a typed position. */
  z.object({
    ...base,
    kind: z.literal('made'),
    feature: z.discriminatedUnion('family', [handMadeHoleSchema, handMadeEdgeSchema]),
  }),
]);
export type Correction = z.infer<typeof correctionSchema>;
