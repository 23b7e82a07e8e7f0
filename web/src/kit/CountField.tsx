import { NumberInput } from '@chakra-ui/react';
import { useEffect, useState } from 'react';

interface Props {
  value: number;
  label: string;
  min: number;
  max: number;
  step: number;
  onChange(value: number): void;
}

/** A plain number without a unit; leaving the field or Enter takes it, what is outside the bounds goes to the nearest. */
export function CountField({ value, label, min, max, step, onChange }: Props) {
  const [text, setText] = useState(String(value));
  useEffect(() => setText(String(value)), [value]);
  return (
    <NumberInput.Root
      size="xs"
      width="84px"
      min={min}
      max={max}
      step={step}
      value={text}
      clampValueOnBlur
      onValueChange={(d) => setText(d.value)}
      onValueCommit={(d) => {
        if (Number.isFinite(d.valueAsNumber) && d.valueAsNumber !== value) onChange(d.valueAsNumber);
        else if (!Number.isFinite(d.valueAsNumber)) setText(String(value));
      }}
    >
      <NumberInput.Control />
      <NumberInput.Input
        aria-label={label}
        textStyle="num"
        textAlign="right"
        height="28px"
        background="field"
        color="ink"
        borderColor="rule"
        borderRadius="3px"
        paddingInlineStart="4px"
        paddingInlineEnd="26px"
        onKeyDown={(e) => e.stopPropagation()}
      />
    </NumberInput.Root>
  );
}
