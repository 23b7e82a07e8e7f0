import { Box, SimpleGrid } from '@chakra-ui/react';
import { formatLength } from '@yellow-pin/core/units/length';
import { EdgeWish } from '../bench/EdgeWish.tsx';
import { useJob } from '../job/job-view.ts';
import { changePlan } from '../job/store.ts';
import { Choice } from '../kit/Choice.tsx';
import { Labelled } from '../kit/Labelled.tsx';
import { Panel } from '../kit/Panel.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { NewerFile } from '../revision/NewerFile.tsx';

const named = (list: readonly { id: string; name: string }[]) => list.map((m) => [m.id, m.name] as const);

/** What holds for all setups of a job. */
export function JobPart() {
  const { id, plan, library, picture } = useJob();
  const solids = picture?.solids ?? 1;
  const travel = library.machines.find((m) => m.id === plan.machineId)?.travel ?? null;
  return (
    <Panel name="Whole job">
      <SimpleGrid columns={3} gap="8px">
        <Labelled name="units">
          <Choice
            label="units"
            value={plan.units}
            options={[
              ['mm', 'millimetres'],
              ['inch', 'inches'],
            ]}
            onChange={(units) => changePlan({ units })}
          />
        </Labelled>
        <Labelled name="material">
          <Choice
            label="material"
            value={plan.materialId}
            options={named(library.materials)}
            onChange={(materialId) => changePlan({ materialId })}
          />
        </Labelled>
        <Labelled name="machine">
          <Choice
            label="machine"
            value={plan.machineId}
            options={named(library.machines)}
            onChange={(machineId) => changePlan({ machineId })}
          />
        </Labelled>
        {solids > 1 && (
          <Labelled name="solid">
            <Choice
              label="solid"
              value={String(plan.solid ?? 'all')}
              options={[
                ['all', `all ${solids}`],
                ...Array.from({ length: solids }, (_, i) => [String(i), `solid ${i + 1}`] as const),
              ]}
              onChange={(v) =>
                changePlan(v === 'all' ? { solid: null, allSolids: true } : { solid: Number(v) })
              }
            />
          </Labelled>
        )}
      </SimpleGrid>
      <EdgeWish />
      {travel && (
        <Quiet textStyle="small">
          travel of the machine{' '}
          {[travel.x, travel.y, travel.z]
            .map((mm) => formatLength(mm, plan.units, plan.units === 'mm' ? 0 : 1))
            .join(' x ')}{' '}
          {plan.units === 'mm' ? 'mm' : 'in'}
        </Quiet>
      )}
      <Box>
        <NewerFile jobId={id} />
      </Box>
    </Panel>
  );
}
