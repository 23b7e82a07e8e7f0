import { Box, Button, Flex, Heading, Input, Progress, Table } from '@chakra-ui/react';
import { useMutation } from '@tanstack/react-query';
import { Stamp, X } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router-dom';
import { api, type Release } from '../api.ts';
import { useJob } from '../job/job-view.ts';
import { flushPlan } from '../job/use-job.ts';
import { Choice } from '../kit/Choice.tsx';
import { FieldSays } from '../kit/FieldSays.tsx';
import { IconAct } from '../kit/IconAct.tsx';
import { Labelled } from '../kit/Labelled.tsx';
import { Num, Quiet } from '../kit/Quiet.tsx';
import { Difference } from './Difference.tsx';
import { FloorNotes } from './FloorNotes.tsx';
import { Send } from './Send.tsx';
import { useReleases } from './use-releases.ts';

/** What was given to the floor: proved by the server, frozen, to be compared; and what the floor wrote back. */
export default function ReleasesPlace() {
  const { id, open } = useJob();
  const { query, again } = useReleases(id);
  const [remark, setRemark] = useState('');
  const release = useMutation({
    mutationFn: async () => {
      // What was typed a moment ago is part of what is released.
      await flushPlan();
      return api.release(id, remark);
    },
    onSuccess: () => setRemark(''),
    onSettled: again,
  });
  const releases = query.data ?? [];
  const ready = releases.filter((r) => r.status === 'ready');
  return (
    <Box as="section" aria-label="Releases" overflowY="auto" padding="16px 22px" background="sheet">
      <Heading as="h2" textStyle="title" marginBottom="10px">
        {open.job.name}, releases
      </Heading>
      <Flex gap="10px" align="end" wrap="wrap" marginBottom="6px">
        <Labelled name="what is new in it" width="320px">
          <Input
            size="xs"
            aria-label="what is new in it"
            maxLength={300}
            value={remark}
            onChange={(e) => setRemark(e.target.value)}
            onKeyDown={(e) => e.stopPropagation()}
          />
        </Labelled>
        <Button size="sm" variant="solid" loading={release.isPending} onClick={() => release.mutate()}>
          <Stamp size={15} /> Prove and release
        </Button>
        <Quiet fontSize="13px" maxWidth="420px">
          The server reads the code back, takes the metal off, and freezes it if nothing is wrong.
        </Quiet>
      </Flex>
      {release.isError && <FieldSays>{release.error.message}</FieldSays>}
      {query.isError && <FieldSays>{query.error.message}</FieldSays>}
      {query.data?.length === 0 && <Quiet>Nothing of this job is on the floor yet.</Quiet>}
      {releases.length > 0 && <ReleaseTable jobId={id} releases={releases} onChange={() => void again()} />}
      {ready.length > 1 && <Compare jobId={id} ready={ready} />}
      {ready[0] && <Send key={ready[0].number} jobId={id} number={ready[0].number} />}
      <FloorNotes jobId={id} />
    </Box>
  );
}

interface TableProps {
  jobId: string;
  releases: readonly Release[];
  onChange(): void;
}

function ReleaseTable({ jobId, releases, onChange }: TableProps) {
  return (
    <Table.Root size="sm" unstyled className="listing" marginTop="10px">
      <Table.Header>
        <Table.Row>
          {['release', 'when', 'who', 'what is new', 'state', 'SHA-256'].map((h) => (
            <Table.ColumnHeader key={h}>{h}</Table.ColumnHeader>
          ))}
        </Table.Row>
      </Table.Header>
      <Table.Body>
        {releases.map((r, i) => (
          <Table.Row key={r.number}>
            <Table.Cell>
              <Num fontWeight="700">{r.number}</Num>
            </Table.Cell>
            <Table.Cell whiteSpace="nowrap">{new Date(r.createdAt).toLocaleString()}</Table.Cell>
            <Table.Cell>{r.author ?? <Quiet>not said</Quiet>}</Table.Cell>
            <Table.Cell>{r.remark}</Table.Cell>
            <Table.Cell minWidth="220px">
              <State
                jobId={jobId}
                release={r}
                isNewest={i === releases.findIndex((x) => x.status === 'ready')}
                onChange={onChange}
              />
            </Table.Cell>
            <Table.Cell>
              <Num fontSize="11px" title={r.sha256 ?? undefined}>
                {r.sha256?.slice(0, 16) ?? ''}
              </Num>
            </Table.Cell>
          </Table.Row>
        ))}
      </Table.Body>
    </Table.Root>
  );
}

interface StateProps {
  jobId: string;
  release: Release;
  isNewest: boolean;
  onChange(): void;
}

function State({ jobId, release: r, isNewest, onChange }: StateProps) {
  if (r.status === 'proving')
    return (
      <Flex gap="8px" align="center">
        <Progress.Root value={100 * r.progress} width="90px" size="xs" aria-label={`release ${r.number}`}>
          <Progress.Track background="trough">
            <Progress.Range background="ink" />
          </Progress.Track>
        </Progress.Root>
        <Quiet role="status">{r.progressText} …</Quiet>
        <IconAct
          label="Cancel this release"
          onClick={() => void api.cancelRelease(jobId, r.number).finally(onChange)}
        >
          <X size={15} />
        </IconAct>
      </Flex>
    );
  if (r.status !== 'ready') return <Box color="error">■ {r.error ?? 'It was not released.'}</Box>;
  if (!isNewest) return <Quiet>replaced</Quiet>;
  return (
    <Flex gap="10px" wrap="wrap">
      {r.isOutOfDate ? (
        <span>▲ out of date: the plan was changed since</span>
      ) : (
        <span>✓ as the plan is now</span>
      )}
      <Box asChild textDecoration="underline" textUnderlineOffset="3px">
        <Link to={`/floor/${jobId}`}>as the floor sees it</Link>
      </Box>
    </Flex>
  );
}

function Compare({ jobId, ready }: { jobId: string; ready: readonly Release[] }) {
  const [newer, setNewer] = useState(String(ready[0]?.number));
  const [older, setOlder] = useState(String(ready[1]?.number));
  const options = ready.map((r) => [String(r.number), `release ${r.number}`] as const);
  return (
    <>
      <Flex gap="8px" align="center" marginTop="18px" marginBottom="6px">
        <Heading as="h3" textStyle="heading">
          What is other in
        </Heading>
        <Choice label="the newer release" value={newer} options={options} onChange={setNewer} />
        <span>than in</span>
        <Choice label="the older release" value={older} options={options} onChange={setOlder} />
      </Flex>
      <Difference jobId={jobId} newer={Number(newer)} older={Number(older)} />
    </>
  );
}
