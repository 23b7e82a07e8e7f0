import { Box, Flex, Grid } from '@chakra-ui/react';
import { useState } from 'react';
import { useSearchParams } from 'react-router-dom';
import { profileFaults } from '@yellow-pin/core/code/profiles/faults';
import { machineProfileSchema, type MachineProfile } from '@yellow-pin/core/code/profiles/schema';
import type { Library } from '@yellow-pin/core/plan/library';
import { Chip } from '../../kit/Chip.tsx';
import { Labelled } from '../../kit/Labelled.tsx';
import { Panel } from '../../kit/Panel.tsx';
import { takeName, TextField } from '../../kit/TextField.tsx';
import { ListFiles } from '../ListFiles.tsx';
import { StoreBar } from '../StoreBar.tsx';
import { useListChanges } from '../use-library.ts';
import { GROUPS } from './fields.ts';
import { MachineField } from './MachineField.tsx';
import { SampleProgram } from './SampleProgram.tsx';
import { newId } from '../../kit/new-id.ts';

/** What each machine's control understands, and how the shop likes its programs: a form, and a program that follows it. */
export function MachinesPlace({ library }: { library: Library }) {
  const [params, setParams] = useSearchParams();
  const [drafts, setDrafts] = useState<Record<string, MachineProfile>>({});
  const { put, remove } = useListChanges('machines');
  const fresh = Object.values(drafts).filter((m) => !library.machines.some((x) => x.id === m.id));
  const listed = [...library.machines.map((m) => drafts[m.id] ?? m), ...fresh];
  const machine = listed.find((m) => m.id === params.get('machine')) ?? listed[0];
  if (!machine) return null;
  const stored = library.machines.find((m) => m.id === machine.id) ?? null;
  const isChanged = !stored || JSON.stringify(stored) !== JSON.stringify(machine);
  const set = (part: Partial<MachineProfile>): void =>
    setDrafts((d) => ({ ...d, [machine.id]: { ...machine, ...part } }));
  const drop = (): void =>
    setDrafts((d) => Object.fromEntries(Object.entries(d).filter(([id]) => id !== machine.id)));
  const copy = (): void => {
    const id = `own-${newId(8)}`;
    setDrafts((d) => ({ ...d, [id]: { ...machine, id, name: `${machine.name}, copy`.slice(0, 80) } }));
    setParams({ machine: id });
  };
  const read = machineProfileSchema.safeParse(machine);
  const faults = read.success
    ? profileFaults(machine)
    : read.error.issues.map((i) => `${i.path.join(' ')}: ${i.message}`);
  const takeAway = (): void => {
    if (!stored) return drop();
    remove.mutate(machine.id, { onSuccess: () => (drop(), setParams({})) });
  };
  // What contradicts itself is not written: the last that could be stays beside the form.
  const shown = faults.length === 0 ? machine : (stored ?? listed[0] ?? machine);
  return (
    <Box paddingTop="10px">
      <Flex gap="6px" wrap="wrap" align="center" marginBottom="12px" role="group" aria-label="Machines">
        {listed.map((m) => (
          <Chip key={m.id} on={m.id === machine.id} onClick={() => setParams({ machine: m.id })}>
            {m.name}
            {drafts[m.id] ? ' *' : ''}
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
