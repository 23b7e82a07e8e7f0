import { Box, Button, Flex, Heading, List, Table } from '@chakra-ui/react';
import { Printer } from 'lucide-react';
import { zeroInWords } from '@yellow-pin/core/setup/setup-frame';
import { visitsOf } from '@yellow-pin/core/order/sequence';
import { formatLength } from '@yellow-pin/core/units/length';
import { HoleActs } from '../bench/HoleActs.tsx';
import { holeLines } from '../bench/hole-list.ts';
import { HoleTable } from '../bench/HoleTable.tsx';
import { ToolSilhouette } from '../drawings/ToolSilhouette.tsx';
import { useJob } from '../job/job-view.ts';
import { Num, Quiet } from '../kit/Quiet.tsx';

/** Findings that were accepted for this setup, with their reasons: whoever runs it knows of them. */
function AcceptedList() {
  const { plan, setup } = useJob();
  const own = plan.accepted.filter((a) => a.setupId === null || a.setupId === setup.id);
  if (own.length === 0) return null;
  return (
    <>
      <Heading as="h3" textStyle="heading" marginTop="14px">
        Accepted as it is
      </Heading>
      <List.Root listStyle="none">
        {own.map((a) => (
          <List.Item key={`${a.rule}/${a.message}`}>
            {a.message} <b>Accepted: {a.reason}</b>
          </List.Item>
        ))}
      </List.Root>
    </>
  );
}

/** Lines of the program that somebody typed: whoever runs it knows that they are none of the plan's. */
function HandEdits() {
  const { program } = useJob();
  if (!program || program.taken.length === 0) return null;
  return (
    <>
      <Heading as="h3" textStyle="heading" marginTop="14px">
        Typed by hand in the program
      </Heading>
      <List.Root listStyle="none">
        {program.taken.map(({ firstLine, before, after }) => (
          <List.Item key={firstLine}>
            line {firstLine}: <Num>{after.length > 0 ? after.join(' / ') : 'nothing'}</Num>
            {before.length > 0 ? (
              <>
                {' '}
                in place of <Num>{before.join(' / ')}</Num>
              </>
            ) : (
              ' put in'
            )}
          </List.Item>
        ))}
      </List.Root>
    </>
  );
}

/** What the operator must know of its operations: which offset sets a thread's fit, what is finished by hand. */
function ToKnow() {
  const { here } = useJob();
  const lines = (here?.operations ?? []).flatMap((o) =>
    o.remarks.flatMap((r) =>
      r.onSheet === undefined ? [] : [{ id: `${o.id}/${r.rule}`, o, text: r.onSheet }],
    ),
  );
  if (lines.length === 0) return null;
  return (
    <>
      <Heading as="h3" textStyle="heading" marginTop="14px">
        To know
      </Heading>
      <List.Root listStyle="none">
        {lines.map(({ id, o, text }) => (
          <List.Item key={id}>
            {o.tag}, {o.label}: {text}
          </List.Item>
        ))}
      </List.Root>
    </>
  );
}

/** The shown setup on paper: zero, tools as they are put in, and every hole by its tag. */
export default function SheetPlace() {
  const { open, plan, setup, rows } = useJob();
  const unit = plan.units;
  const u = unit === 'mm' ? 'mm' : 'in';
  const say = (mm: number): string => formatLength(mm, unit);
  const own = rows.filter((r) => r.operations.some((o) => o.setupId === setup.id));
  const lines = holeLines(own, unit);
  return (
    <Box
      as="section"
      aria-label="Sheet"
      overflowY="auto"
      padding="16px 22px"
      className="paper"
      background="sheet"
    >
      <Flex gap="8px" align="center" wrap="wrap" marginBottom="10px">
        <Heading as="h2" textStyle="title" flex="1">
          {open.job.name}, {setup.name}
        </Heading>
        <Flex gap="6px" className="no-print">
          <HoleActs lines={lines} unit={unit} name={setup.id} />
          <Button size="2xs" onClick={() => window.print()}>
            <Printer size={13} /> Print
          </Button>
        </Flex>
      </Flex>
      <p>
        {setup.workOffset} at {zeroInWords(setup, (mm) => `${say(mm)} ${u}`)}. Clearance level{' '}
        {say(setup.clearance)} {u}.
      </p>
      <AcceptedList />
      <HandEdits />
      <ToKnow />
      <Heading as="h3" textStyle="heading" marginTop="14px">
        Tools
      </Heading>
      <Tools />
      <Heading as="h3" textStyle="heading" marginTop="14px">
        Holes
      </Heading>
      {lines.length === 0 ? (
        <Quiet>No hole is made in this setup.</Quiet>
      ) : (
        <HoleTable lines={lines} unit={unit} className="listing" withCallouts />
      )}
    </Box>
  );
}

/** The tools of the shown setup in the order in which they first run, and what each makes. */
function Tools() {
  const { plan, here } = useJob();
  const u = plan.units === 'mm' ? 'mm' : 'in';
  const say = (mm: number): string => formatLength(mm, plan.units);
  const visits = visitsOf(here?.operations ?? []);
  const tools = [...new Map(visits.map((v) => [v.tool.id, v.tool])).values()];
  if (tools.length === 0) return <Quiet>No tool runs in this setup: none of its rows is planned.</Quiet>;
  const makes = (id: string): string =>
    [...new Set(visits.flatMap((v) => (v.tool.id === id ? v.operations.map((o) => o.tag) : [])))].join(' ');
  return (
    <Table.Root size="sm" unstyled className="listing">
      <Table.Header>
        <Table.Row>
          <Table.ColumnHeader>number</Table.ColumnHeader>
          <Table.ColumnHeader>tool</Table.ColumnHeader>
          {['⌀', 'flute', 'stick-out'].map((h) => (
            <Table.ColumnHeader key={h} className="num">
              {h} {u}
            </Table.ColumnHeader>
          ))}
          <Table.ColumnHeader>makes</Table.ColumnHeader>
        </Table.Row>
      </Table.Header>
      <Table.Body>
        {tools.map((t) => (
          <Table.Row key={t.id}>
            <Table.Cell>
              <Flex gap="8px" align="center">
                <ToolSilhouette tool={t} width={18} height={34} />
                <Num fontWeight="700">T{t.number ?? '–'}</Num>
              </Flex>
            </Table.Cell>
            <Table.Cell>{t.description}</Table.Cell>
            {[t.diameter, t.fluteLength, t.stickOut].map((v, i) => (
              <Table.Cell key={i} className="num">
                {say(v)}
              </Table.Cell>
            ))}
            <Table.Cell>{makes(t.id)}</Table.Cell>
          </Table.Row>
        ))}
      </Table.Body>
    </Table.Root>
  );
}
