import { z } from 'zod';
import { threadSchema } from '../threads/thread.ts';

/** How a print wants a hole or thread made, beyond its sizes. */
const WISHES = ['formed', 'insert', 'milled', 'reamed'] as const;
export type Wish = (typeof WISHES)[number];

/** Limits of a diameter, as deviations from it, mm; a fit of ISO 286-1 by its name, whose limits may not be in the table here. */
const toleranceSchema = z.object({
  fit: z.string().max(6).optional(),
  lower: z.number().optional(),
  upper: z.number().optional(),
});
export type Tolerance = z.infer<typeof toleranceSchema>;

/** What a callout on a print says of a hole. Lengths in mm. */
export const calloutSchema = z.object({
  /** Of the hole; of a threaded one the drilled diameter, where it is said. */
  diameter: z.number().positive().optional(),
  tolerance: toleranceSchema.optional(),
  thread: threadSchema.optional(),
  /** Of the hole at full diameter; absent when not said. */
  depth: z.number().positive().optional(),
  /** Of full thread. */
  threadDepth: z.number().positive().optional(),
  through: z.boolean(),
  counterbore: z
    .object({ diameter: z.number().positive(), depth: z.number().positive().optional() })
    .optional(),
  countersink: z.object({ diameter: z.number().positive(), angleDeg: z.number().gt(0).lt(180) }).optional(),
  count: z.number().int().positive().optional(),
  wishes: z.array(z.enum(WISHES)).max(WISHES.length).optional(),
});
export type Callout = z.infer<typeof calloutSchema>;

/** Longer than any callout, and what the plan keeps of one. */
export const MOST_LETTERS = 200;

export class CalloutError extends Error {}
