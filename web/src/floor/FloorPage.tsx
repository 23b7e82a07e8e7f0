import { Box, Flex, Heading, Skeleton } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { Link } from 'react-router-dom';
import { api } from '../api.ts';
import { Nothing } from '../kit/Nothing.tsx';
import { Notice } from '../kit/Notice.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { FloorShell } from './FloorShell.tsx';

/** All jobs that are released, for who stands at a machine. */
export default function FloorPage() {
  const jobs = useQuery({ queryKey: ['floor'], queryFn: api.floor, refetchInterval: 30_000 });
  useEffect(() => {
    document.title = 'Floor · Yellow Pin';
  }, []);
  return (
    <FloorShell title="On the floor">
      {jobs.isError && <Notice kind="error">{jobs.error.message}</Notice>}
      {jobs.isPending && <Skeleton height="120px" />}
      {jobs.data?.length === 0 && (
        <Nothing title="Nothing is released yet">
          A job stands here once its programmer has proved and released it.
        </Nothing>
      )}
      <Box display="grid" gap="12px">
        {jobs.data?.map((j) => (
          <Box
            key={j.id}
            asChild
            display="block"
            padding="18px 20px"
            background="sheet"
            borderWidth="1.5px"
            borderColor="rule"
            borderRadius="6px"
            _hover={{ borderColor: 'ink' }}
          >
            <Link to={`/floor/${j.id}`}>
              <Flex align="baseline" gap="14px" wrap="wrap">
                <Heading as="h2" fontSize="24px" flex="1">
                  {j.name}
                </Heading>
                <Box fontSize="20px">
                  release <b>{j.number}</b>
                </Box>
              </Flex>
              <Quiet fontSize="18px">
                {j.machine}, {j.setups} {j.setups === 1 ? 'setup' : 'setups'},{' '}
                {new Date(j.createdAt).toLocaleString()}
                {j.author ? `, ${j.author}` : ''}
                {j.remark ? `: ${j.remark}` : ''}
              </Quiet>
            </Link>
          </Box>
        ))}
      </Box>
    </FloorShell>
  );
}
