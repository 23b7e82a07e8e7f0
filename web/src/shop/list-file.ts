import type { ListName } from '@yellow-pin/core/plan/library-items';

/** Entries as a file holds them; those that it could not be read for, by their line or place. */
export interface FileItems {
  items: readonly unknown[];
  left: { place: string; message: string }[];
}

/** Entries of a file: a table, a list, or a whole shop with that list in it. */
export function itemsOf(
  list: ListName,
  name: string,
  text: string,
  readTable?: (text: string) => FileItems,
): FileItems {
  if (readTable && !/^\s*[[{]/.test(text)) return readTable(text);
  try {
    const document: unknown = JSON.parse(text);
    const found = Array.isArray(document)
      ? (document as unknown[])
      : typeof document === 'object' && document !== null && list in document
        ? (document as Record<string, unknown>)[list]
        : null;
    if (Array.isArray(found)) return { items: found as unknown[], left: [] };
    return { items: [], left: [{ place: name, message: `It holds no list of ${list}.` }] };
  } catch (e) {
    return { items: [], left: [{ place: name, message: `It is no JSON: ${(e as Error).message}` }] };
  }
}
