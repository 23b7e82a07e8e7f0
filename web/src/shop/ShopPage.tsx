import { Skeleton, Table, Tabs } from '@chakra-ui/react';
import { useEffect } from 'react';
import { useNavigate, useParams } from 'react-router-dom';
import { SHIPPED_METHODS } from '@yellow-pin/core/methods/shipped';
import { operationsInWords, whenInWords } from '@yellow-pin/core/methods/words';
import { TOOL_KINDS } from '@yellow-pin/core/tools/kinds/registry';
import { formatLength } from '@yellow-pin/core/units/length';
import { Notice } from '../kit/Notice.tsx';
import { Page } from '../shell/Page.tsx';
import { ToolsPlace } from './ToolsPlace.tsx';
import { useLibrary } from './use-library.ts';

const PLACES = ['tools', 'methods', 'materials', 'machines'] as const;
type Place = (typeof PLACES)[number];

/** What the shop has: the lists that every job draws on. To be read here; changing them has its own place later. */
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
          <Tabs.Content value="methods">
            <Listing
              head={['method', 'for', 'operations', 'taken']}
              rows={[...library.data.methods, ...SHIPPED_METHODS].map((m) => [
                m.name,
                whenInWords(m, (mm) => formatLength(mm, 'mm')),
                operationsInWords(m),
                m.onRequest ? 'where it is chosen' : 'by itself',
              ])}
            />
          </Tabs.Content>
          <Tabs.Content value="materials">
            <Listing
              head={['material', 'tools', '⌀ mm', 'speed in HSS, m/min', 'carbide', 'feed, mm', 'at most']}
              rows={library.data.materials.flatMap((m) =>
                m.cutting.map((r, i) => [
                  i === 0 ? m.name : '',
                  r.kinds.map((k) => k.replace('-', ' ')).join(', '),
                  r.from === undefined && r.below === undefined
                    ? 'all'
                    : `${r.from === undefined ? '' : `from ${r.from} `}${r.below === undefined ? '' : `below ${r.below}`}`,
                  formatLength(r.vc, 'mm', 1),
                  `× ${formatLength(r.carbideFactor, 'mm', 2)}`,
                  r.kinds.includes('tap')
                    ? 'pitch × speed'
                    : `${formatLength(r.feedShare, 'mm', 4)} × ⌀ a ${fedBy(r.kinds)}`,
                  r.kinds.includes('tap') ? '' : formatLength(r.maxFeedPerTurn, 'mm', 3),
                ]),
              )}
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

/** Some kinds are fed by the tooth, the others by the turn. */
const fedBy = (kinds: readonly string[]): string =>
  TOOL_KINDS.some((k) => kinds.includes(k.kind) && k.feedsByTooth) ? 'tooth' : 'turn';

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
