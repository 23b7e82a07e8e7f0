import { Box, Button, Heading, Textarea } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Send } from 'lucide-react';
import { useState } from 'react';
import { api, type FloorNote } from '../api.ts';
import { FieldSays } from '../kit/FieldSays.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { whereOf } from '../release/FloorNotes.tsx';

interface Props {
  jobId: string;
  release: number;
  setup: string | null;
  notes: readonly FloorNote[];
}

/** What the operator tells the programmer, and what was told before. */
export function NoteForm({ jobId, release, setup, notes }: Props) {
  const client = useQueryClient();
  const [text, setText] = useState('');
  const add = useMutation({
    mutationFn: () => api.addNote(jobId, { text, setup, release }),
    onSuccess: () => setText(''),
    onSettled: () => client.invalidateQueries({ queryKey: ['floor', jobId] }),
  });
  return (
    <section aria-label="Notes to the programmer">
      <Heading as="h2" fontSize="22px" marginTop="24px" marginBottom="6px">
        Notes to the programmer
      </Heading>
      <Textarea
        aria-label="note"
        rows={3}
        fontSize="19px"
        background="field"
        borderColor="rule"
        maxLength={2000}
        placeholder="What the next one should know"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      {add.isError && <FieldSays>{add.error.message}</FieldSays>}
      <Button
        size="xl"
        variant="solid"
        marginTop="10px"
        disabled={text.trim() === ''}
        loading={add.isPending}
        onClick={() => add.mutate()}
      >
        <Send size={20} /> Send the note
      </Button>
      {notes.map((n) => (
        <Box key={n.id} marginTop="12px" paddingTop="8px" borderTopWidth="1px" borderColor="rule">
          <Box textDecoration={n.doneAt ? 'line-through' : undefined}>{n.text}</Box>
          <Quiet fontSize="16px">{whereOf(n)}</Quiet>
        </Box>
      ))}
    </section>
  );
}
