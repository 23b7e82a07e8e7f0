import { Box, Flex, Heading, List, Table } from '@chakra-ui/react';
import { sheetFacts, sheetRemarks } from '@yellow-pin/core/sheet/facts';
import type { FloorSheet } from '@yellow-pin/core/sheet/schema';
import { HoleTable } from '../bench/HoleTable.tsx';
import { Num, Quiet } from '../kit/Quiet.tsx';
import { SheetPictures } from './SheetPicture.tsx';
import { SheetTools } from './SheetTools.tsx';

/** One setup's floor sheet to read: where zero is, what is held, tools, holes, what to know. */
export function SheetPaper({ sheet: s }: { sheet: FloorSheet }) {
  return (
    <>
      <Flex gap="22px" wrap="wrap" align="start">
        <Box as="dl" display="grid" gridTemplateColumns="90px 1fr" rowGap="2px" flex="1 1 300px">
          {sheetFacts(s).map(([name, words]) => (
            <Box key={name} display="contents">
              <Quiet as="dt">{name}</Quiet>
              <dd>{words}</dd>
            </Box>
          ))}
        </Box>
        <SheetPictures sheet={s} />
      </Flex>
      {sheetRemarks(s).map((r) => (
        <Lines key={r.name} {...r} />
      ))}
      <Head>Tools</Head>
      <SheetTools tools={s.tools} units={s.units} />
      <Head>Holes</Head>
      {s.holes.length === 0 ? (
        <Quiet>No hole is made in this setup.</Quiet>
      ) : (
        <HoleTable lines={s.holes} unit={s.units} className="listing" withCallouts />
      )}
      <Head>Program</Head>
      <Table.Root size="sm" unstyled className="listing">
        <Table.Header>
          <Table.Row>
            <Table.ColumnHeader>file</Table.ColumnHeader>
            <Table.ColumnHeader className="num">lines</Table.ColumnHeader>
            <Table.ColumnHeader>SHA-256</Table.ColumnHeader>
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {s.files.map((f) => (
            <Table.Row key={f.name}>
              <Table.Cell>{f.name}</Table.Cell>
              <Table.Cell className="num">{f.lines}</Table.Cell>
              <Table.Cell>
                <Num fontSize="11px" overflowWrap="anywhere">
                  {f.sha256 ?? 'not worked out'}
                </Num>
              </Table.Cell>
            </Table.Row>
          ))}
        </Table.Body>
      </Table.Root>
    </>
  );
}

const Head = ({ children }: { children: string }) => (
  <Heading as="h3" textStyle="heading" marginTop="14px">
    {children}
  </Heading>
);

function Lines({ name, lines }: { name: string; lines: readonly string[] }) {
  return (
    <>
      <Head>{name}</Head>
      <List.Root listStyle="none">
        {lines.map((l) => (
          <List.Item key={l}>
            <Flex>{l}</Flex>
          </List.Item>
        ))}
      </List.Root>
    </>
  );
}
