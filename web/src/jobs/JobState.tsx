import { Button, Flex, Progress, Text } from '@chakra-ui/react';
import type { ListedJob } from '../api.ts';
import { Num, Quiet } from '../kit/Quiet.tsx';
import { ReadAgain } from './ReadAgain.tsx';

const PROOF: Record<NonNullable<ListedJob['proof']>, [sign: string, words: string]> = {
  nothing: ['○', 'no program yet'],
  open: ['◌', 'open'],
  wrong: ['■', 'wrong: not to be sent'],
  proved: ['✓', 'proved'],
};

/** How far a job is: being read, not readable, or so many features planned and what proving said. */
export function JobState({ job, onCancel }: { job: ListedJob; onCancel(): void }) {
  if (job.status === 'reading') {
    return (
      <Flex gap="8px" align="center">
        <Progress.Root
          value={Math.max(4, 100 * job.progress)}
          size="sm"
          width="110px"
          aria-label={`Reading ${job.name}`}
        >
          <Progress.Track background="trough">
            <Progress.Range background="ink" />
          </Progress.Track>
        </Progress.Root>
        <Quiet textStyle="small">{job.progressText}</Quiet>
        <Button size="2xs" onClick={onCancel}>
          Cancel
        </Button>
      </Flex>
    );
  }
  if (job.status !== 'ready') {
    return (
      <Flex gap="8px" align="center" wrap="wrap">
        <Text color={job.status === 'failed' ? 'error' : 'quiet'} minWidth="0" overflowWrap="anywhere">
          {job.error ?? job.status}
        </Text>
        {job.deletedAt === null && <ReadAgain id={job.id} name={job.name} />}
      </Flex>
    );
  }
  // Nobody has opened it since it was read: nothing was worked out yet.
  if (job.planned === null || job.proof === null) return <Text>ready</Text>;
  const [sign, words] = PROOF[job.proof];
  return (
    <Flex gap="8px" align="baseline">
      <Num>
        {job.planned} / {job.total}
      </Num>
      <Text color={job.proof === 'wrong' ? 'error' : 'ink'}>
        <span aria-hidden="true">{sign}</span> {words}
      </Text>
    </Flex>
  );
}
