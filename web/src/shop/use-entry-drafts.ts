import { useEffect, useState } from 'react';
import { useSearchParams } from 'react-router-dom';
import { newId } from '../kit/new-id.ts';

/** The entries of a list as they are being changed, and the one that is looked at. */
export interface EntryDrafts<T> {
  /** Stored and fresh ones, each as it stands now. */
  listed: T[];
  shown: T | undefined;
  /** The shown one as it is stored; null where it is fresh. */
  stored: T | null;
  isChanged: boolean;
  isDraft(id: string): boolean;
  look(id: string): void;
  set(part: Partial<T>): void;
  drop(): void;
  copy(): void;
  /** After it was taken out of the list. */
  gone(): void;
}

/** Entries of one of the shop's lists while they are changed: looking at another loses nothing. `param`: which is looked at, in the address. */
export function useEntryDrafts<T extends { id: string; name: string }>(
  entries: readonly T[],
  param: string,
): EntryDrafts<T> {
  const [params, setParams] = useSearchParams();
  // What is typed at once goes to the one that was just chosen: the address follows a moment later.
  const wanted = params.get(param);
  const [at, setAt] = useState(wanted);
  useEffect(() => setAt(wanted), [wanted]);
  const [drafts, setDrafts] = useState<Record<string, T>>({});
  const fresh = Object.values(drafts).filter((m) => !entries.some((x) => x.id === m.id));
  const listed = [...entries.map((m) => drafts[m.id] ?? m), ...fresh];
  const shown = listed.find((m) => m.id === at) ?? listed[0];
  const stored = entries.find((m) => m.id === shown?.id) ?? null;
  const look = (id: string): void => {
    setAt(id);
    setParams({ [param]: id });
  };
  const drop = (): void =>
    setDrafts((d) => Object.fromEntries(Object.entries(d).filter(([id]) => id !== shown?.id)));
  return {
    listed,
    shown,
    stored,
    isChanged: !stored || JSON.stringify(stored) !== JSON.stringify(shown),
    isDraft: (id) => drafts[id] !== undefined,
    look,
    set: (part) => shown && setDrafts((d) => ({ ...d, [shown.id]: { ...shown, ...part } })),
    drop,
    copy: () => {
      if (!shown) return;
      const made = { ...shown, id: `own-${newId(8)}`, name: `${shown.name}, copy`.slice(0, 80) };
      setDrafts((d) => ({ ...d, [made.id]: made }));
      look(made.id);
    },
    gone: () => {
      drop();
      setAt(null);
      setParams({});
    },
  };
}
