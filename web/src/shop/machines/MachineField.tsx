import { Box, Checkbox, Flex, Textarea } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { MachineProfile } from '@yellow-pin/core/code/profiles/schema';
import { Chip } from '../../kit/Chip.tsx';
import { Choice } from '../../kit/Choice.tsx';
import { Quiet } from '../../kit/Quiet.tsx';
import { TextField } from '../../kit/TextField.tsx';
import type { Field } from './fields.ts';

interface Props {
  field: Field;
  profile: MachineProfile;
  set(part: Partial<MachineProfile>): void;
}

/** One thing that a profile says: its name, the control, and what there is to know of it. */
export function MachineField({ field, profile, set }: Props) {
  const isWide = field.kind === 'lines' || field.kind === 'some';
  return (
    <Flex
      gap="8px"
      align={isWide ? 'start' : 'center'}
      direction={isWide ? 'column' : 'row'}
      fontSize="13px"
      minHeight="28px"
    >
      {field.kind !== 'switch' && (
        <Box aria-hidden="true" flexShrink={0} minWidth={isWide ? undefined : '132px'}>
          {field.name}
          {isWide && field.says && <Quiet> · {field.says}</Quiet>}
        </Box>
      )}
      <Control field={field} profile={profile} set={set} />
      {!isWide && field.says && <Quiet fontSize="12px">{field.says}</Quiet>}
    </Flex>
  );
}

function Control({ field, profile, set }: Props) {
  switch (field.kind) {
    case 'number':
      return (
        <>
          <TextField
            label={field.name}
            size="xs"
            width="78px"
            textStyle="num"
            textAlign="right"
            value={String(field.of(profile))}
            onTake={(text) => {
              const v = Number(text.trim().replace(',', '.'));
              if (text.trim() === '' || !Number.isFinite(v)) return 'A number.';
              set(field.set(v)(profile));
              return null;
            }}
          />
          {field.unit && <Quiet>{field.unit}</Quiet>}
        </>
      );
    case 'switch':
      return (
        <Checkbox.Root
          size="sm"
          checked={field.of(profile)}
          onCheckedChange={(d) => set(field.set(d.checked === true)(profile))}
        >
          <Checkbox.HiddenInput />
          <Checkbox.Control />
          <Checkbox.Label fontWeight="400">{field.name}</Checkbox.Label>
        </Checkbox.Root>
      );
    case 'choice':
      return (
        <Choice
          label={field.name}
          value={field.of(profile)}
          options={field.options}
          onChange={(v) => set(field.set(v)(profile))}
        />
      );
    case 'text':
      return (
        <TextField
          label={field.name}
          size="xs"
          width="130px"
          textStyle="num"
          value={field.of(profile)}
          onTake={(text) => {
            set(field.set(text)(profile));
            return null;
          }}
        />
      );
    case 'lines':
      return <Lines field={field} profile={profile} set={set} />;
    case 'some': {
      const on = field.of(profile);
      return (
        <Flex gap="4px" wrap="wrap" role="group" aria-label={field.name}>
          {field.all.map((word) => (
            <Chip
              key={word}
              on={on.includes(word)}
              onClick={() =>
                set(field.set(on.includes(word) ? on.filter((w) => w !== word) : [...on, word])(profile))
              }
            >
              {word}
            </Chip>
          ))}
        </Flex>
      );
    }
  }
}

/** Lines that are taken when the field is left; Escape gives them up. */
function Lines({ field, profile, set }: Props & { field: Extract<Field, { kind: 'lines' }> }) {
  const shown = field.of(profile).join('\n');
  const [text, setText] = useState(shown);
  useEffect(() => setText(shown), [shown]);
  const take = (): void => {
    const lines = text
      .split('\n')
      .map((l) => l.trim())
      .filter((l) => l !== '');
    if (text !== shown) set(field.set(lines)(profile));
  };
  return (
    <Textarea
      size="xs"
      rows={2}
      textStyle="num"
      background="field"
      borderColor="rule"
      aria-label={field.name}
      value={text}
      onChange={(e) => setText(e.target.value)}
      onBlur={take}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === 'Escape') setText(shown);
      }}
    />
  );
}
