import { Flex, Skeleton, Table, Tabs } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { useNavigate, useParams } from 'react-router-dom';
import type { Library } from '@yellow-pin/core/job/library';
import { formatLength } from '@yellow-pin/core/units/length';
import { api } from '../api.ts';
import { ToolSilhouette } from '../drawings/ToolSilhouette.tsx';
import { Nothing } from '../kit/Nothing.tsx';
import { Notice } from '../kit/Notice.tsx';
import { Num } from '../kit/Quiet.tsx';
import { Page } from '../shell/Page.tsx';

const PLACES = ['tools', 'methods', 'materials', 'machines'] as const;
type Place = (typeof PLACES)[number];

/** What the shop has: the lists that every job draws on. To be read here; changing them has its own place later. */
export default function ShopPage() {
  const { place } = useParams();
  const navigate = useNavigate();
  const library = useQuery({ queryKey: ['library'], queryFn: api.library, staleTime: Infinity });
  const at: Place = PLACES.find((p) => p === place) ?? 'tools';
  useEffect(() => {
    document.title = 'Shop · Yellow Pin';
  }, []);
  return (
    <Page title="Shop">
      {library.isError && <Notice kind="error">{library.error.message}</Notice>}
      {library.isPending && <Skeleton height="200px" />}
      {library.data && (
        <Tabs.Root
          value={at}
          onValueChange={(d) => void navigate(`/shop/${d.value}`)}
          lazyMount
          unmountOnExit
        >
          <Tabs.List aria-label="Lists of the shop">
            {PLACES.map((p) => (
              <Tabs.Trigger key={p} value={p} color="ink">
                {p}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          <Tabs.Content value="tools">
            <Tools library={library.data} />
          </Tabs.Content>
          <Tabs.Content value="methods">
            <Nothing title="Methods are built in by now">
              Which operations make a hole is worked out for each row and stands there; the shop’s own methods
              get their place here.
            </Nothing>
          </Tabs.Content>
          <Tabs.Content value="materials">
            <Listing
              head={['material', 'drilling, m/min']}
              rows={library.data.materials.map((m) => [
                m.name,
                String(m.cutting.find((r) => r.kinds.includes('drill'))?.vc ?? 'unknown'),
              ])}
            />
          </Tabs.Content>
          <Tabs.Content value="machines">
            <Listing
              head={['machine', 'most rpm', 'travel, mm']}
              rows={library.data.machines.map((m) => [
                m.name,
                String(m.maxSpeed),
                m.travel ? `${m.travel.x} × ${m.travel.y} × ${m.travel.z}` : 'unknown',
              ])}
            />
          </Tabs.Content>
        </Tabs.Root>
      )}
    </Page>
  );
}

function Tools({ library }: { library: Library }) {
  const say = (mm: number): string => formatLength(mm, 'mm');
  const holder = (id: string): string => library.holders.find((h) => h.id === id)?.description ?? 'unknown';
  if (library.tools.length === 0) return <Nothing title="The shop has no tools" />;
  return (
    <Listing
      head={['number', 'tool', '⌀ mm', 'flute mm', 'stick-out mm', 'holder']}
      rows={library.tools.map((t) => [
        <Flex key="n" gap="8px" align="center">
          <ToolSilhouette tool={t} width={18} height={34} />
          <Num>{t.number === null ? 'drawer' : `T${t.number}`}</Num>
        </Flex>,
        t.description,
        say(t.diameter),
        say(t.fluteLength),
        say(t.stickOut),
        holder(t.holderId),
      ])}
    />
  );
}

function Listing({ head, rows }: { head: string[]; rows: React.ReactNode[][] }) {
  return (
    <Table.Root size="sm" unstyled className="listing">
      <Table.Header>
        <Table.Row>
          {head.map((h) => (
            <Table.ColumnHeader key={h}>{h}</Table.ColumnHeader>
          ))}
        </Table.Row>
      </Table.Header>
      <Table.Body>
        {rows.map((cells, i) => (
          <Table.Row key={i}>
            {cells.map((c, k) => (
              <Table.Cell key={k}>{c}</Table.Cell>
            ))}
          </Table.Row>
        ))}
      </Table.Body>
    </Table.Root>
  );
}
