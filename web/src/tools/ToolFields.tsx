import { Button, Flex, Grid } from '@chakra-ui/react';
import { X } from 'lucide-react';
import { NAMED_THREADS } from '@yellow-pin/core/threads/more';
import { TAP_LEADS } from '@yellow-pin/core/threads/thread';
import type { ShapeFault } from '@yellow-pin/core/tools/kinds/kind';
import { propertiesOf, type ToolProperty } from '@yellow-pin/core/tools/properties';
import { toolKind } from '@yellow-pin/core/tools/kinds/registry';
import type { Holder, Tool } from '@yellow-pin/core/tools/schema';
import { sizeFromText } from '@yellow-pin/core/tools/size';
import { LengthError, type LengthUnit } from '@yellow-pin/core/units/length';
import { Choice } from '../kit/Choice.tsx';
import { CountField } from '../kit/CountField.tsx';
import { FieldSays } from '../kit/FieldSays.tsx';
import { IconAct } from '../kit/IconAct.tsx';
import { Labelled } from '../kit/Labelled.tsx';
import { LengthField } from '../kit/LengthField.tsx';
import { takeName, TextField } from '../kit/TextField.tsx';

interface Props {
  tool: Tool;
  unit: LengthUnit;
  holders: readonly Holder[];
  faults: readonly ShapeFault[];
  set(part: Partial<Tool>): void;
}

/** All that a tool of a kind has, to be typed: its name, size, the kind's own numbers, lengths, thread, holder. */
export function ToolFields({ tool, unit, holders, faults, set }: Props) {
  const says = (field: keyof Tool) => faults.find((f) => f.field === field)?.message;
  return (
    <Flex direction="column" gap="8px">
      <Labelled name="name">
        <TextField
          label="tool name"
          maxLength={80}
          value={tool.description}
          onTake={takeName((description) => set({ description }))}
        />
      </Labelled>
      <Grid templateColumns="repeat(auto-fill, minmax(112px, 1fr))" gap="8px 12px" alignItems="start">
        <Labelled name="size">
          <TextField label="size" maxLength={20} value={tool.sizeName} onTake={takeSize(unit, set)} />
        </Labelled>
        {propertiesOf(tool.kind).map((p) => (
          <Property
            key={p.field}
            property={p}
            value={tool[p.field] as number | undefined}
            unit={unit}
            mayLack={isOptional(tool, p)}
            fault={says(p.field)}
            set={(v) => set({ [p.field]: v })}
          />
        ))}
        <Labelled name="cutter">
          <Choice
            label="cutter material"
            width="100%"
            value={tool.cutterMaterial}
            options={[
              ['hss', 'high-speed steel'],
              ['carbide', 'carbide'],
            ]}
            onChange={(cutterMaterial) => set({ cutterMaterial })}
          />
        </Labelled>
      </Grid>
      <Labelled name="holder">
        <Choice
          label="holder"
          width="100%"
          value={tool.holderId}
          options={holders.map((h) => [h.id, h.description] as const)}
          onChange={(holderId) => set({ holderId })}
        />
      </Labelled>
      {tool.thread && <TapThread thread={tool.thread} set={set} />}
      {tool.threadForm && <MilledThread form={tool.threadForm} unit={unit} set={set} />}
      {says('thread') && <FieldSays>{says('thread')!}</FieldSays>}
      {says('threadForm') && <FieldSays>{says('threadForm')!}</FieldSays>}
    </Flex>
  );
}

/** A number of its own kind that it can do without; a tip is never missing, it is sharp. */
function isOptional(tool: Tool, { field }: ToolProperty): boolean {
  const { own, needs } = toolKind(tool.kind);
  return field !== 'tipDiameter' && own.some((o, i) => o === field && i >= needs);
}

const takeSize =
  (unit: LengthUnit, set: Props['set']) =>
  (text: string): string | null => {
    try {
      set(sizeFromText(text, unit));
      return null;
    } catch (e) {
      if (e instanceof LengthError) return e.message;
      throw e;
    }
  };

interface PropertyProps {
  property: ToolProperty;
  value: number | undefined;
  unit: LengthUnit;
  /** Its kind can do without it. */
  mayLack: boolean;
  fault: string | undefined;
  set(value: number | undefined): void;
}

/** What a number begins with that a tool did not have. */
const BEGIN = { length: 1, angle: 90, count: 2 } as const;

function Property({ property: { label, symbol, type }, value, unit, mayLack, fault, set }: PropertyProps) {
  const name = symbol ? `${label} · ${symbol}` : label;
  return (
    <Labelled name={name}>
      {value === undefined ? (
        <Button size="2xs" variant="outline" width="84px" height="28px" onClick={() => set(BEGIN[type])}>
          none
        </Button>
      ) : (
        <Flex align="center">
          {type === 'length' ? (
            <LengthField label={label} value={value} unit={unit} min={0} onChange={set} />
          ) : (
            <CountField
              label={label}
              value={value}
              min={type === 'angle' ? 1 : 1}
              max={type === 'angle' ? 180 : 40}
              step={1}
              onChange={set}
            />
          )}
          {mayLack && (
            <IconAct label={`No ${label}`} onClick={() => set(undefined)}>
              <X size={13} />
            </IconAct>
          )}
        </Flex>
      )}
      {fault && <FieldSays>{fault}</FieldSays>}
    </Labelled>
  );
}

/** A tap's thread by its name; pitch and major diameter follow from the tables. */
function TapThread({ thread, set }: { thread: NonNullable<Tool['thread']>; set: Props['set'] }) {
  const change = (part: Partial<typeof thread>): void => set({ thread: { ...thread, ...part } });
  const take = (text: string): string | null => {
    const wanted = text.trim().toLowerCase().replace(/\s+/g, ' ');
    const found = NAMED_THREADS.find((t) => t.designation.toLowerCase() === wanted);
    if (!found) return 'There is no thread of that name in the tables: M8x1.25, 1/4-20 UNC, G 1/4.';
    const { designation, pitch, majorDiameter } = found;
    set({
      thread: { ...thread, designation, pitch, majorDiameter },
      diameter: majorDiameter,
      sizeName: designation,
    });
    return null;
  };
  return (
    <Flex gap="8px 12px" wrap="wrap">
      <Labelled name="thread · TDZ" width="112px">
        <TextField label="thread" value={thread.designation} onTake={take} />
      </Labelled>
      <Labelled name="hand">
        <Choice
          label="hand"
          value={thread.hand}
          options={[
            ['right', 'right'],
            ['left', 'left'],
          ]}
          onChange={(hand) => change({ hand })}
        />
      </Labelled>
      <Labelled name="lead">
        <Choice
          label="lead"
          value={thread.lead}
          options={TAP_LEADS.map((l) => [l, l.replace('-', ' ')] as const)}
          onChange={(lead) => change({ lead })}
        />
      </Labelled>
      <Labelled name="way">
        <Choice
          label="way"
          value={thread.style}
          options={[
            ['cutting', 'cutting'],
            ['forming', 'forming'],
          ]}
          onChange={(style) => change({ style })}
        />
      </Labelled>
    </Flex>
  );
}

/** What a thread mill's teeth are like. */
function MilledThread({
  form,
  unit,
  set,
}: {
  form: NonNullable<Tool['threadForm']>;
  unit: LengthUnit;
  set: Props['set'];
}) {
  const change = (part: Partial<typeof form>): void => set({ threadForm: { ...form, ...part } });
  return (
    <Flex gap="8px 12px" wrap="wrap">
      <Labelled name="pitch · TP">
        <LengthField
          label="pitch"
          value={form.pitch}
          unit={unit}
          min={0.1}
          onChange={(pitch) => change({ pitch })}
        />
      </Labelled>
      <Labelled name="rows of teeth">
        <CountField
          label="rows"
          value={form.rows}
          min={1}
          max={60}
          step={1}
          onChange={(rows) => change({ rows })}
        />
      </Labelled>
      <Labelled name="form">
        <Choice
          label="form angle"
          value={String(form.angleDeg)}
          options={[
            ['60', '60°'],
            ['55', '55°'],
          ]}
          onChange={(v) => change({ angleDeg: v === '55' ? 55 : 60 })}
        />
      </Labelled>
      <Labelled name="shape">
        <Choice
          label="tapered"
          value={form.tapered ? 'tapered' : 'straight'}
          options={[
            ['straight', 'straight'],
            ['tapered', 'tapered 1:16'],
          ]}
          onChange={(v) => change({ tapered: v === 'tapered' })}
        />
      </Labelled>
    </Flex>
  );
}
