import { Button, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { fromFrame } from '@yellow-pin/core/geometry/frame';
import type { SetupFrame } from '@yellow-pin/core/setup/setup-frame';
import { useJob } from '../job/job-view.ts';
import { correct } from '../job/store.ts';
import { FieldSays } from '../kit/FieldSays.tsx';
import { Labelled } from '../kit/Labelled.tsx';
import { LengthField } from '../kit/LengthField.tsx';

interface Hole {
  X: number;
  Y: number;
  Z: number;
  diameter: number;
  depth: number;
}

const FIELDS: [keyof Hole, string, string, number][] = [
  ['X', 'X', 'hole X', -5000],
  ['Y', 'Y', 'hole Y', -5000],
  ['Z', 'Z', 'hole Z', -5000],
  ['diameter', '⌀', 'hole diameter', 0.05],
  ['depth', 'depth', 'hole depth', 0.05],
];

/** A hole at a position in program coordinates. */
export function TypedHole({ frame, onDone }: { frame: SetupFrame; onDone(): void }) {
  const { plan } = useJob();
  const [problem, setProblem] = useState<string | null>(null);
  const { control, handleSubmit } = useForm<Hole>({
    defaultValues: { X: 0, Y: 0, Z: frame.part.max[2], diameter: 6, depth: 10 },
  });
  // What a hole may be is said by the schema of corrections: `correct` asks it.
  const put = (h: Hole): void => {
    const why = correct({
      kind: 'made',
      feature: {
        family: 'hole',
        entry: fromFrame(frame.frame, [h.X, h.Y, h.Z]),
        axis: frame.frame.z,
        diameter: h.diameter,
        depth: h.depth,
        through: false,
        faces: [],
      },
    });
    setProblem(why);
    if (!why) onDone();
  };
  return (
    <form onSubmit={(e) => void handleSubmit(put)(e)}>
      <Flex gap="8px" wrap="wrap" align="end" paddingBlock="6px" role="group" aria-label="Hole by position">
        {problem && <FieldSays>{problem}</FieldSays>}
        {FIELDS.map(([name, text, label, min]) => (
          <Controller
            key={name}
            control={control}
            name={name}
            render={({ field }) => (
              <Labelled name={text}>
                <LengthField
                  value={field.value}
                  unit={plan.units}
                  label={label}
                  min={min}
                  width="62px"
                  onChange={field.onChange}
                />
              </Labelled>
            )}
          />
        ))}
        <Button size="xs" type="submit">
          Put it in
        </Button>
      </Flex>
    </form>
  );
}
