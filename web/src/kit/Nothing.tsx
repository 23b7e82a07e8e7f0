import { EmptyState, type EmptyStateRootProps } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** Where there is nothing to show: what that means, and the way on. */
export function Nothing({
  title,
  children,
  ...root
}: Omit<EmptyStateRootProps, 'title'> & { title: string; children?: ReactNode }) {
  return (
    <EmptyState.Root size="sm" {...root}>
      <EmptyState.Content>
        <EmptyState.Title asChild>
          <h2>{title}</h2>
        </EmptyState.Title>
        <EmptyState.Description color="quiet">{children}</EmptyState.Description>
      </EmptyState.Content>
    </EmptyState.Root>
  );
}
