import { Flex } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** A line under the header that says something of the whole job, with its way on. */
export const Strip = ({ name, children }: { name: string; children: ReactNode }) => (
  <Flex
    as="section"
    aria-label={name}
    gap="5px 16px"
    wrap="wrap"
    align="center"
    paddingInline="12px"
    paddingBlock="3px"
    background="sheet"
    borderBottomWidth="1px"
    borderColor="rule"
    fontSize="13px"
  >
    {children}
  </Flex>
);
