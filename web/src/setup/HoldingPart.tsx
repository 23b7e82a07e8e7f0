import { Flex, SimpleGrid, Table, VisuallyHidden } from '@chakra-ui/react';
import { Plus, Trash2 } from 'lucide-react';
import { toFrame } from '@yellow-pin/core/geometry/frame';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import { viseSchema, type Holding, type KeepOut } from '@yellow-pin/core/setup/setup';
import { useJob } from '../job/job-view.ts';
import { changeSetup, togglePicking, usePick } from '../job/store.ts';
import { Chip } from '../kit/Chip.tsx';
import { Choice } from '../kit/Choice.tsx';
import { IconAct } from '../kit/IconAct.tsx';
import { Labelled } from '../kit/Labelled.tsx';
import { LengthField } from '../kit/LengthField.tsx';
import { Panel } from '../kit/Panel.tsx';
import { takeName, TextField } from '../kit/TextField.tsx';
import { newId } from '../kit/new-id.ts';

/** A box ends above where it begins: why the one end cannot be there, or null. */
function turnedOver(end: 'min' | 'max', v: number, other: number): string | null {
  if (end === 'min') return v < other ? null : 'Not behind its own end: move that first.';
  return v > other ? null : 'Not before its own beginning: move that first.';
}

/** What holds the part and what else is in the way. Boxes are shown in program coordinates. */
export function HoldingPart() {
  const { plan, setup, here } = useJob();
  const picking = usePick((s) => s.picking?.for);
  const frame = here?.frame ?? null;
  const { holding } = setup;
  const set = (part: Partial<Holding>): void => changeSetup(setup.id, { holding: { ...holding, ...part } });
  const { vise } = holding;
  // Boxes are kept along the setup's axes from the file's origin, so that moving zero does not move them.
  const zero: Vec3 = frame ? toFrame({ ...frame.frame, origin: [0, 0, 0] }, frame.frame.origin) : [0, 0, 0];
  const change = (id: string, part: Partial<KeepOut>): void =>
    set({ keepOuts: holding.keepOuts.map((k) => (k.id === id ? { ...k, ...part } : k)) });
  const addBox = (): void => {
    const top = frame ? frame.stock.max[2] + zero[2] : 0;
    set({
      keepOuts: [
        ...holding.keepOuts,
        {
          id: newId(8),
          name: `box ${holding.keepOuts.length + 1}`,
          kind: 'keep-out',
          min: [zero[0] - 20, zero[1] - 20, top],
          max: [zero[0] + 20, zero[1] + 20, top + 30],
        },
      ],
    });
  };
  return (
    <Panel name="Holding">
      <Flex gap="5px" wrap="wrap">
        <Chip
          on={vise !== null}
          onClick={() =>
            set({ vise: vise ? null : { sides: 'front-back', jawHeight: 40, grip: 8, jawWidth: 125 } })
          }
        >
          vise with parallel jaws
        </Chip>
        <Chip on={picking === 'clamp'} onClick={() => togglePicking({ for: 'clamp' })}>
          <Plus size={13} /> clamp on the part
        </Chip>
        <Chip onClick={addBox}>
          <Plus size={13} /> keep-out box
        </Chip>
      </Flex>
      {vise && (
        <SimpleGrid columns={{ base: 2, md: 4 }} gap="8px">
          <Labelled name="jaws on">
            <Choice
              label="jaws on"
              value={vise.sides}
              options={[
                ['front-back', 'front and back'],
                ['left-right', 'left and right'],
              ]}
              onChange={(sides) => set({ vise: { ...vise, sides } })}
            />
          </Labelled>
          {(
            [
              ['grip', 'grip depth'],
              ['jawHeight', 'jaw height'],
              ['jawWidth', 'jaw width'],
            ] as const
          ).map(([key, name]) => (
            <Labelled key={key} name={name}>
              <LengthField
                value={vise[key]}
                unit={plan.units}
                label={name}
                min={0.5}
                schema={viseSchema.shape[key]}
                onChange={(v) => set({ vise: { ...vise, [key]: v } })}
              />
            </Labelled>
          ))}
        </SimpleGrid>
      )}
      {holding.keepOuts.length > 0 && (
        <Table.Root size="sm" unstyled className="boxes">
          <Table.Header>
            <Table.Row>
              <Table.ColumnHeader>box</Table.ColumnHeader>
              <Table.ColumnHeader>X from – to</Table.ColumnHeader>
              <Table.ColumnHeader>Y from – to</Table.ColumnHeader>
              <Table.ColumnHeader>Z from – to</Table.ColumnHeader>
              <Table.ColumnHeader>
                <VisuallyHidden>remove</VisuallyHidden>
              </Table.ColumnHeader>
            </Table.Row>
          </Table.Header>
          <Table.Body>
            {holding.keepOuts.map((k) => (
              <Table.Row key={k.id}>
                <Table.Cell>
                  <TextField
                    width="78px"
                    label="name of the box"
                    maxLength={60}
                    value={k.name}
                    onTake={takeName((name) => change(k.id, { name }))}
                  />
                </Table.Cell>
                {([0, 1, 2] as const).map((i) => (
                  <Table.Cell key={i}>
                    {(['min', 'max'] as const).map((end) => (
                      <LengthField
                        key={end}
                        value={k[end][i] - zero[i]}
                        unit={plan.units}
                        label={`${k.name} ${'XYZ'[i]} ${end === 'min' ? 'from' : 'to'}`}
                        min={-5000}
                        width="54px"
                        refuse={(v) => turnedOver(end, v, k[end === 'min' ? 'max' : 'min'][i] - zero[i])}
                        onChange={(v) =>
                          change(k.id, { [end]: k[end].map((c, n) => (n === i ? v + zero[i] : c)) as Vec3 })
                        }
                      />
                    ))}
                  </Table.Cell>
                ))}
                <Table.Cell>
                  <IconAct
                    label={`Remove ${k.name}`}
                    onClick={() => set({ keepOuts: holding.keepOuts.filter((x) => x.id !== k.id) })}
                  >
                    <Trash2 size={14} />
                  </IconAct>
                </Table.Cell>
              </Table.Row>
            ))}
          </Table.Body>
        </Table.Root>
      )}
    </Panel>
  );
}
