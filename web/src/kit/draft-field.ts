import { useEffect, useRef, useState, type FocusEvent, type KeyboardEvent } from 'react';

interface Options {
  /** The text that stands for what is set now. */
  shown: string;
  /** Takes what was typed; gives why it cannot be, or null. */
  take(text: string): string | null;
  /** The field is left, taken or given up. */
  onDone?(): void;
}

/**
 * What every field that takes one value does: Enter and leaving it take what was typed, once; Escape gives it up; what cannot be taken stays
 * in the field with the reason, until it is mended or given up. What was not changed is not taken again.
 */
export function useDraft({ shown, take, onDone }: Options) {
  const [text, setText] = useState(shown);
  const [error, setError] = useState<string | null>(null);
  /** How the field is being left, where a key decided it. */
  const leaving = useRef<'taken' | 'given up' | null>(null);
  useEffect(() => {
    setText(shown);
    setError(null);
  }, [shown]);
  const accept = (): boolean => {
    const why = text === shown ? null : take(text);
    setError(why);
    return why === null;
  };
  return {
    error,
    input: {
      value: text,
      'aria-invalid': error !== null,
      onFocus: (e: FocusEvent<HTMLInputElement>) => e.currentTarget.select(),
      onChange: (e: { target: { value: string } }) => {
        setText(e.target.value);
        setError(null);
      },
      onBlur: () => {
        const how = leaving.current;
        leaving.current = null;
        if (how === 'given up') {
          setText(shown);
          setError(null);
        } else if (how === null && !accept()) return;
        onDone?.();
      },
      onKeyDown: (e: KeyboardEvent<HTMLInputElement>) => {
        // The page's own keys rest while one types.
        e.stopPropagation();
        // Enter takes this field; the form round it is sent by its own button.
        if (e.key === 'Enter') e.preventDefault();
        if (e.key === 'Escape') leaving.current = 'given up';
        else if (e.key === 'Enter' && accept()) leaving.current = 'taken';
        else return;
        e.currentTarget.blur();
      },
    },
  };
}
