import { Skeleton, Stack } from '@chakra-ui/react';

/** While a place's own code is on its way. */
export function Loading() {
  return (
    <Stack padding="18px" gap="12px" role="status" aria-label="Loading">
      <Skeleton height="34px" />
      <Skeleton height="220px" />
    </Stack>
  );
}
