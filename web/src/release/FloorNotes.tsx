import { Box, Checkbox, Heading } from '@chakra-ui/react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, type FloorNote } from '../api.ts';
import { FieldSays } from '../kit/FieldSays.tsx';
import { Quiet } from '../kit/Quiet.tsx';

/** What came back from the machine, to be seen to. */
export function FloorNotes({ jobId }: { jobId: string }) {
  const client = useQueryClient();
  const notes = useQuery({
    queryKey: ['notes', jobId],
    queryFn: () => api.notes(jobId),
    refetchInterval: 30_000,
  });
  const settle = useMutation({
    mutationFn: ({ id, isDone }: { id: string; isDone: boolean }) => api.settleNote(jobId, id, isDone),
    onSettled: () => client.invalidateQueries({ queryKey: ['notes', jobId] }),
  });
  if (!notes.data || notes.data.length === 0) return null;
  return (
    <section aria-label="Notes from the floor">
      <Heading as="h3" textStyle="heading" marginTop="18px" marginBottom="4px">
        Notes from the floor
      </Heading>
      {settle.isError && <FieldSays>{settle.error.message}</FieldSays>}
      {notes.data.map((n) => (
        <Box key={n.id} paddingBlock="5px" borderTopWidth="1px" borderColor="rule">
          <Checkbox.Root
            size="sm"
            checked={n.doneAt !== null}
            onCheckedChange={(d) => settle.mutate({ id: n.id, isDone: d.checked === true })}
          >
            <Checkbox.HiddenInput />
            <Checkbox.Control />
            <Checkbox.Label fontWeight="400" textDecoration={n.doneAt ? 'line-through' : undefined}>
              {n.text}
            </Checkbox.Label>
          </Checkbox.Root>
          <Quiet display="block" fontSize="12px">
            {whereOf(n)}
          </Quiet>
        </Box>
      ))}
    </section>
  );
}

/** Who wrote a note, when, and of which release and setup. */
export const whereOf = (n: FloorNote): string =>
  [
    n.author ?? 'not signed',
    new Date(n.createdAt).toLocaleString(),
    n.release === null ? null : `release ${n.release}`,
    n.setup,
    n.doneAt === null ? null : `seen to${n.doneBy ? ` by ${n.doneBy}` : ''}`,
  ]
    .filter((w) => w !== null)
    .join(' · ');
