import { Button, Flex, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { withJobTools } from '@yellow-pin/core/plan/library';
import type { ToolNeed } from '@yellow-pin/core/tools/find';
import type { Tool } from '@yellow-pin/core/tools/schema';
import { shapeFaults } from '@yellow-pin/core/tools/shape';
import { freeNumber, usualTool } from '@yellow-pin/core/tools/usual';
import { formatLength } from '@yellow-pin/core/units/length';
import { CountField } from '../kit/CountField.tsx';
import { FieldSays } from '../kit/FieldSays.tsx';
import { Labelled } from '../kit/Labelled.tsx';
import { SidePanel } from '../kit/SidePanel.tsx';
import { useJob } from '../job/job-view.ts';
import { addTool } from '../job/store.ts';
import { ToolFields } from './ToolFields.tsx';
import { ToolFigure } from './ToolFigure.tsx';

/** A tool that is not in the list: filled in with usual proportions, drawn to scale, to be made like the one in the drawer. */
export function AddTool({ need, onDone }: { need: ToolNeed; onDone(): void }) {
  const { plan, library: shop } = useJob();
  const library = withJobTools(shop, plan);
  const start = usualTool(need, library);
  return (
    <SidePanel title="A tool for this job" onClose={onDone}>
      {start ? (
        <ToolForm start={start} onDone={onDone} />
      ) : (
        <Text>Its size is not known: decide what the row is first.</Text>
      )}
    </SidePanel>
  );
}

function ToolForm({ start, onDone }: { start: Tool; onDone(): void }) {
  const { plan, library: shop } = useJob();
  const library = withJobTools(shop, plan);
  const [tool, setTool] = useState(start);
  const say = (mm: number): string => formatLength(mm, plan.units);
  const faults = shapeFaults(tool, say);
  const taken = library.tools.find((t) => t.number !== null && t.number === tool.number);
  const take = (): void => {
    addTool(tool);
    onDone();
  };
  return (
    <>
      <Flex gap="14px" align="start">
        <ToolFigure
          tool={tool}
          holder={library.holders.find((h) => h.id === tool.holderId) ?? null}
          unit={plan.units}
          width={170}
          height={420}
        />
        <Flex direction="column" gap="9px" flex="1" minWidth="0">
          <Labelled name="number in the magazine">
            <CountField
              label="tool number"
              min={1}
              max={999}
              step={1}
              value={tool.number ?? freeNumber(library.tools)}
              onChange={(number) => setTool({ ...tool, number })}
            />
            {taken && (
              <FieldSays>
                {`T${taken.number} is ${taken.description}. ${freeNumber(library.tools)} is free.`}
              </FieldSays>
            )}
          </Labelled>
          <ToolFields
            tool={tool}
            unit={plan.units}
            holders={library.holders}
            faults={faults}
            set={(part) => setTool((t) => ({ ...t, ...part }))}
          />
        </Flex>
      </Flex>
      <Text color="quiet" textStyle="small" marginBlock="10px">
        Usual proportions: make them those of the tool that is put in. It belongs to this job; the shop's own
        list stays as it is.
      </Text>
      <Button disabled={faults.length > 0 || taken !== undefined} onClick={take}>
        Add it to this job
      </Button>
    </>
  );
}
