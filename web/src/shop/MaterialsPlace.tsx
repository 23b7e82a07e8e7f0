import { Box, Flex, Heading } from '@chakra-ui/react';
import { Plus, X } from 'lucide-react';
import { materialSchema, type Material } from '@yellow-pin/core/cutting/material';
import { rowFaults } from '@yellow-pin/core/cutting/faults';
import type { Library } from '@yellow-pin/core/plan/library';
import { Chip } from '../kit/Chip.tsx';
import { IconAct } from '../kit/IconAct.tsx';
import { Labelled } from '../kit/Labelled.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { takeName, TextField } from '../kit/TextField.tsx';
import { CuttingTable } from './CuttingTable.tsx';
import { Figure } from './Figure.tsx';
import { ListFiles } from './ListFiles.tsx';
import { StoreBar } from './StoreBar.tsx';
import { useEntryDrafts } from './use-entry-drafts.ts';
import { useListChanges } from './use-library.ts';

/** What each metal bears: speed and feed by kind and diameter, pecking, and how much deep holes are slowed down. */
export function MaterialsPlace({ library }: { library: Library }) {
  const { put, remove } = useListChanges('materials');
  const {
    listed,
    shown: material,
    stored,
    isChanged,
    isDraft,
    look,
    set,
    drop,
    copy,
    gone,
  } = useEntryDrafts(library.materials, 'material');
  if (!material) return null;
  const faults = [
    ...rowFaults(material),
    ...(materialSchema.safeParse(material).error?.issues.map((i) => `${i.path.join('.')}: ${i.message}`) ??
      []),
  ];
  const takeAway = (): void => {
    if (!stored) return drop();
    remove.mutate(material.id, { onSuccess: gone });
  };
  return (
    <Box paddingTop="10px">
      <Flex gap="6px" wrap="wrap" align="center" marginBottom="12px" role="group" aria-label="Materials">
        {listed.map((m) => (
          <Chip key={m.id} on={m.id === material.id} onClick={() => look(m.id)}>
            {m.name}
            {isDraft(m.id) ? ' *' : ''}
          </Chip>
        ))}
        <Box marginInlineStart="auto" />
        <ListFiles list="materials" library={library} />
      </Flex>
      <Labelled name="name" width="300px" marginBottom="10px">
        <TextField
          label="material name"
          maxLength={80}
          value={material.name}
          onTake={takeName((name) => set({ name }))}
        />
      </Labelled>
      <CuttingTable rows={material.cutting} onChange={(cutting) => set({ cutting })} />
      <Flex gap="40px" wrap="wrap" marginTop="14px" align="start">
        <Pecking material={material} set={set} />
        <DeepHoles material={material} set={set} />
      </Flex>
      <StoreBar
        isStored={stored !== null}
        isChanged={isChanged}
        isRefused={faults.length > 0}
        faults={[...faults, ...[put.error, remove.error].flatMap((e) => (e ? [e.message] : []))]}
        busy={put.isPending ? 'storing' : remove.isPending ? 'taking away' : null}
        onStore={() => put.mutate(material, { onSuccess: drop })}
        onGiveUp={drop}
        onCopy={copy}
        onTakeAway={takeAway}
      />
    </Box>
  );
}

interface PartProps {
  material: Material;
  set(part: Partial<Material>): void;
}

function Pecking({ material: { pecking }, set }: PartProps) {
  return (
    <Box as="section" aria-label="Pecking">
      <Heading as="h2" fontSize="14px" marginBottom="6px">
        Chips, by depth in diameters
      </Heading>
      <Flex gap="14px">
        <Labelled name="broken from">
          <Figure
            label="chips broken from"
            value={pecking.chipBreakFrom}
            onTake={(v) => set({ pecking: { ...pecking, chipBreakFrom: v ?? 3 } })}
          />
        </Labelled>
        <Labelled name="cleared from">
          <Figure
            label="chips cleared from"
            value={pecking.fullRetractFrom}
            onTake={(v) => set({ pecking: { ...pecking, fullRetractFrom: v ?? 5 } })}
          />
        </Labelled>
      </Flex>
    </Box>
  );
}

function DeepHoles({ material: { deepHoles }, set }: PartProps) {
  const replace = (i: number, part: Partial<Material['deepHoles'][number]>): void =>
    set({ deepHoles: deepHoles.map((r, k) => (k === i ? { ...r, ...part } : r)) });
  return (
    <Box as="section" aria-label="Deep holes">
      <Heading as="h2" fontSize="14px" marginBottom="6px">
        Deep holes are slowed down
      </Heading>
      {deepHoles.map((r, i) => (
        <Flex key={i} gap="8px" align="center" marginBottom="4px" fontSize="13px">
          <span>over</span>
          <Figure
            label={`over diameters, ${i + 1}`}
            value={r.overDiameters}
            onTake={(v) => replace(i, { overDiameters: v ?? 5 })}
          />
          <span>⌀: speed ×</span>
          <Figure
            label={`speed factor, ${i + 1}`}
            value={r.speedFactor}
            onTake={(v) => replace(i, { speedFactor: v ?? 1 })}
          />
          <span>feed ×</span>
          <Figure
            label={`feed factor, ${i + 1}`}
            value={r.feedFactor}
            onTake={(v) => replace(i, { feedFactor: v ?? 1 })}
          />
          <IconAct
            label={`Take step ${i + 1} out`}
            onClick={() => set({ deepHoles: deepHoles.filter((_, k) => k !== i) })}
          >
            <X size={14} />
          </IconAct>
        </Flex>
      ))}
      {deepHoles.length === 0 && <Quiet display="block">not at all</Quiet>}
      <Chip
        onClick={() =>
          set({ deepHoles: [...deepHoles, { overDiameters: 5, speedFactor: 0.85, feedFactor: 0.9 }] })
        }
      >
        <Plus size={13} aria-hidden="true" /> another step
      </Chip>
    </Box>
  );
}
