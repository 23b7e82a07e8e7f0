import { Box, Button, Flex } from '@chakra-ui/react';
import { Plus, Trash2, X } from 'lucide-react';
import { useState } from 'react';
import type { Library } from '@yellow-pin/core/plan/library';
import type { Holder } from '@yellow-pin/core/tools/schema';
import { Chip } from '../kit/Chip.tsx';
import { FieldSays } from '../kit/FieldSays.tsx';
import { IconAct } from '../kit/IconAct.tsx';
import { Labelled } from '../kit/Labelled.tsx';
import { LengthField } from '../kit/LengthField.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { takeName, TextField } from '../kit/TextField.tsx';
import { ink } from '../look/palette.ts';
import { ListFiles } from './ListFiles.tsx';
import { useListChanges } from './use-library.ts';
import { newId } from '../kit/new-id.ts';

/** Pixels per mm of a holder's picture. */
const SCALE = 1.1;

/** The shop's holders: what stands above a tool, step by step from its nose up. */
export function HoldersPlace({ library }: { library: Library }) {
  const [fresh, setFresh] = useState<Holder[]>([]);
  const known = new Set(library.holders.map((h) => h.id));
  const listed = [...library.holders, ...fresh.filter((h) => !known.has(h.id))];
  const add = (): void =>
    setFresh((list) => [
      ...list,
      {
        id: `holder-${newId(8)}`,
        description: 'new holder',
        steps: [{ diameter: 40, length: 50 }],
      },
    ]);
  return (
    <Box paddingTop="10px">
      <Flex gap="8px" wrap="wrap" marginBottom="12px">
        <Button size="xs" onClick={add}>
          <Plus size={15} /> New
        </Button>
        <ListFiles list="holders" library={library} />
      </Flex>
      <Flex gap="16px" wrap="wrap" align="stretch">
        {listed.map((h) => (
          <HolderCard
            key={h.id}
            stored={h}
            isNew={!known.has(h.id)}
            tools={library.tools.filter((t) => t.holderId === h.id).length}
            onDrop={() => setFresh((list) => list.filter((x) => x.id !== h.id))}
          />
        ))}
      </Flex>
    </Box>
  );
}

interface CardProps {
  stored: Holder;
  isNew: boolean;
  /** How many tools stand in it. */
  tools: number;
  onDrop(): void;
}

function HolderCard({ stored, isNew, tools, onDrop }: CardProps) {
  const { put, remove } = useListChanges('holders');
  const [holder, setHolder] = useState(stored);
  const isChanged = isNew || JSON.stringify(holder) !== JSON.stringify(stored);
  const replace = (i: number, part: Partial<Holder['steps'][number]>): void =>
    setHolder({ ...holder, steps: holder.steps.map((s, k) => (k === i ? { ...s, ...part } : s)) });
  return (
    <Flex
      as="section"
      aria-label={holder.description}
      gap="14px"
      background="sheet"
      borderWidth="1px"
      borderColor="rule"
      borderRadius="4px"
      padding="12px"
      width="370px"
    >
      <HolderPicture holder={holder} />
      <Box flex="1" minWidth="0">
        <TextField
          label="holder name"
          maxLength={80}
          value={holder.description}
          onTake={takeName((description) => setHolder({ ...holder, description }))}
        />
        <Quiet display="block" textStyle="small">
          {tools} {tools === 1 ? 'tool' : 'tools'} in it; from the nose up, mm:
        </Quiet>
        {holder.steps.map((s, i) => (
          <Flex key={i} gap="6px" align="end" marginTop="4px">
            {(['diameter', 'length'] as const).map((which) => (
              <Labelled key={which} name={which === 'diameter' ? '⌀' : 'length'}>
                <LengthField
                  label={`${which} of step ${i + 1}`}
                  value={s[which]}
                  unit="mm"
                  min={0.1}
                  width="72px"
                  onChange={(v) => replace(i, { [which]: v })}
                />
              </Labelled>
            ))}
            <IconAct
              label={`Take step ${i + 1} out`}
              disabled={holder.steps.length === 1}
              onClick={() => setHolder({ ...holder, steps: holder.steps.filter((_, k) => k !== i) })}
            >
              <X size={14} />
            </IconAct>
          </Flex>
        ))}
        <Flex gap="6px" wrap="wrap" marginTop="8px">
          <Chip
            onClick={() => setHolder({ ...holder, steps: [...holder.steps, { diameter: 50, length: 30 }] })}
          >
            <Plus size={13} aria-hidden="true" /> step
          </Chip>
          {isChanged && (
            <Button size="2xs" loading={put.isPending} onClick={() => put.mutate(holder)}>
              Store
            </Button>
          )}
          {isChanged && !isNew && (
            <Button size="2xs" variant="outline" onClick={() => setHolder(stored)}>
              Give it up
            </Button>
          )}
          <IconAct
            label={`Take ${holder.description} away`}
            onClick={() => (isNew ? onDrop() : remove.mutate(holder.id))}
          >
            <Trash2 size={14} />
          </IconAct>
        </Flex>
        {[put.error, remove.error].map((e) => e && <FieldSays key={e.message}>{e.message}</FieldSays>)}
      </Box>
    </Flex>
  );
}

function HolderPicture({ holder }: { holder: Holder }) {
  const high = holder.steps.reduce((n, s) => n + s.length, 0) * SCALE;
  const wide = Math.max(...holder.steps.map((s) => s.diameter)) * SCALE;
  let at = 0;
  return (
    <svg
      width={Math.min(110, wide + 4)}
      height={Math.min(190, high + 4)}
      viewBox={`${-wide / 2 - 2} ${-high - 2} ${wide + 4} ${high + 4}`}
      role="img"
      aria-label={`${holder.description} to scale`}
    >
      {holder.steps.map((s, i) => {
        at += s.length * SCALE;
        return (
          <rect
            key={i}
            x={(-s.diameter / 2) * SCALE}
            y={-at}
            width={s.diameter * SCALE}
            height={s.length * SCALE}
            fill={ink('metal')}
            stroke={ink('ink')}
          />
        );
      })}
    </svg>
  );
}
