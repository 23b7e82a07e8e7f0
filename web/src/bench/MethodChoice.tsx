import { Flex } from '@chakra-ui/react';
import type { Row } from '@yellow-pin/core/job/derive';
import { useJob } from '../job/job-view.ts';
import { decide } from '../job/store.ts';
import { Choice } from '../kit/Choice.tsx';
import { Quiet } from '../kit/Quiet.tsx';

/** Which method makes a row: the best that can be done, or one that is chosen. */
export function MethodChoice({ row }: { row: Row }) {
  const { plan } = useJob();
  const chosen = plan.sizes[row.size.key]?.method;
  if (row.methods.length < 2 && chosen === undefined)
    return row.method && <Quiet textStyle="small">method: {row.method.name}</Quiet>;
  const best = row.method && row.state === 'planned' && chosen === undefined ? `: ${row.method.name}` : '';
  // One that does not fit any more still stands there until another is chosen.
  const isListed = chosen === undefined || row.methods.some((m) => m.id === chosen);
  return (
    <Flex align="center" gap="6px">
      <Quiet textStyle="small">method</Quiet>
      <Choice
        label={`Method of ${row.tag}`}
        value={chosen ?? ''}
        strong={chosen !== undefined}
        options={[
          ['', `best${best}`],
          ...row.methods.map(({ id, name }) => [id, name] as const),
          ...(isListed ? [] : [[chosen, `${chosen}, does not fit`] as const]),
        ]}
        onChange={(id) => decide(row.size.key, { method: id === '' ? undefined : id })}
      />
    </Flex>
  );
}
