import { CloseButton, Dialog, Portal } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface Props {
  title: string;
  children: ReactNode;
  /** What can be answered. */
  answers: ReactNode;
  /** Nothing is answered: Escape, or the cross. */
  onLeave(): void;
  /** What the cross is called. */
  leave?: string;
  isAlert?: boolean;
  size?: 'md' | 'xl';
}

/** A question that is to be answered before one goes on. */
export function Asked({
  title,
  children,
  answers,
  onLeave,
  leave = 'Close',
  isAlert = false,
  size = 'md',
}: Props) {
  return (
    <Dialog.Root
      open
      onOpenChange={(d) => !d.open && onLeave()}
      role={isAlert ? 'alertdialog' : 'dialog'}
      placement="center"
      size={size}
      scrollBehavior="inside"
    >
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content background="sheet">
            <Dialog.Header>
              <Dialog.Title overflowWrap="anywhere">{title}</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>{children}</Dialog.Body>
            <Dialog.Footer flexWrap="wrap">{answers}</Dialog.Footer>
            <Dialog.CloseTrigger asChild>
              <CloseButton size="sm" aria-label={leave} />
            </Dialog.CloseTrigger>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
