import { z } from 'zod';
import { machineProfileSchema } from '../code/profiles/schema.ts';
import { materialSchema } from '../cutting/material.ts';
import { methodSchema } from '../methods/schema.ts';
import { holderSchema, toolSchema, type Tool } from '../tools/schema.ts';

/** What the shop has: the lists that every job draws on. */
export const librarySchema = z.object({
  tools: z.array(toolSchema),
  holders: z.array(holderSchema),
  materials: z.array(materialSchema),
  machines: z.array(machineProfileSchema),
  /** The shop's own ways to make things, before the shipped ones. */
  methods: z.array(methodSchema).default([]),
});
export type Library = z.infer<typeof librarySchema>;

/**
 * The shop's lists with a job's own tools after them; a tool that both name is the shop's. A number that another tool has by now is no place
 * for it: without one it is not posted, so that no program calls the wrong tool.
 */
export function withOwnTools(library: Library, own: readonly Tool[]): Library {
  const known = new Set(library.tools.map((t) => t.id));
  const taken = new Set(library.tools.map((t) => t.number));
  const added = own
    .filter((t) => !known.has(t.id))
    .map((t) => {
      const isTaken = t.number !== null && taken.has(t.number);
      taken.add(t.number);
      return isTaken ? { ...t, number: null } : t;
    });
  return added.length === 0 ? library : { ...library, tools: [...library.tools, ...added] };
}

/**
 * The lists from stored rows. A row that this version does not understand, such as a tool of a kind that came later, is left out and named:
 * it never makes the rest unreadable.
 */
export function readLibraryRows(
  rows: Record<Exclude<keyof Library, 'methods'>, readonly unknown[]> & { methods?: readonly unknown[] },
): {
  library: Library;
  left: string[];
} {
  const left: string[] = [];
  const read = <T>(list: keyof Library, schema: z.ZodType<T>): T[] =>
    (rows[list] ?? []).flatMap((row) => {
      const parsed = schema.safeParse(row);
      if (parsed.success) return [parsed.data];
      const issue = parsed.error.issues[0]!;
      const id = typeof row === 'object' && row !== null && 'id' in row ? String(row.id) : '?';
      left.push(`${list} ${id}: ${issue.path.join('.')}: ${issue.message}`);
      return [];
    });
  return {
    library: {
      tools: read('tools', toolSchema),
      holders: read('holders', holderSchema),
      materials: read('materials', materialSchema),
      machines: read('machines', machineProfileSchema),
      methods: read('methods', methodSchema),
    },
    left,
  };
}
