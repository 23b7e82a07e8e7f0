import { readLibraryRows, type Library } from './library.ts';
import { LIST_NAMES, type ListName } from './library-items.ts';

/** What taking in one entry of a shop's file would do. */
export interface ShopChange {
  list: ListName;
  id: string;
  name: string;
  kind: 'new' | 'changed';
  /** Of a changed one: what is other, by field. */
  fields: string[];
}

/** What taking in a whole shop's file would do to the lists: entries that are the same are only counted, bad ones named. */
export interface ShopChanges {
  changes: ShopChange[];
  same: number;
  /** Entries that cannot be read, each with the reason. */
  left: string[];
  library: Library;
}

/** The name of an entry of any list. */
const nameOf = (item: { id: string; name?: string; description?: string }): string =>
  item.name ?? item.description ?? item.id;

/**
 * What a shop's file would change, before it is taken in. Nothing is ever taken out: what the file does not have stays. Null where the
 * document is no shop's file at all.
 */
export function shopChanges(current: Library, document: unknown): ShopChanges | null {
  if (typeof document !== 'object' || document === null) return null;
  const given = document as Partial<Record<ListName, unknown>>;
  if (!LIST_NAMES.some((n) => Array.isArray(given[n]))) return null;
  const rows = (n: ListName): unknown[] => (Array.isArray(given[n]) ? (given[n] as unknown[]) : []);
  const { library, left } = readLibraryRows({
    tools: rows('tools'),
    holders: rows('holders'),
    materials: rows('materials'),
    machines: rows('machines'),
    methods: rows('methods'),
  });
  const changes: ShopChange[] = [];
  let same = 0;
  for (const list of LIST_NAMES) {
    const own = new Map<string, { id: string }>(current[list].map((i) => [i.id, i]));
    for (const item of library[list]) {
      const before = own.get(item.id);
      const fields = before ? otherFields(before, item) : [];
      if (before && fields.length === 0) same++;
      else changes.push({ list, id: item.id, name: nameOf(item), kind: before ? 'changed' : 'new', fields });
    }
  }
  return { changes, same, left, library };
}

function otherFields(a: object, b: object): string[] {
  const [x, y] = [a as Record<string, unknown>, b as Record<string, unknown>];
  return [...new Set([...Object.keys(x), ...Object.keys(y)])].filter(
    (k) => JSON.stringify(x[k]) !== JSON.stringify(y[k]),
  );
}
