import { Box, Button, Flex, Heading } from '@chakra-ui/react';
import { Link, useLocation } from 'react-router-dom';
import { useJob } from '../job/job-view.ts';
import { placeAddress } from '../job/places.ts';
import { CheckList } from './CheckList.tsx';
import { verdict } from './verdict.ts';

/** May this be sent? One line that says so, and everything that was found. */
export default function ProvePlace() {
  const { id, produced } = useJob();
  const { search } = useLocation();
  const said = produced && verdict(produced);
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
      <CheckList all />
    </Box>
  );
}
