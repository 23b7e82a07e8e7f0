import { Box, Button } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api } from '../api.ts';
import { FieldSays } from '../kit/FieldSays.tsx';

interface Props {
  id: string;
  revision?: number | null;
  /** Said to those who do not see which row the button stands in. */
  name?: string;
}

/** Has a part read once more whose reading failed or was cancelled: of a job, or of a newer file of it. */
export function ReadAgain({ id, revision = null, name }: Props) {
  const client = useQueryClient();
  const retry = useMutation({
    mutationFn: (): Promise<unknown> => (revision === null ? api.retry(id) : api.retryRevision(id, revision)),
    onSuccess: () =>
      Promise.all([
        client.invalidateQueries({ queryKey: ['job', id] }),
        client.invalidateQueries({ queryKey: ['jobs'] }),
      ]),
  });
  return (
    <Box as="span">
      <Button
        size="xs"
        aria-label={name === undefined ? undefined : `Read ${name} again`}
        disabled={retry.isPending}
        onClick={() => retry.mutate()}
      >
        Read again
      </Button>
      {retry.isError && <FieldSays>{retry.error.message}</FieldSays>}
    </Box>
  );
}
