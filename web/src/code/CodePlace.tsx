import { Box, Checkbox, Flex } from '@chakra-ui/react';
import { useMemo } from 'react';
import { useJob } from '../job/job-view.ts';
import { changePlan } from '../job/store.ts';
import { CountField } from '../kit/CountField.tsx';
import { Choice } from '../kit/Choice.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { Nothing } from '../kit/Nothing.tsx';
import { CheckList } from '../prove/CheckList.tsx';
import { CodeText } from './CodeText.tsx';
import { Downloads } from './Downloads.tsx';
import { EditList } from './EditList.tsx';

/** The program of the shown setup to read and to edit, what reading it back found, and the way to the files. */
export default function CodePlace() {
  const { program, produced, plan, setup, checks } = useJob();
  const machine = produced?.job.machine;
  const own = useMemo(() => checks.filter((c) => c.setupId === setup.id), [checks, setup.id]);
  const set = (part: Partial<typeof plan.codeOptions>): void =>
    changePlan({ codeOptions: { ...plan.codeOptions, ...part } });
  return (
    <Box as="section" className="sheet" aria-label="Code">
      <Flex className="sheet-tools">
        <Checkbox.Root
          size="sm"
          checked={plan.codeOptions.lineNumbers ?? machine?.lineNumbers.on ?? false}
          onCheckedChange={(d) => set({ lineNumbers: d.checked === true })}
        >
          <Checkbox.HiddenInput />
          <Checkbox.Control />
          <Checkbox.Label fontWeight="400">line numbers</Checkbox.Label>
        </Checkbox.Root>
        <Choice
          label="comments"
          value={plan.codeOptions.commentStyle ?? machine?.commentStyle ?? 'parentheses'}
          options={[
            ['parentheses', '( comments )'],
            ['semicolon', '; comments'],
            ['none', 'no comments'],
          ]}
          onChange={(commentStyle) => set({ commentStyle })}
        />
        <Flex align="center" gap="5px">
          <Quiet textStyle="small">feeds at, %</Quiet>
          <CountField
            label="Feeds at percent"
            value={plan.codeOptions.feedPercent ?? 100}
            min={5}
            max={100}
            step={5}
            onChange={(v) => set({ feedPercent: v === 100 ? undefined : v })}
          />
        </Flex>
        <Downloads />
      </Flex>
      <div className="code-pane">
        {program && machine ? (
          <>
            <CodeText key={setup.id} program={program} machine={machine} checks={own} />
            <EditList program={program} machine={machine} />
          </>
        ) : !produced ? (
          <Quiet padding="16px" role="status">
            Working out the plan …
          </Quiet>
        ) : (
          <Nothing title={`There is no code for ${setup.name}`}>
            None of its rows is planned. The line above says what is not made, and what leads on.
          </Nothing>
        )}
        <CheckList />
      </div>
    </Box>
  );
}
