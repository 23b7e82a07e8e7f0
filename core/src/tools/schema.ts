import { z } from 'zod';
import { TAP_LEADS } from '../threads/thread.ts';

export const toolKindSchema = z.enum([
  'spot-drill',
  'drill',
  'reamer',
  'countersink',
  'counterbore',
  'tap',
  'end-mill',
  'boring-bar',
  'centre-drill',
  'core-drill',
  'thread-mill',
  't-cutter',
  'dovetail-cutter',
  'chamfer-mill',
  'back-chamfer-cutter',
  'corner-rounding-cutter',
  'lollipop',
]);
export type ToolKind = z.infer<typeof toolKindSchema>;

/** A tool as it stands in the magazine. Lengths in mm, angles included, in degrees. */
export const toolSchema = z.object({
  id: z.string().min(1),
  /** Its place in the machine's magazine; null for a tool that lies in the drawer. */
  number: z.number().int().positive().nullable(),
  kind: toolKindSchema,
  description: z.string().min(1).max(80),
  diameter: z.number().positive(),
  /** The size as the shop says it: `8.5`, `#7`, `F`, `1/4`. */
  sizeName: z.string().max(20),
  pointAngleDeg: z.number().gt(0).max(180).optional(),
  tipDiameter: z.number().nonnegative().default(0),
  fluteLength: z.number().positive(),
  overallLength: z.number().positive(),
  shankDiameter: z.number().positive(),
  stickOut: z.number().positive(),
  holderId: z.string(),
  cutterMaterial: z.enum(['hss', 'carbide']).default('hss'),
  /** Cutting teeth round it, of mills. */
  teeth: z.number().int().positive().max(40).optional(),
  /** Radius at the corner of a mill's end; half its diameter for a ball. */
  cornerRadius: z.number().nonnegative().optional(),
  /** A part behind the flutes that is thinner than they are, and how far above the tip it ends. */
  neckDiameter: z.number().positive().optional(),
  neckLength: z.number().positive().optional(),
  /** Steepest way into solid metal, degrees; 90 or nothing said: it may plunge. */
  rampAngleDeg: z.number().gt(0).max(90).optional(),
  /** Centre drills: the thin drill before the cone, and how far its full diameter goes. */
  pilotDiameter: z.number().positive().optional(),
  pilotLength: z.number().positive().optional(),
  /** Radius that a corner-rounding cutter leaves on an edge. */
  profileRadius: z.number().positive().optional(),
  /** Thread mills: the thread that its teeth have, and how many rows of them there are. */
  threadForm: z
    .object({
      pitch: z.number().positive(),
      /** Of a partial profile the widest pitch that it may cut. */
      pitchTo: z.number().positive().optional(),
      angleDeg: z.union([z.literal(60), z.literal(55)]),
      rows: z.number().int().positive().max(60),
      /** Tapered 1:16 for pipe. */
      tapered: z.boolean().default(false),
    })
    .optional(),
  /** Taps only. */
  thread: z
    .object({
      designation: z.string(),
      pitch: z.number().positive(),
      majorDiameter: z.number().positive(),
      hand: z.enum(['right', 'left']),
      lead: z.enum(TAP_LEADS),
      style: z.enum(['cutting', 'forming']),
    })
    .optional(),
});
export type Tool = z.infer<typeof toolSchema>;

export const holderSchema = z.object({
  id: z.string().min(1),
  description: z.string().min(1).max(80),
  /** From the nose up: diameter and length of each step, mm. */
  steps: z.array(z.object({ diameter: z.number().positive(), length: z.number().positive() })).min(1),
});
export type Holder = z.infer<typeof holderSchema>;
