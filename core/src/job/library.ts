import { z } from 'zod';
import { machineProfileSchema } from '../code/profiles/schema.ts';
import { materialSchema } from '../cutting/material.ts';
import { holderSchema, toolSchema } from '../tools/schema.ts';

/** What the shop has: the lists that every job draws on. */
export const librarySchema = z.object({
  tools: z.array(toolSchema),
  holders: z.array(holderSchema),
  materials: z.array(materialSchema),
  machines: z.array(machineProfileSchema),
});
export type Library = z.infer<typeof librarySchema>;
