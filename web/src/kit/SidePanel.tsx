import { CloseButton, Drawer, Portal } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface Props {
  title: string;
  children: ReactNode;
  onClose(): void;
}

/** Something to do beside the part, which stays in view and in use. */
export function SidePanel({ title, children, onClose }: Props) {
  return (
    <Drawer.Root open onOpenChange={(d) => !d.open && onClose()} size="md" placement="end" modal={false}>
      <Portal>
        <Drawer.Positioner pointerEvents="none">
          <Drawer.Content
            pointerEvents="auto"
            background="sheet"
            borderInlineStartWidth="1.5px"
            borderColor="ink"
          >
            <Drawer.Header paddingBlock="12px">
              <Drawer.Title fontSize="16px">{title}</Drawer.Title>
            </Drawer.Header>
            <Drawer.Body>{children}</Drawer.Body>
            <Drawer.CloseTrigger asChild>
              <CloseButton size="sm" aria-label="Close" />
            </Drawer.CloseTrigger>
          </Drawer.Content>
        </Drawer.Positioner>
      </Portal>
    </Drawer.Root>
  );
}
