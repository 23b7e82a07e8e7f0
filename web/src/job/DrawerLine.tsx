import { Button, Flex } from '@chakra-ui/react';
import { Archive } from 'lucide-react';
import { useMemo } from 'react';
import { dropTools, fromDrawer, idleTools, loadTools } from '@yellow-pin/core/job/magazine';
import { Quiet } from '../kit/Quiet.tsx';
import { useJob } from './job-view.ts';
import { Strip } from './Strip.tsx';
import { changePlan } from './store.ts';

/** Tools that are named one by one before the rest is counted. */
const NAMED = 3;

/** Tools that this job needs from the drawer, put into the magazine in one action; and those put in that nothing uses any more. */
export function DrawerLine() {
  const { produced, plan, library } = useJob();
  const job = produced?.job;
  const wanted = useMemo(() => (job ? fromDrawer(job) : []), [job]);
  const idle = useMemo(() => (job ? idleTools(plan, library, job) : []), [job, plan, library]);
  if (!job || (wanted.length === 0 && idle.length === 0)) return null;
  const places = job.machine.magazineSize;
  const { change, left } = loadTools(plan, library, wanted, places);
  const names = (tools: { description: string }[]): string =>
    tools
      .slice(0, NAMED)
      .map((t) => t.description)
      .join(', ') + (tools.length > NAMED ? ` and ${tools.length - NAMED} more` : '');
  return (
    <Strip name="From the drawer">
      <Archive size={15} aria-hidden="true" />
      {wanted.length > 0 && (
        <Flex gap="8px" align="center" wrap="wrap">
          <span>from the drawer: {names(wanted)}</span>
          {left.length < wanted.length && (
            <Button size="2xs" onClick={() => changePlan(change)}>
              Give {wanted.length - left.length === 1 ? 'it a free number' : 'them free numbers'}
            </Button>
          )}
          {left.length > 0 && (
            <Quiet>
              The magazine's {places} places are full: {names(left)} find none. Take something out on the
              shop's tool screen.
            </Quiet>
          )}
        </Flex>
      )}
      {idle.length > 0 && (
        <Flex gap="8px" align="center" wrap="wrap">
          <span>not used: {names(idle)}</span>
          <Button size="2xs" onClick={() => changePlan(dropTools(plan, idle))}>
            Take {idle.length === 1 ? 'it' : 'them'} out
          </Button>
        </Flex>
      )}
    </Strip>
  );
}
