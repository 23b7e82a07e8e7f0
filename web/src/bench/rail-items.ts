/** The tile that is dragged into the rail to begin another file there. */
export const NEW_CUT = 'cut:';

/** What stands in the rail, in order: the tile for a new cut, then visits of tools, each with the cut before it where there is one. */
export function railItems(visits: readonly string[], splits: readonly string[]): string[] {
  return [
    ...(visits.length > 1 ? [NEW_CUT] : []),
    ...visits.flatMap((key, i) => (i > 0 && splits.includes(key) ? [cutBefore(key), key] : [key])),
  ];
}

export const cutBefore = (visit: string): string => `${NEW_CUT}${visit}`;
export const isCut = (item: string): boolean => item.startsWith(NEW_CUT);
/** The visit that a cut stands before. */
export const visitOf = (cut: string): string => cut.slice(NEW_CUT.length);

/** What dragging an item over another means. */
export type Drop =
  | { kind: 'visit'; key: string; before: string | null }
  /** The splits afterwards. */
  | { kind: 'splits'; splits: string[] };

/** An item is let go over another: a tool runs elsewhere, or a file begins elsewhere. */
export function dropped(
  items: readonly string[],
  splits: readonly string[],
  active: string,
  over: string,
): Drop | null {
  const [from, to] = [items.indexOf(active), items.indexOf(over)];
  if (from < 0 || to < 0 || from === to) return null;
  const moved = items.filter((i) => i !== active);
  moved.splice(to, 0, active);
  const after = moved.slice(to + 1).find((i) => !isCut(i)) ?? null;
  if (!isCut(active)) return { kind: 'visit', key: active, before: after };
  const visits = items.filter((i) => !isCut(i));
  const rest = splits.filter((s) => active === NEW_CUT || s !== visitOf(active));
  // Before the first tool, or after the last, no file begins.
  const isPlace = after !== null && after !== visits[0];
  return { kind: 'splits', splits: isPlace && !rest.includes(after) ? [...rest, after] : rest };
}
