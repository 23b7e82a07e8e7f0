import { z } from 'zod';
import { floorSheetSchema } from '../sheet/schema.ts';

const text = z.string();

/** An operation as a release remembers it: its tool and its numbers in words. */
const releasedOperationSchema = z.object({
  label: text,
  tool: text,
  values: z.array(z.tuple([text, text])),
});

/** A row of the worksheet as it was released. */
const releasedRowSchema = z.object({
  key: text,
  tag: text,
  callout: text,
  count: z.number().int(),
  state: text,
  operations: z.array(releasedOperationSchema),
});
export type ReleasedRow = z.infer<typeof releasedRowSchema>;

/** What is frozen when a proved job is released to the floor. */
export const releaseContentSchema = z.object({
  format: z.literal('yellow-pin/release@1'),
  job: text,
  units: z.enum(['mm', 'inch']),
  machine: text,
  material: text,
  files: z.array(z.object({ setupId: text, name: text, text: z.string(), sha256: text })),
  sheets: z.array(floorSheetSchema),
  rows: z.array(releasedRowSchema),
  /** What a setup says of its zero, stock and holding, in words. */
  setups: z.array(z.object({ id: text, name: text, words: z.array(z.tuple([text, text])) })),
  findings: z.array(
    z.object({ severity: z.enum(['error', 'warning', 'note']), message: text, accepted: text.nullable() }),
  ),
  /** SHA-256 over the names and hashes of all files, hex: one number for the whole release. */
  sha256: text,
});
export type ReleaseContent = z.infer<typeof releaseContentSchema>;
