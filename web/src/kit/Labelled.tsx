import { Box, type BoxProps } from '@chakra-ui/react';

/** A control with its name over it; the control itself carries the same name for those who hear it. */
export function Labelled({ name, children, ...box }: BoxProps & { name: string }) {
  return (
    <Box display="grid" gap="2px" fontSize="13px" minWidth="0" {...box}>
      <span aria-hidden="true">{name}</span>
      {children}
    </Box>
  );
}
