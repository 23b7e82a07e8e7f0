import { Box, List, VisuallyHidden } from '@chakra-ui/react';
import type { Check } from '@yellow-pin/core/proof/checks/check';
import { useJob } from '../job/job-view.ts';
import { NOTHING, usePick } from '../job/store.ts';
import { LineButton } from '../kit/Chip.tsx';
import { Num } from '../kit/Quiet.tsx';
import { Sign } from '../kit/Remark.tsx';

/** What was found in the shown setup, or in all: each leads to its row and line. */
export function CheckList({ all = false, found }: { all?: boolean; found?: readonly Check[] }) {
  const { checks: told, produced, program, setup } = useJob();
  const checks = found ?? told;
  const pick = usePick((s) => s.pick);
  const own = all ? checks : checks.filter((c) => c.setupId === undefined || c.setupId === setup.id);
  return (
    <List.Root className={all ? 'checks all' : 'checks'} aria-label="Checks" listStyle="none">
      {own.length === 0 && (
        <List.Item color="quiet">
          {!produced?.checks
            ? 'Reading the code back …'
            : program
              ? 'Read back and checked: nothing wrong was found.'
              : 'There is no program to check in this setup.'}
        </List.Item>
      )}
      {own.map((c, i) => (
        <List.Item key={i}>
          <LineButton
            onClick={() =>
              pick({
                ...NOTHING,
                tag: c.tag ?? null,
                line: c.line ?? null,
                ...(c.setupId === undefined ? {} : { setupId: c.setupId }),
              })
            }
          >
            <Sign severity={c.severity} />
            <VisuallyHidden>{c.severity}: </VisuallyHidden>
            <Box as="span">
              {c.message}
              {c.line !== undefined && !/^Line \d/.test(c.message) && <Num color="quiet"> line {c.line}</Num>}
            </Box>
          </LineButton>
        </List.Item>
      ))}
    </List.Root>
  );
}
