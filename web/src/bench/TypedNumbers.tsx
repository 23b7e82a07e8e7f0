import { Table } from '@chakra-ui/react';
import type { Row } from '@yellow-pin/core/job/derive';
import { formatLength } from '@yellow-pin/core/units/length';
import { useJob } from '../job/job-view.ts';
import { decide, override } from '../job/store.ts';
import { CalloutText } from '../drawings/CalloutText.tsx';
import { LetGo } from './LetGo.tsx';

/** Counts, shares, seconds and turns: the same in every unit. */
const NO_LENGTHS = new Set(['speed', 'peckShare', 'peckCount', 'dwell', 'springPasses']);

/** What was typed for a row that cannot be made: each of it can be let go again, since one of them may be why. */
export function TypedNumbers({ row }: { row: Row }) {
  const { plan } = useJob();
  const decision = plan.sizes[row.size.key];
  const typed = Object.entries(decision?.overrides ?? {}).flatMap(([operation, numbers]) =>
    Object.entries(numbers).map(([key, value]) => ({ operation, key, value })),
  );
  const isSaid = decision?.callout !== undefined || decision?.thread !== undefined;
  if (typed.length === 0 && !isSaid) return null;
  return (
    <Table.Root size="sm" unstyled className="numbers" aria-label="Typed numbers">
      <Table.Body>
        {isSaid && (
          <Table.Row>
            <Table.Cell>callout</Table.Cell>
            <Table.Cell className="num">
              <CalloutText text={row.calloutText} />
            </Table.Cell>
            <Table.Cell className="source">
              <LetGo
                label="callout"
                onLetGo={() =>
                  decide(row.size.key, {
                    callout: undefined,
                    print: undefined,
                    thread: undefined,
                    threadDepth: undefined,
                  })
                }
              />
            </Table.Cell>
          </Table.Row>
        )}
        {typed.map(({ operation, key, value }) => (
          <Table.Row key={`${operation}/${key}`}>
            <Table.Cell>
              {operation}: {key.replace(/([A-Z])/g, (c) => ` ${c.toLowerCase()}`)}
            </Table.Cell>
            <Table.Cell className="num">
              {typeof value === 'number' && !NO_LENGTHS.has(key)
                ? formatLength(value, plan.units)
                : String(value)}
            </Table.Cell>
            <Table.Cell className="source">
              <LetGo
                label={`${operation} ${key}`}
                onLetGo={() => override(row.size.key, operation, key, null)}
              />
            </Table.Cell>
          </Table.Row>
        ))}
      </Table.Body>
    </Table.Root>
  );
}
