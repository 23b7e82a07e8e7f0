import { Button, Field, Input, Popover, Portal, Stack } from '@chakra-ui/react';
import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { z } from 'zod';
import { sizeDecisionSchema } from '@yellow-pin/core/plan/plan';
import { decideMany } from './store.ts';

const schema = z.object({
  reason: sizeDecisionSchema.shape.leftOut.unwrap().trim().min(1, 'Say why, for those who come after.'),
});

/** Leaves sizes out, with a reason in one's own words. */
export function LeaveOut({ keys, label = 'Leave out …' }: { keys: string[]; label?: string }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <Popover.Root open={isOpen} onOpenChange={(d) => setOpen(d.open)} lazyMount unmountOnExit>
      <Popover.Trigger asChild>
        <Button size="2xs">{label}</Button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content background="sheet" borderWidth="1px" borderColor="ink" width="320px">
            <Popover.Body padding="12px">
              <Reason
                onTake={(reason) => {
                  decideMany(keys, { leftOut: reason });
                  setOpen(false);
                }}
              />
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}

function Reason({ onTake }: { onTake(reason: string): void }) {
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(schema),
    defaultValues: { reason: '' },
  });
  const { errors } = formState;
  return (
    <form onSubmit={(e) => void handleSubmit((v) => onTake(v.reason))(e)}>
      <Stack gap="8px">
        <Field.Root invalid={errors.reason !== undefined}>
          <Field.Label>why it is left out</Field.Label>
          <Input
            {...register('reason')}
            autoFocus
            maxLength={200}
            placeholder="made on the other machine"
            onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
          />
          <Field.ErrorText>{errors.reason?.message}</Field.ErrorText>
        </Field.Root>
        <Button size="xs" type="submit" alignSelf="start">
          Leave out
        </Button>
      </Stack>
    </form>
  );
}
