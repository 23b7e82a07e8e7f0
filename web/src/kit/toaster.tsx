import { Button, createToaster, Portal, Toast, Toaster, Stack } from '@chakra-ui/react';

/** Short words about what was just done, with a way back where there is one. */
export const toaster = createToaster({ placement: 'bottom', pauseOnPageIdle: true, max: 3 });

/** Where those words stand. */
export function ToastPlace() {
  return (
    <Portal>
      <Toaster toaster={toaster} insetInline={{ mdDown: '4' }}>
        {(toast) => (
          <Toast.Root background="ink" color="sheet" width="auto" maxWidth="520px" alignItems="center">
            <Stack gap="1" flex="1">
              <Toast.Description color="inherit">{toast.description}</Toast.Description>
            </Stack>
            {toast.action && (
              <Button
                size="xs"
                background="yellow"
                color="on-yellow"
                border="0"
                onClick={toast.action.onClick}
              >
                {toast.action.label}
              </Button>
            )}
            <Toast.CloseTrigger color="inherit" position="static" />
          </Toast.Root>
        )}
      </Toaster>
    </Portal>
  );
}
