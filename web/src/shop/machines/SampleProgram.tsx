import { Box, Code, Flex, Heading } from '@chakra-ui/react';
import { useMemo } from 'react';
import type { MachineProfile } from '@yellow-pin/core/code/profiles/schema';
import { clockTime } from '@yellow-pin/core/units/time';
import { FieldSays } from '../../kit/FieldSays.tsx';
import { Quiet } from '../../kit/Quiet.tsx';
import { sampleCode } from './sample-code.ts';

/** A short program as the profile writes it, with what it changes marked, and what reading it back came to. */
export function SampleProgram({
  profile,
  stored,
}: {
  profile: MachineProfile;
  stored: MachineProfile | null;
}) {
  const { lines, changed, holes, seconds, problems } = useMemo(
    () => sampleCode(profile, stored),
    [profile, stored],
  );
  return (
    <Box as="section" aria-label="Sample program" position="sticky" top="10px" minWidth="0">
      <Flex align="baseline" gap="10px" marginBottom="4px">
        <Heading as="h2" fontSize="14px">
          Sample program
        </Heading>
        <Quiet fontSize="12px" role="status">
          {problems.length === 0
            ? `read back: ${holes} holes, ${clockTime(seconds)}, all understood`
            : `read back: ${problems.length} not understood`}
        </Quiet>
      </Flex>
      {problems.map((p) => (
        <FieldSays key={p}>{p}</FieldSays>
      ))}
      <Box
        tabIndex={0}
        role="region"
        aria-label="code"
        overflow="auto"
        maxHeight="calc(100vh - 190px)"
        borderWidth="1px"
        borderColor="rule"
        background="field"
        paddingBlock="6px"
      >
        {lines.map((line, i) => (
          <Code
            key={i}
            display="block"
            whiteSpace="pre"
            background={changed.has(i) ? 'hand' : 'transparent'}
            borderInlineStartWidth="3px"
            borderColor={changed.has(i) ? 'yellow' : 'transparent'}
            borderRadius="0"
            color={/^[(;]/.test(line) ? 'quiet' : 'ink'}
            fontFamily="mono"
            fontSize="12.5px"
            lineHeight="1.45"
            paddingInline="8px"
            data-changed={changed.has(i) || undefined}
          >
            {line === '' ? ' ' : line}
          </Code>
        ))}
      </Box>
    </Box>
  );
}
