import { NativeSelect, type NativeSelectRootProps } from '@chakra-ui/react';

interface Props<T extends string> extends Omit<NativeSelectRootProps, 'onChange'> {
  label: string;
  value: T;
  /** Value and words of each. */
  options: readonly (readonly [T, string])[];
  onChange(value: T): void;
  /** Shown with a strong rim: it narrows something down. */
  strong?: boolean;
  isDisabled?: boolean;
}

/** One of several, from a list. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
  strong,
  isDisabled,
  ...root
}: Props<T>) {
  return (
    <NativeSelect.Root size="xs" width="auto" disabled={isDisabled} {...root}>
      <NativeSelect.Field
        aria-label={label}
        value={value}
        fontSize="14px"
        height="28px"
        background="field"
        borderColor={strong ? 'ink' : 'rule'}
        onChange={(e) => onChange(e.target.value as T)}
      >
        {options.map(([v, text]) => (
          <option key={v} value={v}>
            {text}
          </option>
        ))}
      </NativeSelect.Field>
      <NativeSelect.Indicator />
    </NativeSelect.Root>
  );
}
