import { z } from 'zod';
import { profileFaults } from '../code/profiles/faults.ts';
import { machineProfileSchema } from '../code/profiles/schema.ts';
import { rowFaults } from '../cutting/faults.ts';
import { materialSchema } from '../cutting/material.ts';
import { methodFaults } from '../methods/faults.ts';
import { methodSchema } from '../methods/schema.ts';
import { shapeFaults } from '../tools/shape.ts';
import { holderSchema, toolSchema } from '../tools/schema.ts';
import { freeNumber } from '../tools/usual.ts';
import { formatLength } from '../units/length.ts';
import type { Library } from './library.ts';

/** The shop's lists by name. */
export type ListName = keyof Library;
export const LIST_NAMES = [
  'tools',
  'holders',
  'materials',
  'machines',
  'methods',
] as const satisfies readonly ListName[];

/** An entry of one of the lists. */
export type ListItem<L extends ListName> = Library[L][number];

interface ListSpec<L extends ListName> {
  schema: z.ZodType<ListItem<L>>;
  /** What one is called. */
  one: string;
  /** What stands against taking it into the list, beyond its shape. */
  faults(item: ListItem<L>, library: Library): string[];
  /** Why it must stay in the list; null where it may go. */
  kept(item: ListItem<L>, library: Library): string | null;
}

const say = (mm: number): string => `${formatLength(mm, 'mm')} mm`;
const last = (list: readonly unknown[], one: string): string | null =>
  list.length > 1 ? null : `It is the only ${one}: jobs need at least one. Add another first.`;

/** What is asked of each list's entries. */
export const LISTS: { [L in ListName]: ListSpec<L> } = {
  tools: {
    schema: toolSchema,
    one: 'tool',
    faults: (t, library) => {
      const holder = library.holders.some((h) => h.id === t.holderId);
      const taken = library.tools.find((o) => o.id !== t.id && o.number !== null && o.number === t.number);
      return [
        ...shapeFaults(t, say).map((f) => f.message),
        ...(holder ? [] : [`Its holder "${t.holderId}" is not in the list of holders. Choose one that is.`]),
        ...(taken
          ? [`T${taken.number} holds ${taken.description}. ${freeNumber(library.tools)} is free.`]
          : []),
      ];
    },
    kept: () => null,
  },
  holders: {
    schema: holderSchema,
    one: 'holder',
    faults: () => [],
    kept: (h, { tools }) => {
      const held = tools.filter((t) => t.holderId === h.id);
      return held.length === 0
        ? null
        : `${held.length} tools stand in it, such as ${held[0]?.description ?? ''}. Give them another holder first.`;
    },
  },
  materials: {
    schema: materialSchema,
    one: 'material',
    faults: rowFaults,
    kept: (_, { materials }) => last(materials, 'material'),
  },
  machines: {
    schema: machineProfileSchema,
    one: 'machine',
    faults: (m, { machines }) => [
      ...profileFaults(m),
      ...(machines.some((o) => o.id !== m.id && o.name.trim().toLowerCase() === m.name.trim().toLowerCase())
        ? [`Another machine is called "${m.name}". Give it a name of its own.`]
        : []),
    ],
    kept: (_, { machines }) => last(machines, 'machine'),
  },
  methods: {
    schema: methodSchema,
    one: 'method',
    faults: (m) => methodFaults(m),
    kept: () => null,
  },
};

/** What reading an entry came to. */
export type ReadItem<L extends ListName> = { item: ListItem<L> } | { why: string };

/** An entry from a document of unknown shape, checked against the lists that it goes into; or what is wrong with it, and where. */
export function readItem<L extends ListName>(list: L, document: unknown, library: Library): ReadItem<L> {
  const spec: ListSpec<L> = LISTS[list];
  const read = spec.schema.safeParse(document);
  if (!read.success) {
    const issue = read.error.issues[0];
    return { why: `${issue?.path.join('.') || spec.one}: ${issue?.message ?? 'cannot be read'}` };
  }
  const faults = spec.faults(read.data, library);
  return faults.length > 0 ? { why: faults.join(' ') } : { item: read.data };
}
