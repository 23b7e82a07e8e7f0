import { Button, Flex, Progress, Text } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Link } from 'react-router-dom';
import type { Job } from '../api.ts';
import { Page } from '../shell/Page.tsx';
import { ReadAgain } from './ReadAgain.tsx';

/** In the place of a job that is still read, or could not be: what is known of it, and the way on. */
export function NotReady({
  job,
  title,
  children,
}: {
  job: Job | null;
  title?: string;
  children?: ReactNode;
}) {
  const isOver = job?.status === 'failed' || job?.status === 'cancelled';
  return (
    <Page title={title ?? job?.name ?? 'Opening the job …'}>
      {children ??
        (isOver ? (
          <p role="alert">{job.error}</p>
        ) : (
          job?.status === 'reading' && (
            <Progress.Root
              value={Math.max(4, job.progress * 100)}
              maxWidth="320px"
              aria-label={`Reading ${job.name}`}
            >
              <Text role="status">
                Reading {job.fileName}: {job.progressText}
              </Text>
              <Progress.Track background="trough">
                <Progress.Range background="ink" />
              </Progress.Track>
            </Progress.Root>
          )
        ))}
      {!children && (
        <Flex gap="10px" marginTop="12px">
          {isOver && <ReadAgain id={job.id} />}
          <Button asChild>
            <Link to="/">All jobs</Link>
          </Button>
        </Flex>
      )}
    </Page>
  );
}
