import { useEffect, useId, useRef, useState } from 'react';
import { formatLength, LengthError, parseLength, type LengthUnit } from '@yellow-pin/core/units/length';

interface Props {
  value: number;
  unit: LengthUnit;
  label: string;
  onChange(mm: number): void;
  min?: number;
  width?: number;
  autoFocus?: boolean;
  onDone?(): void;
}

/** A length that accepts sums, fractions and either unit; Enter takes it, Escape leaves it as it was. */
export function LengthField({ value, unit, label, onChange, min = 0, width = 84, autoFocus, onDone }: Props) {
  const shown = formatLength(value, unit);
  const [text, setText] = useState(shown);
  const [error, setError] = useState<string | null>(null);
  const id = useId();
  const dropped = useRef(false);
  useEffect(() => {
    setText(shown);
    setError(null);
  }, [shown]);
  const take = (): boolean => {
    if (text === shown) return true;
    try {
      const mm = parseLength(text, unit);
      if (mm < min) throw new LengthError(`Not less than ${formatLength(min, unit)}.`);
      setError(null);
      onChange(mm);
      return true;
    } catch (e) {
      setError((e as Error).message);
      return false;
    }
  };
  return (
    <span style={{ display: 'inline-block' }}>
      <input
        className="field num"
        style={{ width }}
        aria-label={label}
        aria-invalid={error !== null}
        aria-describedby={error ? id : undefined}
        value={text}
        autoFocus={autoFocus}
        onFocus={(e) => e.currentTarget.select()}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => {
          if (dropped.current) {
            dropped.current = false;
            setText(shown);
            setError(null);
            onDone?.();
          } else if (take()) onDone?.();
        }}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Enter' && take()) e.currentTarget.blur();
          if (e.key === 'Escape') {
            dropped.current = true;
            e.currentTarget.blur();
          }
        }}
      />
      {error && (
        <span id={id} role="alert" className="field-error" style={{ display: 'block' }}>
          {error}
        </span>
      )}
    </span>
  );
}
