import { Box, Flex, Heading, SkipNavLink } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Link, NavLink } from 'react-router-dom';
import { WhoIsHere } from '../people/WhoIsHere.tsx';
import { LookMenu } from './LookMenu.tsx';
import { forcedOn } from '../look/recipes.ts';

interface Props {
  title: ReactNode;
  children: ReactNode;
  /** Beside the title, at its end. */
  actions?: ReactNode;
  /** As wide as the window: for places with something to look into. */
  isWide?: boolean;
}

const PLACES = [
  ['/', 'Jobs'],
  ['/shop', 'Shop'],
  ['/floor', 'Floor'],
] as const;

/** Jumps over what every page begins with. */
export const SkipLink = () => (
  <SkipNavLink background="ink" color="sheet" zIndex="100">
    Skip to the content
  </SkipNavLink>
);

/** A page outside any job: the way to the others above, its own title, its content. */
export function Page({ title, children, actions, isWide = false }: Props) {
  return (
    <>
      <SkipLink />
      <Flex
        as="header"
        gap="14px"
        align="center"
        paddingInline="18px"
        minHeight="46px"
        background="sheet"
        borderBottomWidth="1.5px"
        borderColor="ink"
      >
        <Link to="/" aria-label="Yellow Pin: all jobs">
          <Flex gap="8px" align="center" fontWeight="700">
            <img src="/pin.svg" alt="" width={24} height={24} /> Yellow Pin
          </Flex>
        </Link>
        <Flex as="nav" aria-label="Places" gap="4px" marginInlineStart="10px">
          {PLACES.map(([to, name]) => (
            <Box
              key={to}
              asChild
              paddingInline="10px"
              paddingBlock="4px"
              borderRadius="4px"
              _hover={{ background: 'hover' }}
              css={{
                '&[aria-current=page]': { boxShadow: 'inset 0 -2px 0 var(--yp-colors-ink)', ...forcedOn },
              }}
            >
              <NavLink to={to} end={to === '/'}>
                {name}
              </NavLink>
            </Box>
          ))}
        </Flex>
        <Flex marginInlineStart="auto" align="center" gap="8px">
          <WhoIsHere />
          <LookMenu />
        </Flex>
      </Flex>
      <Box
        as="main"
        id="chakra-skip-nav"
        tabIndex={-1}
        maxWidth={isWide ? '1560px' : '1120px'}
        marginInline="auto"
        padding="20px 24px 60px"
      >
        <Flex align="center" gap="12px" wrap="wrap" marginBottom="14px">
          <Heading as="h1" textStyle="title" flex="1" minWidth="200px" overflowWrap="anywhere">
            {title}
          </Heading>
          {actions}
        </Flex>
        {children}
      </Box>
    </>
  );
}
