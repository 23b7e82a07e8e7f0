import { Box, Flex, SimpleGrid } from '@chakra-ui/react';
import { FlipHorizontal2, FlipVertical2, RotateCw } from 'lucide-react';
import type { ReactNode } from 'react';
import { scale } from '@yellow-pin/core/geometry/vec';
import {
  attitudeFor,
  attitudeName,
  quarterTurn,
  SIDES,
  sideDirection,
  sideOf,
  turnOver,
  WORK_OFFSETS,
  type Attitude as PartAttitude,
  type Setup,
} from '@yellow-pin/core/setup/setup';
import { Attitude } from '../drawings/Attitude.tsx';
import { useJob } from '../job/job-view.ts';
import { changeSetup, togglePicking, usePick, type Picking } from '../job/store.ts';
import { Chip } from '../kit/Chip.tsx';
import { Choice } from '../kit/Choice.tsx';
import { Labelled } from '../kit/Labelled.tsx';
import { Panel } from '../kit/Panel.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { takeName, TextField } from '../kit/TextField.tsx';

const PICKS: [Picking, string][] = [
  [{ for: 'up' }, 'a face'],
  [{ for: 'up-points', got: [] }, '3 points'],
];
const X_PICKS: [Picking, string][] = [
  [{ for: 'x' }, 'an edge'],
  [{ for: 'x-points', got: [] }, '2 points'],
];

/** Which way is up and where X points. */
export function AttitudePart({ index }: { index: number }) {
  const { setup, picture } = useJob();
  const picking = usePick((s) => s.picking?.for);
  const set = (part: Partial<Setup>) => changeSetup(setup.id, part);
  const turn = (attitude: PartAttitude): void =>
    set({
      attitude,
      name: setup.name === attitudeName(setup.attitude) ? attitudeName(attitude) : setup.name,
    });
  const side = sideOf(setup.attitude.up);
  const chips = (list: [Picking, string][]) =>
    list.map(([p, text]) => (
      <Chip key={text} on={picking === p.for} onClick={() => togglePicking(p)}>
        {text}
      </Chip>
    ));
  return (
    <Panel name={`Setup ${index + 1}`}>
      <SimpleGrid columns={2} gap="8px">
        <Labelled name="name">
          <TextField
            label="name of the setup"
            maxLength={60}
            value={setup.name}
            onTake={takeName((name) => set({ name }))}
          />
        </Labelled>
        <Labelled name="work offset">
          <Choice
            label="work offset"
            value={setup.workOffset}
            options={WORK_OFFSETS.map((w) => [w, w] as const)}
            onChange={(workOffset) => set({ workOffset })}
          />
        </Labelled>
      </SimpleGrid>
      <Flex gap="14px" align="center">
        <Attitude attitude={setup.attitude} bounds={picture?.bounds ?? null} size={92} axes />
        <Box display="grid" gap="6px" flex="1">
          <Line name="Up" text="up">
            <Choice
              label="side up"
              value={side ?? 'picked'}
              options={[
                ...(side === null ? ([['picked', 'picked']] as const) : []),
                ...SIDES.map((s) => [s, `${s} ${attitudeName(attitudeFor(sideDirection(s)))}`] as const),
              ]}
              onChange={(v) => v !== 'picked' && turn(attitudeFor(sideDirection(v)))}
            />
            {chips(PICKS)}
          </Line>
          <Line name="X" text="X along">
            {chips(X_PICKS)}
            <Chip
              onClick={() => turn({ ...setup.attitude, x: scale(setup.attitude.x, -1) })}
              aria-label="X the other way"
            >
              <FlipHorizontal2 size={13} /> other way
            </Chip>
          </Line>
          <Line name="Turn the part" text="turn">
            <Chip onClick={() => turn(quarterTurn(setup.attitude))}>
              <RotateCw size={13} /> 90° about Z
            </Chip>
            <Chip onClick={() => turn(turnOver(setup.attitude, 'x'))}>
              <FlipVertical2 size={13} /> over about X
            </Chip>
            <Chip onClick={() => turn(turnOver(setup.attitude, 'y'))}>
              <FlipHorizontal2 size={13} /> over about Y
            </Chip>
          </Line>
        </Box>
      </Flex>
    </Panel>
  );
}

function Line({ name, text, children }: { name: string; text: string; children: ReactNode }) {
  return (
    <Flex gap="5px" align="center" wrap="wrap" role="group" aria-label={name}>
      <Quiet width="48px">{text}</Quiet>
      {children}
    </Flex>
  );
}
