import { Box, Flex, Grid } from '@chakra-ui/react';
import { profileFaults } from '@yellow-pin/core/code/profiles/faults';
import { machineProfileSchema } from '@yellow-pin/core/code/profiles/schema';
import type { Library } from '@yellow-pin/core/plan/library';
import { Chip } from '../../kit/Chip.tsx';
import { Labelled } from '../../kit/Labelled.tsx';
import { Panel } from '../../kit/Panel.tsx';
import { takeName, TextField } from '../../kit/TextField.tsx';
import { ListFiles } from '../ListFiles.tsx';
import { StoreBar } from '../StoreBar.tsx';
import { useEntryDrafts } from '../use-entry-drafts.ts';
import { useListChanges } from '../use-library.ts';
import { GROUPS } from './fields.ts';
import { MachineField } from './MachineField.tsx';
import { SampleProgram } from './SampleProgram.tsx';

/** What each machine's control understands, and how the shop likes its programs: a form, and a program that follows it. */
export function MachinesPlace({ library }: { library: Library }) {
  const { put, remove } = useListChanges('machines');
  const {
    listed,
    shown: machine,
    stored,
    isChanged,
    isDraft,
    look,
    set,
    drop,
    copy,
    gone,
  } = useEntryDrafts(library.machines, 'machine');
  if (!machine) return null;
  const read = machineProfileSchema.safeParse(machine);
  const faults = read.success
    ? profileFaults(machine)
    : read.error.issues.map((i) => `${i.path.join(' ')}: ${i.message}`);
  const takeAway = (): void => {
    if (!stored) return drop();
    remove.mutate(machine.id, { onSuccess: gone });
  };
  // What contradicts itself is not written: the last that could be stays beside the form.
  const shown = faults.length === 0 ? machine : (stored ?? listed[0] ?? machine);
  return (
    <Box paddingTop="10px">
      <Flex gap="6px" wrap="wrap" align="center" marginBottom="12px" role="group" aria-label="Machines">
        {listed.map((m) => (
          <Chip key={m.id} on={m.id === machine.id} onClick={() => look(m.id)}>
            {m.name}
            {isDraft(m.id) ? ' *' : ''}
          </Chip>
        ))}
        <Box marginInlineStart="auto" />
        <ListFiles list="machines" library={library} />
      </Flex>
      <Grid templateColumns={{ base: '1fr', lg: 'minmax(0, 1fr) 420px' }} gap="18px" alignItems="start">
        <Box minWidth="0">
          <Labelled name="name" width="300px" marginBottom="10px">
            <TextField
              label="machine name"
              maxLength={80}
              value={machine.name}
              onTake={takeName((name) => set({ name }))}
            />
          </Labelled>
          <StoreBar
            isStored={stored !== null}
            isChanged={isChanged}
            isRefused={faults.length > 0}
            faults={[...faults, ...[put.error, remove.error].flatMap((e) => (e ? [e.message] : []))]}
            busy={put.isPending ? 'storing' : remove.isPending ? 'taking away' : null}
            onStore={() => put.mutate(machine, { onSuccess: drop })}
            onGiveUp={drop}
            onCopy={copy}
            onTakeAway={takeAway}
          />
          <Grid
            templateColumns={{ base: '1fr', md: '1fr 1fr' }}
            gap="10px"
            alignItems="start"
            marginTop="12px"
          >
            {GROUPS.map((g) => (
              <Panel key={g.name} name={g.name}>
                {g.fields
                  .filter((f) => f.when?.(machine) ?? true)
                  .map((f) => (
                    <MachineField key={`${machine.id}/${f.name}`} field={f} profile={machine} set={set} />
                  ))}
              </Panel>
            ))}
          </Grid>
        </Box>
        <SampleProgram profile={shown} stored={stored} />
      </Grid>
    </Box>
  );
}
