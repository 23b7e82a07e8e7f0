import { Box, Code, Heading, List } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import type { FileChange } from '@yellow-pin/core/release/difference';
import { api } from '../api.ts';
import { FieldSays } from '../kit/FieldSays.tsx';
import { Quiet } from '../kit/Quiet.tsx';

interface Props {
  jobId: string;
  newer: number;
  older: number;
}

/** What one release has otherwise than another: the plan in words, the code by its lines, findings. */
export function Difference({ jobId, newer, older }: Props) {
  const { data, error } = useQuery({
    queryKey: ['difference', jobId, newer, older],
    queryFn: () => api.releaseDifference(jobId, newer, older),
    staleTime: Infinity,
  });
  if (error) return <FieldSays>{error.message}</FieldSays>;
  if (!data) return <Quiet role="status">Comparing …</Quiet>;
  const { plan, files, findings } = data;
  if (plan.length + files.length + findings.gone.length + findings.come.length === 0)
    return <Quiet>Nothing: plan, code and findings are the same.</Quiet>;
  return (
    <Box display="grid" gap="10px" data-testid="difference">
      <Lines name="Plan" lines={plan} />
      {files.map((f) => (
        <CodeChange key={f.name} file={f} />
      ))}
      <Lines name="Findings that are gone" lines={findings.gone} />
      <Lines name="Findings that came" lines={findings.come} />
    </Box>
  );
}

function Lines({ name, lines }: { name: string; lines: readonly string[] }) {
  if (lines.length === 0) return null;
  return (
    <section aria-label={name}>
      <Heading as="h4" fontSize="14px">
        {name}
      </Heading>
      <List.Root paddingInlineStart="18px" fontSize="14px">
        {lines.map((l) => (
          <List.Item key={l}>{l}</List.Item>
        ))}
      </List.Root>
    </section>
  );
}

/** Lines that were, struck out, and those that are. */
function CodeChange({ file }: { file: FileChange }) {
  return (
    <section aria-label={file.name}>
      <Heading as="h4" fontSize="14px">
        {file.name}
      </Heading>
      <Box
        borderWidth="1px"
        borderColor="rule"
        background="field"
        maxHeight="320px"
        overflow="auto"
        tabIndex={0}
        role="region"
        aria-label={`lines of ${file.name}`}
      >
        {file.hunks.map((h) => (
          <Box key={h.line} borderTopWidth="1px" borderColor="rule" paddingBlock="3px" paddingInline="8px">
            <Quiet fontSize="11px">line {h.line}</Quiet>
            {h.before.map((l, i) => (
              <Code key={`b${i}`} display="block" background="transparent" color="quiet" whiteSpace="pre">
                − <del>{l}</del>
              </Code>
            ))}
            {h.after.map((l, i) => (
              <Code key={`a${i}`} display="block" background="hand" color="ink" whiteSpace="pre">
                + {l}
              </Code>
            ))}
          </Box>
        ))}
      </Box>
    </section>
  );
}
