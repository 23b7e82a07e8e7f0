import { Box, Input, type InputProps } from '@chakra-ui/react';
import { useId } from 'react';
import type { z } from 'zod';
import { formatLength, LengthError, parseLength, type LengthUnit } from '@yellow-pin/core/units/length';
import { useDraft } from './draft-field.ts';
import { FieldSays } from './FieldSays.tsx';

interface Props {
  value: number;
  unit: LengthUnit;
  label: string;
  onChange(mm: number): void;
  min?: number;
  /** The schema of what is typed: its bounds are the field's. */
  schema?: z.ZodNumber;
  /** Why a length within the bounds will not do, with the mend; null where it will. */
  refuse?(mm: number): string | null;
  width?: InputProps['width'];
  autoFocus?: boolean;
  onDone?(): void;
}

/** A length that accepts sums, fractions and either unit; Enter or leaving takes it, Escape leaves it as it was. */
export function LengthField(props: Props) {
  const { value, unit, label, onChange, width = '84px', autoFocus, onDone, schema, refuse } = props;
  const min = Math.max(props.min ?? 0, schema?.minValue ?? -Infinity);
  const max = schema?.maxValue ?? Infinity;
  const id = useId();
  const take = (text: string): string | null => {
    try {
      const mm = parseLength(text, unit);
      if (mm < min) return `Not less than ${formatLength(min, unit)}.`;
      if (mm > max) return `Not more than ${formatLength(max, unit)}.`;
      if (schema && !schema.safeParse(mm).success) return `More than ${formatLength(min, unit)}.`;
      const why = refuse?.(mm) ?? null;
      if (why === null) onChange(mm);
      return why;
    } catch (e) {
      if (e instanceof LengthError) return e.message;
      throw e;
    }
  };
  const { input, error } = useDraft({ shown: formatLength(value, unit), take, onDone });
  return (
    <Box as="span" display="inline-block">
      <Input
        {...input}
        width={width}
        textStyle="num"
        textAlign="right"
        aria-label={label}
        aria-describedby={error ? id : undefined}
        autoFocus={autoFocus}
      />
      {error && <FieldSays id={id}>{error}</FieldSays>}
    </Box>
  );
}
