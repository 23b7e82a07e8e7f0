import { Box, Flex, Grid } from '@chakra-ui/react';
import type { Material } from '@yellow-pin/core/cutting/material';
import {
  END_KINDS,
  FAMILY_WORDS,
  FITS,
  isAreaFamily,
  isEdgeFamily,
  isGrooveFamily,
  METHOD_FAMILIES,
  type Method,
} from '@yellow-pin/core/methods/schema';
import { END_WORDS } from '@yellow-pin/core/methods/words';
import { Choice } from '../kit/Choice.tsx';
import { Chip } from '../kit/Chip.tsx';
import { Labelled } from '../kit/Labelled.tsx';
import { takeName, TextField } from '../kit/TextField.tsx';
import { OperationList } from './OperationList.tsx';

interface Props {
  method: Method;
  materials: readonly Material[];
  onChange(method: Method): void;
  isReadOnly?: boolean;
}

type Conditions = Method['when'];
type YesNo = 'threaded' | 'stepped' | 'through' | 'flatFloor';

/** Conditions that hold, do not hold, or do not matter, each in plain words. */
const YES_NO: readonly (readonly [YesNo, yes: string, no: string])[] = [
  ['threaded', 'threaded', 'without a thread'],
  ['stepped', 'stepped or countersunk', 'without steps'],
  ['through', 'through', 'blind'],
  ['flatFloor', 'with a flat floor', 'without a flat floor'],
];

/** A recipe on a form: for which holes it is, and what it does to them. */
export function MethodForm({ method, materials, onChange, isReadOnly = false }: Props) {
  const { when } = method;
  const isOfGrooves = isGrooveFamily(method.family);
  const isOfHoles = !isOfGrooves && !isAreaFamily(method.family) && !isEdgeFamily(method.family);
  const set = (part: Conditions): void => onChange({ ...method, when: { ...when, ...part } });
  return (
    <Flex direction="column" gap="12px">
      <Grid templateColumns="repeat(auto-fill, minmax(170px, 1fr))" gap="8px 14px">
        <Labelled name="name">
          <TextField
            label="method name"
            maxLength={60}
            disabled={isReadOnly}
            value={method.name}
            onTake={takeName((name) => onChange({ ...method, name }))}
          />
        </Labelled>
        <Labelled name="taken">
          <Choice
            label="when it is taken"
            width="100%"
            isDisabled={isReadOnly}
            value={method.onRequest ? 'chosen' : 'itself'}
            options={[
              ['itself', 'by itself, where it fits'],
              ['chosen', 'only where it is chosen'],
            ]}
            onChange={(v) => onChange({ ...method, onRequest: v === 'chosen' })}
          />
        </Labelled>
        <Labelled name="for">
          <Choice
            label="what it is for"
            width="100%"
            isDisabled={isReadOnly}
            value={method.family}
            options={METHOD_FAMILIES.map((f) => [f, FAMILY_WORDS[f]])}
            onChange={(family) => onChange({ ...method, family, when: { materials: when.materials } })}
          />
        </Labelled>
        {YES_NO.filter(([key]) => isOfHoles || key === 'through').map(([key, yes, no]) => (
          <Labelled key={key} name={yes}>
            <Choice
              label={yes}
              width="100%"
              isDisabled={isReadOnly}
              value={when[key] === undefined ? 'any' : when[key] ? 'yes' : 'no'}
              options={[
                ['any', 'any'],
                ['yes', yes],
                ['no', no],
              ]}
              onChange={(v) => set({ [key]: v === 'any' ? undefined : v === 'yes' })}
            />
          </Labelled>
        ))}
        {isOfHoles ? (
          <>
            <Range
              name="⌀, mm"
              range={when.diameter}
              isReadOnly={isReadOnly}
              onChange={(diameter) => set({ diameter })}
            />
            <Range
              name="thread ⌀, mm"
              range={when.major}
              isReadOnly={isReadOnly}
              onChange={(major) => set({ major })}
            />
          </>
        ) : (
          isOfGrooves && (
            <Range
              name="width, mm"
              range={when.width}
              isReadOnly={isReadOnly}
              onChange={(width) => set({ width })}
            />
          )
        )}
        {(isOfHoles || isOfGrooves) && (
          <Range
            name={isOfHoles ? 'depth in diameters' : 'depth in widths'}
            range={when.ratio}
            isReadOnly={isReadOnly}
            onChange={(ratio) => set({ ratio })}
          />
        )}
      </Grid>
      {isOfHoles ? (
        <Several
          name="print wants it"
          all={FITS.map((f) => [f, f] as const)}
          chosen={when.fit}
          isReadOnly={isReadOnly}
          onChange={(fit) => set({ fit })}
        />
      ) : (
        isOfGrooves && (
          <Several
            name="ends"
            all={END_KINDS.map((e) => [e, END_WORDS[e]] as const)}
            chosen={when.ends}
            isReadOnly={isReadOnly}
            onChange={(ends) => set({ ends })}
          />
        )
      )}
      <Several
        name="materials"
        all={materials.map((m) => [m.id, m.name] as const)}
        chosen={when.materials}
        isReadOnly={isReadOnly}
        onChange={(list) => set({ materials: list })}
      />
      <OperationList
        operations={method.operations}
        family={method.family}
        isReadOnly={isReadOnly}
        onChange={(operations) => onChange({ ...method, operations })}
      />
    </Flex>
  );
}

interface RangeProps {
  name: string;
  range: { from?: number; to?: number } | undefined;
  isReadOnly: boolean;
  onChange(range: { from?: number; to?: number } | undefined): void;
}

/** From and to; an empty end has no bound. */
function Range({ name, range, isReadOnly, onChange }: RangeProps) {
  const end = (which: 'from' | 'to') => (text: string) => {
    const v = Number(text.trim().replace(',', '.'));
    if (text.trim() !== '' && !(Number.isFinite(v) && v >= 0)) return 'A number, or nothing.';
    const next = { ...range, [which]: text.trim() === '' ? undefined : v };
    onChange(next.from === undefined && next.to === undefined ? undefined : next);
    return null;
  };
  return (
    <Labelled name={name}>
      <Flex gap="5px" align="center">
        {(['from', 'to'] as const).map((which) => (
          <TextField
            key={which}
            label={`${name} ${which}`}
            placeholder={which}
            width="72px"
            textStyle="num"
            textAlign="right"
            disabled={isReadOnly}
            value={range?.[which] === undefined ? '' : String(range[which])}
            onTake={end(which)}
          />
        ))}
      </Flex>
    </Labelled>
  );
}

interface SeveralProps<T extends string> {
  name: string;
  all: readonly (readonly [T, string])[];
  /** Undefined: all of them. */
  chosen: readonly T[] | undefined;
  isReadOnly: boolean;
  onChange(chosen: T[] | undefined): void;
}

/** Any number of several; none chosen means that it does not matter. */
function Several<T extends string>({ name, all, chosen, isReadOnly, onChange }: SeveralProps<T>) {
  const toggle = (v: T): void => {
    const next = all.map(([x]) => x).filter((x) => (chosen?.includes(x) ?? false) !== (x === v));
    onChange(next.length === 0 ? undefined : next);
  };
  return (
    <Box fontSize="13px">
      <span>{name}</span>
      <Flex role="group" aria-label={name} gap="4px" wrap="wrap" marginTop="2px">
        {all.map(([v, text]) => (
          <Chip key={v} on={chosen?.includes(v) ?? false} disabled={isReadOnly} onClick={() => toggle(v)}>
            {text}
          </Chip>
        ))}
        {chosen === undefined && <span>any</span>}
      </Flex>
    </Box>
  );
}
