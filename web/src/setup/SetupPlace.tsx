import { Box, Button, Flex, SimpleGrid } from '@chakra-ui/react';
import { ArrowUp, Copy, FlipVertical2, Plus, Trash2 } from 'lucide-react';
import {
  attitudeFor,
  attitudeName,
  copySetup,
  freeSetupId,
  MOST_SETUPS,
  newSetup,
  setupSchema,
  sideDirection,
  sideOf,
  SIDES,
  turnOver,
  WORK_OFFSETS,
  type Setup,
} from '@yellow-pin/core/setup/setup';
import { withoutSetup } from '@yellow-pin/core/plan/without-setup';
import { formatLength } from '@yellow-pin/core/units/length';
import { useJob } from '../job/job-view.ts';
import { changePlan, changeSetup, usePick } from '../job/store.ts';
import { IconAct } from '../kit/IconAct.tsx';
import { Labelled } from '../kit/Labelled.tsx';
import { LengthField } from '../kit/LengthField.tsx';
import { Panel } from '../kit/Panel.tsx';
import { AttitudePart } from './AttitudePart.tsx';
import { DrawingPart } from './DrawingPart.tsx';
import { HoldingPart } from './HoldingPart.tsx';
import { JobPart } from './JobPart.tsx';
import { StockPart } from './StockPart.tsx';
import { ZeroPart } from './ZeroPart.tsx';

/** How the part stands, where zero is, what it is made from and what holds it. */
export default function SetupPlace() {
  const { plan, setup, open } = useJob();
  const pick = usePick((s) => s.pick);
  const index = plan.setups.findIndex((s) => s.id === setup.id);
  const set = (part: Partial<Setup>) => changeSetup(setup.id, part);
  const insert = (fresh: Setup): void => {
    changePlan({ setups: [...plan.setups.slice(0, index + 1), fresh, ...plan.setups.slice(index + 1)] });
    pick({ setupId: fresh.id });
  };
  const add = (): void => {
    const free = SIDES.find((s) => plan.setups.every((x) => sideOf(x.attitude.up) !== s)) ?? '+Z';
    const offset = WORK_OFFSETS[Math.min(plan.setups.length, WORK_OFFSETS.length - 1)];
    insert(newSetup(freeSetupId(plan.setups), attitudeName(attitudeFor(sideDirection(free))), free, offset));
  };
  const remove = (): void => {
    const rest = withoutSetup(plan, setup.id);
    changePlan(rest);
    pick({ setupId: rest.setups[Math.max(0, index - 1)]!.id });
  };
  const earlier = (): void => {
    const order = [...plan.setups];
    [order[index - 1], order[index]] = [order[index]!, order[index - 1]!];
    changePlan({ setups: order });
  };
  const isFull = plan.setups.length >= MOST_SETUPS;
  return (
    <section className="sheet" aria-label="Setup">
      <Box padding="12px 16px" overflowY="auto" display="grid" gap="14px" alignContent="start">
        <Flex gap="6px" wrap="wrap">
          <Button onClick={add} disabled={isFull}>
            <Plus size={15} /> Add a setup
          </Button>
          <Button onClick={() => insert(copySetup(setup, freeSetupId(plan.setups)))} disabled={isFull}>
            <Copy size={15} /> Copy
          </Button>
          <Button
            onClick={() => insert(copySetup(setup, freeSetupId(plan.setups), turnOver(setup.attitude, 'x')))}
            disabled={isFull}
            title="A next setup with the part turned over about X"
          >
            <FlipVertical2 size={15} /> Next, turned over
          </Button>
          <IconAct label="Run this setup earlier" onClick={earlier} disabled={index === 0}>
            <ArrowUp size={15} />
          </IconAct>
          <IconAct label="Remove this setup" onClick={remove} disabled={plan.setups.length === 1}>
            <Trash2 size={15} />
          </IconAct>
        </Flex>
        <AttitudePart index={index} />
        <ZeroPart />
        <StockPart first={index === 0} />
        <HoldingPart />
        {open.drawing && plan.drawing && <DrawingPart drawing={open.drawing} depths={plan.drawing} />}
        <Panel name="Levels">
          <SimpleGrid columns={3} gap="8px">
            <Labelled name="clearance above all">
              <LengthField
                value={setup.clearance}
                unit={plan.units}
                label="clearance level"
                min={0.5}
                schema={setupSchema.shape.clearance}
                refuse={(v) =>
                  v < setup.retract
                    ? `R stands ${formatLength(setup.retract, plan.units)} above the entry: lower R first.`
                    : null
                }
                onChange={(v) => set({ clearance: v })}
              />
            </Labelled>
            <Labelled name="R above each entry">
              <LengthField
                value={setup.retract}
                unit={plan.units}
                label="R level"
                min={0.2}
                schema={setupSchema.shape.retract}
                refuse={(v) =>
                  v > setup.clearance
                    ? `Above the clearance level of ${formatLength(setup.clearance, plan.units)}: raise that first.`
                    : null
                }
                onChange={(v) => set({ retract: v })}
              />
            </Labelled>
          </SimpleGrid>
        </Panel>
        <JobPart />
      </Box>
    </section>
  );
}
