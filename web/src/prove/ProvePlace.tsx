import { Box, Button, Flex, Heading } from '@chakra-ui/react';
import { Link, useLocation } from 'react-router-dom';
import { useJob } from '../job/job-view.ts';
import { placeAddress } from '../job/places.ts';
import { lazy, Suspense } from 'react';
import { CheckList } from './CheckList.tsx';
import { MetalSays } from './MetalSays.tsx';
import { PlayBar } from './PlayBar.tsx';
import { usePlayer } from './use-player.ts';
import { ViewChoices } from './ViewChoices.tsx';
import { verdict } from './verdict.ts';

// The charts' package is large: the rest is there before it.
const TimeChart = lazy(() => import('./TimeChart.tsx'));

/** May this be sent? One line that says so, and everything that was found. */
export default function ProvePlace() {
  const { id, produced, checks, metal } = useJob();
  const { search } = useLocation();
  usePlayer();
  const said = produced && verdict({ ...produced, checks: produced.checks && checks }, metal);
  return (
    <Box as="section" className="sheet" aria-label="Prove-out">
      <Box padding="12px 14px" borderBottomWidth="1px" borderColor="rule">
        <Heading as="h2" textStyle="heading" color={said?.state === 'wrong' ? 'error' : 'ink'}>
          {said ? said.text : 'Reading the code back …'}
        </Heading>
        <Flex gap="6px" marginTop="8px">
          <Button asChild size="xs">
            <Link to={{ pathname: placeAddress(id, 'code'), search }}>Code</Link>
          </Button>
          <Button asChild size="xs">
            <Link to={{ pathname: placeAddress(id, 'sheet'), search }}>Sheet</Link>
          </Button>
        </Flex>
      </Box>
      <PlayBar />
      <Box flex="1" minHeight="0" overflowY="auto" tabIndex={0} role="group" aria-label="What was found">
        <ViewChoices />
        <MetalSays />
        <CheckList all />
        <Suspense fallback={null}>
          <TimeChart />
        </Suspense>
      </Box>
    </Box>
  );
}
