import { Box, Flex, Heading } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Link } from 'react-router-dom';
import { WhoIsHere } from '../people/WhoIsHere.tsx';
import { LookMenu } from '../shell/LookMenu.tsx';
import { SkipLink } from '../shell/Page.tsx';

/** A page for the machine: big type, made for a tablet and for hands with gloves on. */
export function FloorShell({ title, children }: { title: string; children: ReactNode }) {
  return (
    <>
      <SkipLink />
      <Flex
        as="header"
        gap="16px"
        align="center"
        paddingInline="20px"
        minHeight="64px"
        background="sheet"
        borderBottomWidth="1.5px"
        borderColor="ink"
      >
        <Link to="/floor" aria-label="All jobs on the floor">
          <img src="/pin.svg" alt="" width={34} height={34} />
        </Link>
        <Heading as="h1" fontSize="26px" flex="1" overflowWrap="anywhere">
          {title}
        </Heading>
        <WhoIsHere />
        <LookMenu />
      </Flex>
      <Box
        as="main"
        id="chakra-skip-nav"
        tabIndex={-1}
        padding="20px"
        maxWidth="1200px"
        marginInline="auto"
        fontSize="19px"
        lineHeight="1.45"
        css={{ '& .listing, & .listing *': { fontSize: '18px' } }}
      >
        {children}
      </Box>
    </>
  );
}
