import { Box, Button, Flex, List, VisuallyHidden } from '@chakra-ui/react';
import { useState } from 'react';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import type { Check } from '@yellow-pin/core/proof/checks/check';
import { acceptanceOf, isAcceptable, without } from '@yellow-pin/core/proof/accepted';
import { useJob } from '../job/job-view.ts';
import { changePlan, NOTHING, usePick, usePlan } from '../job/store.ts';
import { placeOfLine } from '../workers/motion-pack.ts';
import { LineButton } from '../kit/Chip.tsx';
import { Num } from '../kit/Quiet.tsx';
import { Sign } from '../kit/Remark.tsx';
import { TextField } from '../kit/TextField.tsx';

/** One finding: it leads to its row and line, and may be accepted with a reason that is kept and printed. */
export function FindingLine({ check: c }: { check: Check }) {
  const { produced } = useJob();
  const pick = usePick((s) => s.pick);
  const accepted = usePlan((s) => s.plan?.accepted) ?? [];
  const [isAsked, setAsked] = useState(false);
  const lineAt = ({ line, setupId }: Check): Vec3 | null => {
    const program = produced?.programs.find((p) => p.setup.setup.id === setupId);
    if (!program?.proof || line === undefined) return null;
    return placeOfLine(program.proof.motion, line, program.setup.frame.frame.z);
  };
  const take = (text: string): string | null => {
    const reason = text.trim();
    if (reason.length < 3) return 'Say why it may stay as it is.';
    changePlan({ accepted: [...without(accepted, c), acceptanceOf(c, reason)] });
    setAsked(false);
    return null;
  };
  return (
    <List.Item>
      <Flex align="flex-start" gap="4px">
        <LineButton
          flex="1"
          onClick={() =>
            pick({
              ...NOTHING,
              tag: c.tag ?? null,
              line: c.line ?? null,
              place: c.at ?? lineAt(c),
              ...(c.setupId === undefined ? {} : { setupId: c.setupId }),
            })
          }
        >
          <Sign severity={c.severity} />
          <VisuallyHidden>{c.severity}: </VisuallyHidden>
          <Box as="span">
            {c.message}
            {c.line !== undefined && !/^[Ll]ine \d/.test(c.message) && (
              <Num color="quiet"> line {c.line}</Num>
            )}
            {c.accepted !== undefined && <b> Accepted: {c.accepted}</b>}
          </Box>
        </LineButton>
        {c.accepted !== undefined ? (
          <Button size="2xs" variant="ghost" onClick={() => changePlan({ accepted: without(accepted, c) })}>
            take back
          </Button>
        ) : (
          isAcceptable(c) && (
            <Button size="2xs" variant="ghost" aria-expanded={isAsked} onClick={() => setAsked(!isAsked)}>
              accept …
            </Button>
          )
        )}
      </Flex>
      {isAsked && (
        <Box padding="2px 0 6px 24px">
          <TextField
            size="xs"
            autoFocus
            value=""
            label={`Why this may stay: ${c.message}`}
            placeholder="why it may stay as it is"
            onTake={take}
            onDone={() => setAsked(false)}
          />
        </Box>
      )}
    </List.Item>
  );
}
