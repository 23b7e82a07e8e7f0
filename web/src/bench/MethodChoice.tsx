import { Flex } from '@chakra-ui/react';
import type { Row } from '@yellow-pin/core/job/derive';
import { useJob } from '../job/job-view.ts';
import { decide, decideMany } from '../job/store.ts';
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

/** One method for all rows that are chosen, in one action: those that apply to every one of them, and to how many the others do. */
export function MethodForAll({ rows }: { rows: readonly Row[] }) {
  const holes = rows.filter((r) => r.methods.length > 0);
  const counts = new Map<string, { name: string; keys: string[] }>();
  for (const r of holes)
    for (const { id, name } of r.methods) {
      const known = counts.get(id) ?? { name, keys: [] };
      known.keys.push(r.size.key);
      counts.set(id, known);
    }
  if (counts.size === 0) return null;
  const take = (id: string): void => {
    if (id === 'best')
      decideMany(
        holes.map((r) => r.size.key),
        { method: undefined, operations: undefined },
      );
    // Where it does not apply nothing changes.
    else decideMany(counts.get(id)?.keys ?? [], { method: id, operations: undefined });
  };
  return (
    <Flex align="center" gap="6px" marginTop="5px" fontSize="13px">
      <span>made by</span>
      <Choice
        label="Method of all chosen rows"
        value=""
        options={[
          ['', 'a method for all …'] as const,
          ['best', 'best for each'] as const,
          ...[...counts].map(
            ([id, { name, keys }]) =>
              [
                id,
                keys.length === rows.length ? name : `${name} (${keys.length} of ${rows.length})`,
              ] as const,
          ),
        ]}
        onChange={take}
      />
    </Flex>
  );
}
