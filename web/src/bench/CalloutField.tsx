import { Input, Text } from '@chakra-ui/react';
import { useId, useState } from 'react';
import { asTyped, CalloutError } from '@yellow-pin/core/callout/callout';
import type { Row } from '@yellow-pin/core/job/derive';
import { decisionFromCallout } from '@yellow-pin/core/job/print';
import { LengthError, type LengthUnit } from '@yellow-pin/core/units/length';
import { decide } from '../job/store.ts';
import { useDraft } from '../kit/draft-field.ts';
import { FieldSays } from '../kit/FieldSays.tsx';

/** Takes what the print says for a size; gives what is not understood, or null. */
function takeCallout(key: string, text: string, unit: LengthUnit): string | null {
  try {
    decide(key, decisionFromCallout(text, unit));
    return null;
  } catch (e) {
    if (e instanceof CalloutError || e instanceof LengthError) return e.message;
    throw e;
  }
}

/** The row's callout as it is typed: Enter, Tab or a click elsewhere takes it, Escape gives it up. */
export function CalloutField({ row, unit, onDone }: { row: Row; unit: LengthUnit; onDone(): void }) {
  const id = useId();
  const [shown] = useState(() => asTyped(row.calloutText));
  const take = (text: string): string | null => takeCallout(row.size.key, text, unit);
  const { input, error } = useDraft({ shown, take, onDone });
  return (
    <Text as="span" onClick={(e) => e.stopPropagation()}>
      <Input
        {...input}
        width="100%"
        fontFamily="mono"
        aria-label={`Callout of ${row.tag}`}
        aria-describedby={error ? id : undefined}
        autoFocus
      />
      {error && <FieldSays id={id}>{error}</FieldSays>}
    </Text>
  );
}
