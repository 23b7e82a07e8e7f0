import { Skeleton, Table, Tabs } from '@chakra-ui/react';
import { useEffect } from 'react';
import { useNavigate, useParams } from 'react-router-dom';
import { Notice } from '../kit/Notice.tsx';
import { Page } from '../shell/Page.tsx';
import { HoldersPlace } from './HoldersPlace.tsx';
import { MaterialsPlace } from './MaterialsPlace.tsx';
import { MethodsPlace } from './MethodsPlace.tsx';
import { ToolsPlace } from './ToolsPlace.tsx';
import { useLibrary } from './use-library.ts';

const PLACES = ['tools', 'holders', 'methods', 'materials', 'machines'] as const;
type Place = (typeof PLACES)[number];

/** What the shop has: the lists that every job draws on. Machines are to be read here. */
export default function ShopPage() {
  const { place } = useParams();
  const navigate = useNavigate();
  const library = useLibrary();
  const at: Place = PLACES.find((p) => p === place) ?? 'tools';
  useEffect(() => {
    document.title = 'Shop · Yellow Pin';
  }, []);
  return (
    <Page title="Shop" isWide>
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
            <ToolsPlace library={library.data} />
          </Tabs.Content>
          <Tabs.Content value="holders">
            <HoldersPlace library={library.data} />
          </Tabs.Content>
          <Tabs.Content value="methods">
            <MethodsPlace library={library.data} />
          </Tabs.Content>
          <Tabs.Content value="materials">
            <MaterialsPlace library={library.data} />
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
