import { useEffect, useRef } from 'react';
import { useLocation, useNavigate, useNavigationType } from 'react-router-dom';
import { usePick, type InHand } from './store.ts';

/** What is in hand, by its names in the address. */
const NAMES = { setupId: 'setup', tag: 'row', hole: 'hole', operation: 'operation' } as const;

/** What an address has in hand; what it does not name is not in hand. A line is a number, anything else is none. */
export function readAddress(search: string): InHand {
  const query = new URLSearchParams(search);
  const line = Number(query.get('line') ?? NaN);
  return {
    setupId: query.get(NAMES.setupId),
    tag: query.get(NAMES.tag),
    hole: query.get(NAMES.hole),
    operation: query.get(NAMES.operation),
    line: Number.isInteger(line) && line > 0 ? line : null,
  };
}

/** The address's query for what is in hand; empty for nothing. */
export function writeAddress(hand: InHand): string {
  const query = new URLSearchParams();
  for (const [key, name] of Object.entries(NAMES) as [keyof typeof NAMES, string][]) {
    const value = hand[key];
    if (value !== null) query.set(name, value);
  }
  if (hand.line !== null) query.set('line', String(hand.line));
  const text = query.toString();
  return text === '' ? '' : `?${text}`;
}

/**
 * Keeps the address and what is in hand the same: a reload, the back button and a sent link come back to it. Another row takes the place of
 * the one before in the browser's history; going to another place or setup is a step of its own.
 */
export function useAddress(jobId: string): void {
  const { search, pathname, key } = useLocation();
  const way = useNavigationType();
  const navigate = useNavigate();
  const opened = useRef<string | null>(null);
  useEffect(() => {
    const hand = writeAddress(usePick.getState());
    if (opened.current !== jobId || way === 'POP') {
      // Opened, reloaded, or gone back to: the address says what is in hand.
      opened.current = jobId;
      if (search !== hand || hand === '') usePick.getState().pick({ ...readAddress(search), hover: null });
    } else if (search !== hand) {
      // Gone to by a link of ours that says less: what is in hand stays there.
      void navigate({ pathname, search: hand }, { replace: true });
    }
    // Once for each step of the browser's history.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, jobId]);
  useEffect(
    () =>
      usePick.subscribe((now, before) => {
        const next = writeAddress(now);
        if (next === writeAddress(before) || next === window.location.search) return;
        const isOtherSetup = before.setupId !== null && now.setupId !== before.setupId;
        void navigate({ pathname: window.location.pathname, search: next }, { replace: !isOtherSetup });
      }),
    [navigate],
  );
}
