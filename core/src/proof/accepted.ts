import { z } from 'zod';
import type { Check } from './checks/check.ts';

/**
 * A finding that somebody has looked at and takes as it is, with the reason. It is known by its words: where a number of it changes, it is
 * another, and is told again.
 */
export const acceptedSchema = z.object({
  rule: z.string().min(1).max(60),
  setupId: z.string().max(60).nullable(),
  message: z.string().min(1).max(1000),
  reason: z.string().trim().min(3).max(300),
});
export type Accepted = z.infer<typeof acceptedSchema>;

const isOf = (a: Accepted, c: Check): boolean =>
  a.rule === c.rule && a.setupId === (c.setupId ?? null) && a.message === c.message.slice(0, 1000);

/** What a finding is accepted by. */
export const acceptanceOf = (c: Check, reason: string): Accepted => ({
  rule: c.rule,
  setupId: c.setupId ?? null,
  message: c.message.slice(0, 1000),
  reason,
});

/** Whether a finding may be accepted: what was not understood of a text must be mended, and a note asks for nothing. */
export const isAcceptable = (c: Check): boolean =>
  c.mustMend !== true && (c.severity !== 'note' || c.accepted !== undefined);

/** The findings with those marked that were accepted: they count as notes, and keep their words and the reason. */
export const withAccepted = (checks: readonly Check[], accepted: readonly Accepted[]): Check[] =>
  checks.map((c) => {
    const by = accepted.find((a) => isOf(a, c));
    return by && isAcceptable(c) ? { ...c, severity: 'note', accepted: by.reason } : c;
  });

/** The list without what accepts a finding, or with it. */
export const without = (accepted: readonly Accepted[], c: Check): Accepted[] =>
  accepted.filter((a) => !isOf(a, c));
