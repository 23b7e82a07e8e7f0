import { Text } from '@chakra-ui/react';

/** Why what stands in a field will not do. */
export function FieldSays({ id, children }: { id?: string; children: string }) {
  return (
    <Text as="span" id={id} role="alert" display="block" color="error" textStyle="small" whiteSpace="normal">
      {children}
    </Text>
  );
}
