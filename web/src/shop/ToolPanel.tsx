import { Button, Flex, Text } from '@chakra-ui/react';
import { useMemo } from 'react';
import type { Library } from '@yellow-pin/core/plan/library';
import { LISTS } from '@yellow-pin/core/plan/library-items';
import { shapeFaults } from '@yellow-pin/core/tools/shape';
import type { Tool } from '@yellow-pin/core/tools/schema';
import { freeNumber } from '@yellow-pin/core/tools/usual';
import { formatLength } from '@yellow-pin/core/units/length';
import { CountField } from '../kit/CountField.tsx';
import { Labelled } from '../kit/Labelled.tsx';
import { Num } from '../kit/Quiet.tsx';
import { toaster } from '../kit/toaster.tsx';
import { ToolFields } from '../tools/ToolFields.tsx';
import { ToolFigure } from '../tools/ToolFigure.tsx';
import { StoreBar } from './StoreBar.tsx';
import { useDrafts } from './drafts.ts';
import { useListChanges } from './use-library.ts';
import { newId } from '../kit/new-id.ts';

interface Props {
  /** As it is stored; null for one that is new. */
  stored: Tool | null;
  tool: Tool;
  library: Library;
  onPick(id: string | null): void;
}

const say = (mm: number): string => `${formatLength(mm, 'mm')} mm`;

/** The tool in hand: drawn large in its holder while its numbers are typed. */
export function ToolPanel({ stored, tool, library, onPick }: Props) {
  const { put, remove } = useListChanges('tools');
  const { set: keep, drop } = useDrafts();
  const faults = useMemo(() => shapeFaults(tool, say), [tool]);
  const refused = useMemo(() => LISTS.tools.faults(tool, library), [tool, library]);
  const isChanged = !stored || JSON.stringify(stored) !== JSON.stringify(tool);
  const holder = library.holders.find((h) => h.id === tool.holderId) ?? null;
  const set = (part: Partial<Tool>): void => keep({ ...tool, ...part });
  const free = freeNumber(library.tools.filter((t) => t.id !== tool.id));
  const copy = (): void => {
    const made = { ...tool, id: `own-${newId(8)}`, number: null };
    keep({ ...made, description: `${tool.description} copy`.slice(0, 80) });
    onPick(made.id);
  };
  const store = (): void =>
    put.mutate(tool, {
      onSuccess: () => {
        drop(tool.id);
        toaster.create({ description: `${tool.description} is stored` });
      },
    });
  const takeAway = (): void => {
    if (!stored) {
      drop(tool.id);
      onPick(null);
      return;
    }
    remove.mutate(tool.id, {
      onSuccess: () => {
        drop(tool.id);
        onPick(null);
        toaster.create({
          description: `${stored.description} is taken off the list`,
          action: { label: 'Put it back', onClick: () => put.mutate(stored) },
        });
      },
    });
  };
  return (
    <Flex as="section" aria-label="Tool in hand" gap="14px" align="start">
      <ToolFigure tool={tool} holder={holder} unit="mm" width={210} height={470} />
      <Flex direction="column" gap="10px" flex="1" minWidth="0">
        <Flex gap="10px" align="end" wrap="wrap">
          {tool.number === null ? (
            <Labelled name="place">
              <Flex gap="8px" align="center">
                in the drawer
                <Button size="2xs" variant="outline" onClick={() => set({ number: free })}>
                  Put it on T{free}
                </Button>
              </Flex>
            </Labelled>
          ) : (
            <Labelled name="number in the magazine">
              <Flex gap="8px" align="center">
                <Num fontWeight="700">T</Num>
                <CountField
                  label="tool number"
                  value={tool.number}
                  min={1}
                  max={999}
                  step={1}
                  onChange={(number) => set({ number })}
                />
                <Button size="2xs" variant="outline" onClick={() => set({ number: null })}>
                  To the drawer
                </Button>
              </Flex>
            </Labelled>
          )}
        </Flex>
        <ToolFields tool={tool} unit="mm" holders={library.holders} faults={faults} set={set} />
        <StoreBar
          isStored={stored !== null}
          isChanged={isChanged}
          isRefused={refused.length > 0}
          faults={[
            ...refused.slice(faults.length),
            ...[put.error, remove.error].flatMap((e) => (e ? [e.message] : [])),
          ]}
          busy={put.isPending ? 'storing' : remove.isPending ? 'taking away' : null}
          onStore={store}
          onGiveUp={() => drop(tool.id)}
          onCopy={copy}
          onTakeAway={takeAway}
        />
        {isChanged && (
          <Text color="quiet" textStyle="small">
            Changed here, not stored yet: every job draws on this list.
          </Text>
        )}
      </Flex>
    </Flex>
  );
}
