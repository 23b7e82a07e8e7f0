import { Alert, type AlertRootProps } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface Props extends Omit<AlertRootProps, 'status'> {
  /** An error is read aloud at once. */
  kind?: 'error' | 'said';
  /** What can be done about it. */
  actions?: ReactNode;
}

/** Something to know, with the way on beside it. */
export function Notice({ kind = 'said', actions, children, ...root }: Props) {
  const isError = kind === 'error';
  return (
    <Alert.Root
      status={isError ? 'error' : 'neutral'}
      role={isError ? 'alert' : 'status'}
      borderRadius="0"
      paddingBlock="7px"
      paddingInline="14px"
      alignItems="center"
      flexWrap="wrap"
      gap="10px"
      fontSize="14px"
      background={isError ? 'error-ground' : 'sheet'}
      color={isError ? 'error-ink' : 'ink'}
      borderBottomWidth="1px"
      borderColor="rule"
      boxShadow="none"
      {...root}
    >
      <Alert.Indicator boxSize="18px" color="inherit" />
      <Alert.Description flex="1" minWidth="180px" color="inherit">
        {children}
      </Alert.Description>
      {actions}
    </Alert.Root>
  );
}
