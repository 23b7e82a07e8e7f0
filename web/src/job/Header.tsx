import { Box, Button, Flex, Heading, Progress, Text } from '@chakra-ui/react';
import { Redo2, Search, Undo2 } from 'lucide-react';
import { Link, NavLink, useLocation, useNavigate } from 'react-router-dom';
import { useStore } from 'zustand';
import { Attitude } from '../drawings/Attitude.tsx';
import { Chip } from '../kit/Chip.tsx';
import { IconAct } from '../kit/IconAct.tsx';
import { Num, Quiet } from '../kit/Quiet.tsx';
import { Presence } from '../people/Presence.tsx';
import { LookMenu } from '../shell/LookMenu.tsx';
import type { SaveState } from './autosave.ts';
import { useJob } from './job-view.ts';
import { placeAddress, PLACES } from './places.ts';
import { redo, undo, usePick, usePlan } from './store.ts';
import type { Saving } from './use-job.ts';
import { forcedOn } from '../look/recipes.ts';

const SAID: Record<SaveState['state'], string> = {
  saved: 'saved',
  saving: 'saving …',
  unsaved: 'not saved yet',
  stale: 'saved elsewhere',
  refused: 'not saved: refused',
  away: 'not saved: no answer',
};

/** Job, saved or not, undo and redo, setups, coverage, and the job's places. */
export function Header({ saving, place, onSearch }: { saving: Saving; place: string; onSearch(): void }) {
  const { id, open, plan, produced, setup, picture } = useJob();
  const pick = usePick((s) => s.pick);
  const navigate = useNavigate();
  const { search } = useLocation();
  const past = useStore(usePlan.temporal, (s) => s.pastStates.filter((p) => p.plan).length);
  const future = useStore(usePlan.temporal, (s) => s.futureStates.length);
  const { planned, total } = produced?.job.coverage ?? { planned: 0, total: 0 };
  const { name } = open.job;
  return (
    <Flex
      as="header"
      align="center"
      gap="9px"
      paddingInline="12px"
      minHeight="46px"
      borderBottomWidth="1.5px"
      borderColor="ink"
      background="sheet"
      wrap={{ base: 'wrap', lg: 'nowrap' }}
    >
      <Link to="/" aria-label="All jobs" title="All jobs">
        <Box as="span" display="block" width="24px">
          <img src="/pin.svg" alt="" width={24} height={24} />
        </Box>
      </Link>
      <Heading
        as="h1"
        textStyle="heading"
        truncate
        maxWidth={{ base: '110px', lg: '140px', xl: '190px', '2xl': '300px' }}
        title={name}
      >
        {name}
      </Heading>
      <Quiet role="status" textStyle="small" data-testid="save-state" whiteSpace="nowrap">
        {SAID[saving.save.state]}
      </Quiet>
      <Presence jobId={id} />
      <Flex>
        <IconAct label="Undo" hint="Undo (Ctrl Z)" onClick={undo} disabled={past === 0}>
          <Undo2 size={17} />
        </IconAct>
        <IconAct label="Redo" hint="Redo (Ctrl Shift Z)" onClick={redo} disabled={future === 0}>
          <Redo2 size={17} />
        </IconAct>
      </Flex>
      <Flex as="nav" aria-label="Setups" gap="5px" minWidth="0" overflowX="auto" padding="3px" flexShrink={1}>
        {plan.setups.map((s, i) => {
          const isShown = s.id === setup.id;
          return (
            <Chip
              key={s.id}
              on={isShown}
              data-testid="setup-tab"
              borderRadius="3px"
              flexShrink={0}
              title={`Setup ${i + 1}: ${s.name}. Press again to change it.`}
              onClick={() =>
                isShown
                  ? void navigate({ pathname: placeAddress(id, place === 'setup' ? '' : 'setup'), search })
                  : pick({ setupId: s.id, line: null })
              }
            >
              <Attitude attitude={s.attitude} bounds={picture?.bounds ?? null} size={22} />
              {isShown ? `${i + 1} ${s.name}` : i + 1}
            </Chip>
          );
        })}
      </Flex>
      <Flex align="center" gap="7px" marginInlineStart="auto" whiteSpace="nowrap" data-testid="coverage">
        <Num>
          {planned} / {total}
        </Num>
        <Progress.Root
          value={total ? (100 * planned) / total : 0}
          width="52px"
          size="xs"
          hideBelow="2xl"
          aria-label="Features planned"
        >
          <Progress.Track background="trough">
            <Progress.Range background="ink" />
          </Progress.Track>
        </Progress.Root>
        <Quiet textStyle="small" hideBelow="2xl">
          planned
        </Quiet>
      </Flex>
      <Flex as="nav" aria-label="Places of the job" gap="1px">
        {PLACES.map(({ path, name: to, icon: Icon, key }) => (
          <Button
            key={to}
            asChild
            variant="ghost"
            size="xs"
            color="ink"
            paddingInline="6px"
            gap="4px"
            fontSize="13px"
            css={{
              '&[aria-current=page]': {
                boxShadow: 'inset 0 -3px 0 var(--yp-colors-ink)',
                borderRadius: 0,
                ...forcedOn,
              },
            }}
          >
            <NavLink
              to={{ pathname: placeAddress(id, path), search }}
              end
              aria-label={to}
              title={`${to} (${key})`}
            >
              <Icon size={15} aria-hidden="true" />
              <Text as="span" hideBelow="xl">
                {to}
              </Text>
            </NavLink>
          </Button>
        ))}
      </Flex>
      <Flex>
        <IconAct
          label="Search"
          hint="Search rows, tools, checks, places and actions (Ctrl K)"
          onClick={onSearch}
        >
          <Search size={16} />
        </IconAct>
        <LookMenu />
      </Flex>
    </Flex>
  );
}
