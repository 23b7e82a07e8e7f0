import { List } from '@chakra-ui/react';
import type { Check } from '@yellow-pin/core/proof/checks/check';
import { useJob } from '../job/job-view.ts';
import { FindingLine } from './FindingLine.tsx';

const METAL = {
  'under way': 'The metal is being taken off …',
  unknown: 'The metal could not be taken off: what it would show is not known.',
} as const;

/** What was found in the shown setup, or in all: each leads to its row and line. */
export function CheckList({ all = false }: { all?: boolean }) {
  const { checks, metal, produced, program, setup } = useJob();
  const own = worstFirst(
    all ? checks : checks.filter((c) => c.setupId === undefined || c.setupId === setup.id),
  );
  return (
    <List.Root className={all ? 'checks all' : 'checks'} aria-label="Checks" listStyle="none">
      {own.length === 0 && (
        <List.Item color="quiet">
          {!produced?.checks
            ? 'Reading the code back …'
            : program
              ? metal === 'known'
                ? 'Read back and checked: nothing wrong was found.'
                : `Read back: nothing wrong was found in the text. ${METAL[metal]}`
              : 'There is no program to check in this setup.'}
        </List.Item>
      )}
      {own.map((c, i) => (
        <FindingLine key={`${c.rule}/${c.setupId}/${c.tag}/${c.line}/${i}`} check={c} />
      ))}
    </List.Root>
  );
}

const RANK = { error: 0, warning: 1, note: 2 } as const;

/** What must be mended stands first; in the order in which it was found else. */
const worstFirst = (checks: readonly Check[]): Check[] =>
  [...checks].sort((a, b) => RANK[a.severity] - RANK[b.severity]);
