import { z } from 'zod';
import type { Row } from './row.ts';

/** Something in a job that can be looked for across jobs. */
export const findableSchema = z.object({
  what: z.enum(['row', 'thread', 'tool']),
  text: z.string().max(200),
});
export type Findable = z.infer<typeof findableSchema>;

/** What of a job's rows can be looked for: tags with their callouts, threads, and the tools that make them. */
export function findables(
  rows: readonly Pick<Row, 'tag' | 'calloutText' | 'thread' | 'operations'>[],
): Findable[] {
  const out = new Map<string, Findable>();
  const add = (what: Findable['what'], text: string): void =>
    void out.set(`${what}/${text}`, { what, text: text.slice(0, 200) });
  for (const r of rows) {
    add('row', `${r.tag} ${r.calloutText}`);
    if (r.thread) add('thread', r.thread.designation);
    for (const { tool } of r.operations) add('tool', `T${tool.number ?? '–'} ${tool.description}`);
  }
  return [...out.values()];
}
