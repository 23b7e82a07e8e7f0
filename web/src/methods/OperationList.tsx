import { Box, Flex } from '@chakra-ui/react';
import { ArrowDown, ArrowUp, CopyPlus, Plus, X } from 'lucide-react';
import { relation, RelationError } from '@yellow-pin/core/methods/relation';
import { first } from '@yellow-pin/core/lists';
import { HOLE_PARTS, sortOf, type MethodFamily, type MethodOperation } from '@yellow-pin/core/methods/schema';
import { OPERATION_KINDS, operationKind } from '@yellow-pin/core/operations/registry';
import { Choice } from '../kit/Choice.tsx';
import { Chip } from '../kit/Chip.tsx';
import { IconAct } from '../kit/IconAct.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { TextField } from '../kit/TextField.tsx';

interface Props {
  operations: readonly MethodOperation[];
  /** What they are for: other kinds have no meaning there. */
  family: MethodFamily;
  onChange(operations: MethodOperation[]): void;
  isReadOnly?: boolean;
}

/** Sizes by which a typed sum is tried before it is taken. */
const TRIED = { diameter: 8, depth: 20, pitch: 1.25, major: 10, width: 12 };

/** The operations of a recipe, in the order in which they run: added, taken out, swapped, moved, copied, each with the numbers it gives. */
export function OperationList({ operations, family, onChange, isReadOnly = false }: Props) {
  const sort = sortOf(family);
  const kinds = OPERATION_KINDS.filter((k) => k.cuts.includes(sort));
  const replace = (i: number, o: MethodOperation): void =>
    onChange(operations.map((x, k) => (k === i ? o : x)));
  const move = (i: number, by: number): void => {
    const list = [...operations];
    const [taken] = list.splice(i, 1);
    if (taken) list.splice(i + by, 0, taken);
    onChange(list);
  };
  return (
    <Flex as="ol" direction="column" gap="6px" listStyleType="none">
      {operations.map((o, i) => (
        <Box as="li" key={i} borderWidth="1px" borderColor="rule" borderRadius="4px" padding="5px 6px">
          <Flex gap="4px" align="center" wrap="wrap">
            <Quiet textStyle="num" minWidth="14px">
              {i + 1}
            </Quiet>
            <Choice
              label={`operation ${i + 1}`}
              width="112px"
              value={o.kind}
              isDisabled={isReadOnly}
              options={[...new Set([...kinds, operationKind(o.kind)])].map((k) => [k.kind, k.label] as const)}
              // Numbers are of their kind: another one begins with its own.
              onChange={(kind) => replace(i, { kind, part: o.part, set: {} })}
            />
            {sort === 'holes' && (
              <Choice
                label={`part of operation ${i + 1}`}
                width="116px"
                value={o.part}
                isDisabled={isReadOnly}
                options={HOLE_PARTS.map((p) => [p, PART_WORDS[p]] as const)}
                onChange={(part) => replace(i, { ...o, part })}
              />
            )}
            {(o.or ?? []).length > 0 && (
              <Flex gap="2px" align="center" fontSize="13px">
                or {(o.or ?? []).map((k) => operationKind(k).label).join(', ')}
                {!isReadOnly && (
                  <IconAct
                    label={`Nothing in place of operation ${i + 1}`}
                    onClick={() => replace(i, { kind: o.kind, part: o.part, set: o.set })}
                  >
                    <X size={12} />
                  </IconAct>
                )}
              </Flex>
            )}
            <Numbers operation={o} isReadOnly={isReadOnly} onChange={(set) => replace(i, { ...o, set })} />
            {!isReadOnly && (
              <Flex
                marginInlineStart="auto"
                gap="0"
                css={{ '& button': { minWidth: '24px', width: '24px' } }}
              >
                <IconAct label={`Move operation ${i + 1} up`} disabled={i === 0} onClick={() => move(i, -1)}>
                  <ArrowUp size={14} />
                </IconAct>
                <IconAct
                  label={`Move operation ${i + 1} down`}
                  disabled={i === operations.length - 1}
                  onClick={() => move(i, 1)}
                >
                  <ArrowDown size={14} />
                </IconAct>
                <IconAct
                  label={`The same again for the next tool, after operation ${i + 1}`}
                  onClick={() =>
                    // Same holes, next tool: nothing that was worked out or typed for this one goes along.
                    onChange([...operations.slice(0, i + 1), { ...o, set: {} }, ...operations.slice(i + 1)])
                  }
                >
                  <CopyPlus size={14} />
                </IconAct>
                <IconAct
                  label={`Take operation ${i + 1} out`}
                  disabled={operations.length === 1}
                  onClick={() => onChange(operations.filter((_, k) => k !== i))}
                >
                  <X size={14} />
                </IconAct>
              </Flex>
            )}
          </Flex>
        </Box>
      ))}
      {!isReadOnly && (
        <Box>
          <Chip
            onClick={() =>
              onChange([
                ...operations,
                { kind: sort === 'holes' ? 'spot' : first(kinds).kind, part: 'hole', set: {} },
              ])
            }
          >
            <Plus size={13} aria-hidden="true" /> another operation
          </Chip>
        </Box>
      )}
    </Flex>
  );
}

const PART_WORDS: Record<MethodOperation['part'], string> = {
  hole: 'the hole',
  'pointed steps': 'its pointed steps',
  'flat steps': 'its flat steps',
  countersink: 'its countersink',
  chamfer: 'its chamfer',
  thread: 'its thread',
};

interface NumbersProps {
  operation: MethodOperation;
  isReadOnly: boolean;
  onChange(set: MethodOperation['set']): void;
}

/** The numbers that a recipe gives an operation; all others are worked out for each hole. */
function Numbers({ operation: { kind, set }, isReadOnly, onChange }: NumbersProps) {
  const { numbers, choices = {} } = operationKind(kind);
  const labels: Record<string, string> = {
    ...numbers,
    ...Object.fromEntries(Object.keys(choices).map((k) => [k, k.replace(/([A-Z])/g, ' $1').toLowerCase()])),
  };
  const free = Object.keys(labels).filter((k) => !(k in set));
  const without = (key: string): void =>
    onChange(Object.fromEntries(Object.entries(set).filter(([k]) => k !== key)));
  return (
    <Flex
      gap="4px 10px"
      wrap="wrap"
      align="center"
      fontSize="13px"
      {...(Object.keys(set).length > 0 ? { order: 1, width: '100%', paddingInlineStart: '20px' } : {})}
    >
      {Object.entries(set).map(([key, value]) => (
        <Flex key={key} gap="4px" align="center">
          <span>{labels[key] ?? key} =</span>
          {choices[key] ? (
            <Choice
              label={labels[key] ?? key}
              value={String(value)}
              isDisabled={isReadOnly}
              options={choices[key].map((c) => [c, c] as const)}
              onChange={(v) => onChange({ ...set, [key]: v })}
            />
          ) : (
            <TextField
              label={labels[key] ?? key}
              size="xs"
              width="112px"
              textStyle="num"
              disabled={isReadOnly}
              value={String(value)}
              onTake={(text) => {
                const read = sumFrom(text);
                if ('why' in read) return read.why;
                onChange({ ...set, [key]: read.value });
                return null;
              }}
            />
          )}
          {!isReadOnly && (
            <IconAct label={`Work ${labels[key] ?? key} out`} onClick={() => without(key)}>
              <X size={12} />
            </IconAct>
          )}
        </Flex>
      ))}
      {!isReadOnly && free.length > 0 && (
        <Choice
          label="a number of its own"
          width="66px"
          value=""
          options={[['', 'set …'] as const, ...free.map((k) => [k, labels[k] ?? k] as const)]}
          onChange={(key) => key !== '' && onChange({ ...set, [key]: choices[key]?.[0] ?? 1 })}
        />
      )}
    </Flex>
  );
}

/** A number, or a sum of the hole's sizes that has a value. */
function sumFrom(text: string): { value: number | string } | { why: string } {
  const typed = text.trim().replace(',', '.');
  if (typed !== '' && Number.isFinite(Number(typed))) return { value: Number(typed) };
  try {
    relation(typed, TRIED);
    return { value: typed };
  } catch (e) {
    if (e instanceof RelationError) return { why: e.message };
    throw e;
  }
}
