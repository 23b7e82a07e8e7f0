import { Box, Button, Flex } from '@chakra-ui/react';
import { CircleDashed } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { Row } from '@yellow-pin/core/job/derive';
import type { NotMade } from '@yellow-pin/core/job/row';
import { toolInWords } from '@yellow-pin/core/tools/find';
import { formatLength } from '@yellow-pin/core/units/length';
import { LineButton } from '../kit/Chip.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { AddTool } from '../tools/AddTool.tsx';
import { useJob } from './job-view.ts';
import { Strip } from './Strip.tsx';
import { LeaveOut } from './LeaveOut.tsx';
import { NOTHING, usePick } from './store.ts';
import { AddSetupFor } from './AddSetupFor.tsx';

const ORDER: readonly NotMade[] = ['to decide', 'no tool', 'out of reach', 'no method yet'];
/** Tags that are named one by one before the rest is counted. */
const NAMED = 6;

/** What is not made, in one line: why, which rows, and the one thing that leads on for each reason. */
export function NotMadeLine() {
  const { rows } = useJob();
  const groups = useMemo(
    () =>
      ORDER.flatMap((why) => {
        const of = rows.filter((r) => r.notMade === why);
        return of.length > 0 ? [{ why, of }] : [];
      }),
    [rows],
  );
  if (groups.length === 0) return null;
  return (
    <Strip name="Not made">
      <Flex gap="5px" align="center">
        <CircleDashed size={15} aria-hidden="true" /> not made:
      </Flex>
      {groups.map(({ why, of }) => (
        <Flex key={why} gap="6px" align="center">
          <span>{why}</span>
          <Tags rows={of} />
          <WayOn why={why} rows={of} />
        </Flex>
      ))}
    </Strip>
  );
}

function Tags({ rows }: { rows: Row[] }) {
  const pick = usePick((s) => s.pick);
  return (
    <Flex gap="2px" align="center">
      {rows.slice(0, NAMED).map((r) => (
        <LineButton
          key={r.tag}
          width="auto"
          minWidth="24px"
          justifyContent="center"
          paddingInline="4px"
          fontWeight="700"
          fontFamily="mono"
          aria-label={`Row ${r.tag}`}
          title={r.reasons[0]}
          onClick={() => pick({ ...NOTHING, tag: r.tag })}
        >
          {r.tag}
        </LineButton>
      ))}
      {rows.length > NAMED && <Quiet>and {rows.length - NAMED} more</Quiet>}
    </Flex>
  );
}

/** The one action that leads on from a reason. */
function WayOn({ why, rows }: { why: NotMade; rows: Row[] }) {
  const { plan } = useJob();
  const pick = usePick((s) => s.pick);
  const [adding, setAdding] = useState(false);
  if (why === 'no tool') {
    const need = rows.flatMap((r) => r.wants)[0]!;
    const say = (mm: number): string => formatLength(mm, plan.units);
    return (
      <>
        <Button size="2xs" onClick={() => setAdding(true)}>
          Add the {toolInWords(need, say)}
        </Button>
        {adding && <AddTool need={need} onDone={() => setAdding(false)} />}
      </>
    );
  }
  if (why === 'out of reach') return <AddSetupFor rows={rows} />;
  if (why === 'no method yet')
    return (
      <LeaveOut
        keys={rows.map((r) => r.size.key)}
        label={rows.length > 1 ? 'Leave them out …' : 'Leave it out …'}
      />
    );
  return (
    <Box asChild>
      <Button size="2xs" onClick={() => pick({ ...NOTHING, tag: rows[0]!.tag })}>
        Look at {rows[0]!.tag}
      </Button>
    </Box>
  );
}
