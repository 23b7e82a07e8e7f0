import { Box, Button, Flex, List } from '@chakra-ui/react';
import type { MachineProfile } from '@yellow-pin/core/code/profiles/schema';
import type { WrittenSetup } from '@yellow-pin/core/job/produce';
import { usePick } from '../job/store.ts';
import { LineButton } from '../kit/Chip.tsx';
import { Num, Quiet } from '../kit/Quiet.tsx';
import { letGo, takeAllBack, takeEditBack } from './edits.ts';

/** The edits by hand on the shown program: what was posted, what stands there, and the way back. */
export function EditList({ program, machine }: { program: WrittenSetup; machine: MachineProfile }) {
  const pick = usePick((s) => s.pick);
  const { taken, unfit } = program;
  if (taken.length === 0 && unfit.length === 0) return null;
  return (
    <Box
      role="group"
      aria-label="Edits by hand"
      borderTopWidth="1.5px"
      borderColor="ink"
      padding="6px 12px"
      maxHeight="150px"
      overflowY="auto"
      tabIndex={0}
    >
      <Flex justify="space-between" align="center">
        <Quiet textStyle="small">By hand, on top of what the plan posts</Quiet>
        <Button size="2xs" variant="ghost" onClick={() => takeAllBack(program)}>
          take all back
        </Button>
      </Flex>
      <List.Root listStyle="none">
        {taken.map((e) => (
          <List.Item key={`${e.firstLine}/${e.lastLine}`}>
            <Flex align="flex-start" gap="4px">
              <LineButton flex="1" onClick={() => pick({ line: e.firstLine })}>
                <Num color="quiet">{e.firstLine}</Num> <Change {...e} />
              </LineButton>
              <Button size="2xs" variant="ghost" onClick={() => takeEditBack(e, program, machine)}>
                take back
              </Button>
            </Flex>
          </List.Item>
        ))}
        {unfit.map((e) => (
          <List.Item key={e.at.join('/')}>
            <Flex align="flex-start" gap="4px">
              <LineButton flex="1" onClick={() => pick({ line: e.near })}>
                <Num color="error">{e.near} does not fit:</Num> <Change {...e} />
              </LineButton>
              <Button size="2xs" variant="ghost" onClick={() => letGo(e, program)}>
                let it go
              </Button>
            </Flex>
          </List.Item>
        ))}
      </List.Root>
    </Box>
  );
}

const MOST = 3;

/** Lines as they were posted, struck out, and what stands in their place. */
function Change({ before, after }: { before: readonly string[]; after: readonly string[] }) {
  return (
    <Box as="span" fontFamily="mono" fontSize="12.5px">
      {before.length > 0 && (
        <Box as="del" color="quiet">
          {short(before)}
        </Box>
      )}{' '}
      {after.length > 0 ? (
        <Box as="ins" textDecoration="none">
          {short(after)}
        </Box>
      ) : (
        <Box as="span" color="quiet">
          taken out
        </Box>
      )}
    </Box>
  );
}

const short = (lines: readonly string[]): string =>
  `${lines.slice(0, MOST).join(' / ')}${lines.length > MOST ? ` … ${lines.length} lines` : ''}`;
