import { Box, Input, type InputProps } from '@chakra-ui/react';
import { useId } from 'react';
import { useDraft } from './draft-field.ts';
import { FieldSays } from './FieldSays.tsx';

interface Props extends Omit<InputProps, 'value' | 'onChange'> {
  value: string;
  label: string;
  /** Takes the text; gives why it cannot be, or null. */
  onTake(text: string): string | null;
  onDone?(): void;
}

/** A line of text that is taken as a whole, as one step that can be undone. */
export function TextField({ value, label, onTake, onDone, width, ...rest }: Props) {
  const id = useId();
  const { input, error } = useDraft({ shown: value, take: onTake, onDone });
  return (
    <Box as="span" display="inline-block" width={width ?? '100%'}>
      <Input {...rest} {...input} aria-label={label} aria-describedby={error ? id : undefined} />
      {error && <FieldSays id={id}>{error}</FieldSays>}
    </Box>
  );
}

/** A name: any text but none, without blanks at its ends. */
export const takeName =
  (set: (name: string) => void) =>
  (text: string): string | null => {
    const name = text.trim();
    if (name === '') return 'A name is needed.';
    set(name);
    return null;
  };
