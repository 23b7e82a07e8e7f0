import { first } from '../lists.ts';
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

/** What a job says of tools: its own ones, and the numbers on which tools from the drawer are put into the magazine for it. */
export interface JobTools {
  tools: readonly Tool[];
  loaded: Readonly<Record<string, number>>;
}

/**
 * The shop's lists as a job sees them: tools from the drawer on the numbers that it gives them, its own tools after the shop's; a tool that
 * both name is the shop's. A number that another tool has by now is no place: without one a tool is not posted, so that no program calls the
 * wrong tool.
 */
export function withJobTools(library: Library, { tools: own, loaded }: JobTools): Library {
  const known = new Set(library.tools.map((t) => t.id));
  const added = own.filter((t) => !known.has(t.id));
  if (added.length === 0 && Object.keys(loaded).length === 0) return library;
  const taken = new Set(library.tools.map((t) => t.number));
  const onNumber = (t: Tool, number: number | null): Tool => {
    if (number === null || taken.has(number)) return t.number === null ? t : { ...t, number: null };
    taken.add(number);
    return t.number === number ? t : { ...t, number };
  };
  return {
    ...library,
    tools: [
      ...library.tools.map((t) => (t.number === null ? onNumber(t, loaded[t.id] ?? null) : t)),
      ...added.map((t) => onNumber(t, t.number)),
    ],
  };
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
      const issue = first(parsed.error.issues);
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
