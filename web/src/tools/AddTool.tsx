import { Button, CloseButton, Drawer, Flex, Portal, Text } from '@chakra-ui/react';
import { zodResolver } from '@hookform/resolvers/zod';
import { Controller, useForm, useWatch } from 'react-hook-form';
import { withJobTools } from '@yellow-pin/core/plan/library';
import type { ToolNeed } from '@yellow-pin/core/tools/find';
import { toolSchema, type Tool } from '@yellow-pin/core/tools/schema';
import { freeNumber, usualTool } from '@yellow-pin/core/tools/usual';
import { ToolDrawing } from '../drawings/ToolDrawing.tsx';
import { Choice } from '../kit/Choice.tsx';
import { CountField } from '../kit/CountField.tsx';
import { FieldSays } from '../kit/FieldSays.tsx';
import { Labelled } from '../kit/Labelled.tsx';
import { LengthField } from '../kit/LengthField.tsx';
import { takeName, TextField } from '../kit/TextField.tsx';
import { useJob } from '../job/job-view.ts';
import { addTool } from '../job/store.ts';

const LENGTHS = [
  ['diameter', 'diameter'],
  ['fluteLength', 'flute length'],
  ['shankDiameter', 'shank ⌀'],
  ['stickOut', 'stick-out'],
  ['overallLength', 'overall length'],
] as const;

/** A tool that is not in the list: filled in with usual proportions, drawn to scale, to be made like the one in the drawer. */
export function AddTool({ need, onDone }: { need: ToolNeed; onDone(): void }) {
  const { plan, library: shop } = useJob();
  const library = withJobTools(shop, plan);
  const start = usualTool(need, library);
  return (
    <Drawer.Root open onOpenChange={(d) => !d.open && onDone()} size="sm" placement="end" modal={false}>
      <Portal>
        <Drawer.Positioner pointerEvents="none">
          <Drawer.Content
            pointerEvents="auto"
            background="sheet"
            borderInlineStartWidth="1.5px"
            borderColor="ink"
          >
            <Drawer.Header paddingBlock="12px">
              <Drawer.Title fontSize="16px">A tool for this job</Drawer.Title>
            </Drawer.Header>
            <Drawer.Body>
              {start ? (
                <ToolForm start={start} onDone={onDone} />
              ) : (
                <Text>Its size is not known: decide what the row is first.</Text>
              )}
            </Drawer.Body>
            <Drawer.CloseTrigger asChild>
              <CloseButton size="sm" aria-label="Close" />
            </Drawer.CloseTrigger>
          </Drawer.Content>
        </Drawer.Positioner>
      </Portal>
    </Drawer.Root>
  );
}

function ToolForm({ start, onDone }: { start: Tool; onDone(): void }) {
  const { plan, library: shop } = useJob();
  const library = withJobTools(shop, plan);
  const { control, handleSubmit, formState, setError } = useForm({
    resolver: zodResolver(toolSchema),
    defaultValues: start,
  });
  const tool = { ...start, ...(useWatch({ control }) as Tool) };
  const holder = library.holders.find((h) => h.id === tool.holderId) ?? null;
  const take = (made: Tool): void => {
    const taken = library.tools.find((t) => t.number !== null && t.number === made.number);
    if (taken) {
      setError('number', {
        message: `T${made.number} is ${taken.description}. ${freeNumber(library.tools)} is free.`,
      });
      return;
    }
    if (made.stickOut > made.overallLength) {
      setError('stickOut', { message: 'It cannot stand out farther than it is long.' });
      return;
    }
    addTool(made);
    onDone();
  };
  return (
    <form onSubmit={(e) => void handleSubmit((v) => take(v as Tool))(e)}>
      <Flex gap="16px" align="start">
        <ToolDrawing tool={tool} holder={holder} width={120} height={330} />
        <Flex direction="column" gap="9px" flex="1" minWidth="0">
          <Controller
            control={control}
            name="description"
            render={({ field }) => (
              <Labelled name="name">
                <TextField
                  label="tool name"
                  maxLength={80}
                  value={field.value}
                  onTake={takeName(field.onChange)}
                />
              </Labelled>
            )}
          />
          <Controller
            control={control}
            name="number"
            render={({ field }) => (
              <Labelled name="number in the magazine">
                <CountField
                  label="tool number"
                  min={1}
                  max={999}
                  step={1}
                  value={field.value ?? freeNumber(library.tools)}
                  onChange={field.onChange}
                />
              </Labelled>
            )}
          />
          {formState.errors.number?.message && <FieldSays>{formState.errors.number.message}</FieldSays>}
          {LENGTHS.map(([name, text]) => (
            <Controller
              key={name}
              control={control}
              name={name}
              render={({ field, fieldState }) => (
                <Labelled name={text}>
                  <LengthField
                    label={text}
                    value={field.value}
                    unit={plan.units}
                    min={0.01}
                    onChange={field.onChange}
                  />
                  {fieldState.error?.message && <FieldSays>{fieldState.error.message}</FieldSays>}
                </Labelled>
              )}
            />
          ))}
          {start.pointAngleDeg !== undefined && (
            <Controller
              control={control}
              name="pointAngleDeg"
              render={({ field }) => (
                <Labelled name="point angle, °">
                  <CountField
                    label="point angle"
                    min={10}
                    max={180}
                    step={1}
                    value={field.value ?? 118}
                    onChange={field.onChange}
                  />
                </Labelled>
              )}
            />
          )}
          <Controller
            control={control}
            name="holderId"
            render={({ field }) => (
              <Labelled name="holder">
                <Choice
                  label="holder"
                  value={field.value}
                  options={library.holders.map((h) => [h.id, h.description] as const)}
                  onChange={field.onChange}
                />
              </Labelled>
            )}
          />
          <Controller
            control={control}
            name="cutterMaterial"
            render={({ field }) => (
              <Labelled name="cutter">
                <Choice
                  label="cutter material"
                  value={field.value ?? 'hss'}
                  options={[
                    ['hss', 'high-speed steel'],
                    ['carbide', 'carbide'],
                  ]}
                  onChange={field.onChange}
                />
              </Labelled>
            )}
          />
        </Flex>
      </Flex>
      <Text color="quiet" textStyle="small" marginBlock="10px">
        Usual proportions: make them those of the tool that is put in. It belongs to this job; the shop's own
        list stays as it is.
      </Text>
      <Button type="submit">Add it to this job</Button>
    </form>
  );
}
