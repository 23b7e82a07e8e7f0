import { useEffect } from 'react';

/** What was opened and can be closed by Escape, the last on top. */
const open: (() => void)[] = [];

/** Closes what was opened last; false where nothing was. */
export function closeLast(): boolean {
  const close = open[open.length - 1];
  close?.();
  return close !== undefined;
}

/** While `isOpen`, Escape closes this before anything that was opened earlier. */
export function useEscape(isOpen: boolean, close: () => void): void {
  useEffect(() => {
    if (!isOpen) return;
    open.push(close);
    return () => {
      const at = open.lastIndexOf(close);
      if (at >= 0) open.splice(at, 1);
    };
  }, [isOpen, close]);
}
