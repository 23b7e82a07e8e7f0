import { Box, Button, Flex, Progress, Text } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { useEffect, type ReactNode } from 'react';
import { Link, useNavigate, useParams } from 'react-router-dom';
import { api } from '../api.ts';
import { ReadAgain } from '../jobs/ReadAgain.tsx';
import { Page } from '../shell/Page.tsx';
import { Compare } from './Compare.tsx';

/** A newer file of the part beside the one the job has: what is new, gone, moved and resized, and what becomes of the plan. */
export default function RevisionPage() {
  const { id = '' } = useParams();
  const open = useQuery({ queryKey: ['job', id, 'compare'], queryFn: () => api.job(id), gcTime: 0 });
  const number = open.data?.pending?.revision ?? null;
  const part = useQuery({
    queryKey: ['job', id, 'revision', number],
    queryFn: () => api.revision(id, number!),
    enabled: number !== null,
    refetchInterval: (q) => (q.state.data?.status === 'reading' ? 600 : false),
  });
  useEffect(() => {
    document.title = 'Newer file · Yellow Pin';
  }, []);
  const failure = open.error ?? part.error;
  if (failure || part.data?.status === 'failed') {
    return (
      <Waiting id={id} revision={number}>
        <p role="alert">{failure?.message ?? part.data?.error}</p>
        {!failure && number !== null && <ReadAgain id={id} revision={number} />}
      </Waiting>
    );
  }
  if (open.data && number === null) {
    return (
      <Waiting id={id} revision={null}>
        <p>No newer file waits to be compared. Drop one on the job, or open one in its setup.</p>
      </Waiting>
    );
  }
  if (!open.data?.plan || !part.data || part.data.status === 'reading') {
    return (
      <Waiting id={id} revision={number}>
        <Progress.Root
          value={Math.max(4, (part.data?.progress ?? 0) * 100)}
          aria-label="Reading the newer file"
          maxWidth="320px"
        >
          <Text role="status">Reading the newer file: {part.data?.progressText || 'waiting'} …</Text>
          <Progress.Track background="trough">
            <Progress.Range background="ink" />
          </Progress.Track>
        </Progress.Root>
      </Waiting>
    );
  }
  return <Compare open={open.data} plan={open.data.plan} part={part.data} />;
}

function Waiting({ id, revision, children }: { id: string; revision: number | null; children: ReactNode }) {
  const navigate = useNavigate();
  return (
    <Page title="Newer file of the part">
      <Box>{children}</Box>
      <Flex gap="10px" marginTop="12px">
        <Button asChild>
          <Link to={`/jobs/${id}`}>Back to the job</Link>
        </Button>
        {revision !== null && (
          <Button onClick={() => void api.discardRevision(id, revision).then(() => navigate(`/jobs/${id}`))}>
            Leave the newer file
          </Button>
        )}
      </Flex>
    </Page>
  );
}
