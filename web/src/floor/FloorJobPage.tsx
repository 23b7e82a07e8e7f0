import { Box, Button, Flex, Heading, Skeleton } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router-dom';
import { sheetFacts, sheetRemarks } from '@yellow-pin/core/sheet/facts';
import type { FloorSheet } from '@yellow-pin/core/sheet/schema';
import type { ReleaseContent } from '@yellow-pin/core/release/schema';
import { api } from '../api.ts';
import { HoleTable } from '../bench/HoleTable.tsx';
import { Notice } from '../kit/Notice.tsx';
import { Num, Quiet } from '../kit/Quiet.tsx';
import { SheetPictures } from '../sheet/SheetPicture.tsx';
import { SheetTools } from '../sheet/SheetTools.tsx';
import { FloorShell } from './FloorShell.tsx';
import { NoteForm } from './NoteForm.tsx';

/** The newest release of a job as the operator needs it: read only, big, one setup at a time. */
export default function FloorJobPage() {
  const { id = '' } = useParams();
  const job = useQuery({ queryKey: ['floor', id], queryFn: () => api.floorJob(id), refetchInterval: 30_000 });
  const [shown, setShown] = useState(0);
  const { data } = job;
  useEffect(() => {
    if (data) document.title = `${data.content.job} · floor`;
  }, [data]);
  if (job.isError)
    return (
      <FloorShell title="Floor">
        <Notice
          kind="error"
          actions={
            <Button asChild>
              <Link to="/floor">All jobs on the floor</Link>
            </Button>
          }
        >
          {job.error.message}
        </Notice>
      </FloorShell>
    );
  if (!data) return <FloorShell title="Floor">{<Skeleton height="300px" />}</FloorShell>;
  const { release, content, notes } = data;
  const sheet = content.sheets[shown] ?? content.sheets[0];
  return (
    <FloorShell title={content.job}>
      <Flex gap="14px" align="baseline" wrap="wrap" marginBottom="12px">
        <Box fontSize="24px">
          release <b>{release.number}</b>
        </Box>
        <Quiet>
          {new Date(release.createdAt).toLocaleString()}
          {release.author ? `, ${release.author}` : ''}
          {release.remark ? `: ${release.remark}` : ''}
        </Quiet>
      </Flex>
      {release.isOutOfDate && (
        <Notice fontSize="18px" marginBottom="12px">
          The plan was changed since this was released. Ask the programmer before a new batch.
        </Notice>
      )}
      {content.sheets.length > 1 && (
        <Flex as="nav" aria-label="Setups" gap="10px" marginBottom="14px" wrap="wrap">
          {content.sheets.map((s, i) => (
            <Button
              key={s.setupId}
              size="xl"
              variant={s === sheet ? 'solid' : 'outline'}
              aria-pressed={s === sheet}
              onClick={() => setShown(i)}
            >
              {s.number} {s.setup}
            </Button>
          ))}
        </Flex>
      )}
      {sheet && <Setup sheet={sheet} content={content} />}
      <NoteForm jobId={id} release={release.number} setup={sheet?.setup ?? null} notes={notes} />
    </FloorShell>
  );
}

function Setup({ sheet: s, content }: { sheet: FloorSheet; content: ReleaseContent }) {
  return (
    <>
      <Box as="dl" display="grid" gridTemplateColumns="130px 1fr" rowGap="6px" marginBottom="14px">
        {sheetFacts(s).map(([name, words]) => (
          <Box key={name} display="contents">
            <Quiet as="dt">{name}</Quiet>
            <Box as="dd" fontWeight={name === 'zero' ? 700 : undefined}>
              {words}
            </Box>
          </Box>
        ))}
      </Box>
      <SheetPictures sheet={s} />
      {sheetRemarks(s).map((r) => (
        <Lines key={r.name} {...r} />
      ))}
      <Head>Programs</Head>
      {content.files
        .filter((f) => f.setupId === s.setupId)
        .map((f) => (
          <Box key={f.name} marginBottom="6px">
            <Num fontWeight="700">{f.name}</Num> <Quiet>SHA-256 {f.sha256.slice(0, 16)} …</Quiet>
          </Box>
        ))}
      <Head>Tools</Head>
      <SheetTools tools={s.tools} units={s.units} />
      {s.holes.length > 0 && (
        <>
          <Head>Holes</Head>
          <HoleTable lines={s.holes} unit={s.units} className="listing" withCallouts />
        </>
      )}
    </>
  );
}

const Head = ({ children }: { children: string }) => (
  <Heading as="h2" fontSize="22px" marginTop="20px" marginBottom="6px">
    {children}
  </Heading>
);

function Lines({ name, lines }: { name: string; lines: readonly string[] }) {
  return (
    <section aria-label={name}>
      <Head>{name}</Head>
      {lines.map((l) => (
        <Box key={l} paddingBlock="3px">
          {l}
        </Box>
      ))}
    </section>
  );
}
