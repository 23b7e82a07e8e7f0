import { Flex } from '@chakra-ui/react';
import type { Parameter } from '@yellow-pin/core/operations/kind';
import type { LengthUnit } from '@yellow-pin/core/units/length';
import { LengthField } from '../kit/LengthField.tsx';
import { Quiet } from '../kit/Quiet.tsx';

interface Props {
  numbers: readonly Parameter[];
  unit: LengthUnit;
  /** In which drawing they are: `plan`. */
  where: string;
  onChange(key: string, mm: number): void;
}

/** Numbers that are typed beneath the drawing in which they lie. */
export const NumbersBelow = ({ numbers, unit, where, onChange }: Props) => (
  <Flex gap="4px 10px" wrap="wrap" paddingInlineStart="12px">
    {numbers.map((p) => (
      <Flex key={p.key} align="center" gap="5px" title={p.relation}>
        <Quiet textStyle="small">{p.label}</Quiet>
        <LengthField
          value={Number(p.value)}
          unit={unit}
          label={`${p.label}, in ${where}`}
          width="70px"
          onChange={(v) => onChange(p.key, v)}
        />
      </Flex>
    ))}
  </Flex>
);
