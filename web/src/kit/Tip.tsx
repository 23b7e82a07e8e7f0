import { Portal, Tooltip } from '@chakra-ui/react';
import type { ReactElement } from 'react';

/** What a control is for, when one points at it or comes to it by keyboard. */
export function Tip({ text, children }: { text: string; children: ReactElement }) {
  return (
    <Tooltip.Root
      openDelay={500}
      closeDelay={60}
      lazyMount
      unmountOnExit
      positioning={{ placement: 'bottom' }}
    >
      <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
      <Portal>
        <Tooltip.Positioner>
          <Tooltip.Content maxWidth="260px" background="ink" color="sheet" textStyle="small">
            {text}
          </Tooltip.Content>
        </Tooltip.Positioner>
      </Portal>
    </Tooltip.Root>
  );
}
