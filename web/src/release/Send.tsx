import { Box, Button, Flex, Heading, List } from '@chakra-ui/react';
import { useMutation } from '@tanstack/react-query';
import { Cable } from 'lucide-react';
import { api } from '../api.ts';
import { FieldSays } from '../kit/FieldSays.tsx';
import { Num, Quiet } from '../kit/Quiet.tsx';

/** Sends a release over the line to the machine and compares what comes back. A stand-in on this computer plays the machine. */
export function Send({ jobId, number }: { jobId: string; number: number }) {
  const send = useMutation({ mutationFn: () => api.sendRelease(jobId, number) });
  return (
    <Box as="section" aria-label="To the machine" marginTop="18px">
      <Heading as="h3" textStyle="heading" marginBottom="4px">
        To the machine
      </Heading>
      <Flex gap="10px" align="center" wrap="wrap">
        <Button size="sm" loading={send.isPending} onClick={() => send.mutate()}>
          <Cable size={15} /> Send release {number}
        </Button>
        <Quiet fontSize="13px">
          Over a line to a simulated machine on the server’s own computer; each file is read back and
          compared.
        </Quiet>
      </Flex>
      {send.isError && <FieldSays>{send.error.message}</FieldSays>}
      {send.data && (
        <Box role="status">
          <List.Root listStyle="none" marginTop="6px">
            {send.data.map((f) => (
              <List.Item key={f.name} color={f.differs === null ? undefined : 'error'}>
                {f.differs === null ? '✓' : '■'} <Num>{f.name}</Num>, {f.lines} lines:{' '}
                {f.differs === null
                  ? 'came back as it was sent'
                  : `line ${f.differs} came back otherwise. Do not run it; send it again.`}
              </List.Item>
            ))}
          </List.Root>
        </Box>
      )}
    </Box>
  );
}
