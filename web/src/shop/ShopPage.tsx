import { Skeleton, Tabs } from '@chakra-ui/react';
import { useEffect } from 'react';
import { useNavigate, useParams } from 'react-router-dom';
import { Notice } from '../kit/Notice.tsx';
import { Page } from '../shell/Page.tsx';
import { HoldersPlace } from './HoldersPlace.tsx';
import { MachinesPlace } from './machines/MachinesPlace.tsx';
import { MaterialsPlace } from './MaterialsPlace.tsx';
import { MethodsPlace } from './MethodsPlace.tsx';
import { ToolsPlace } from './ToolsPlace.tsx';
import { useLibrary } from './use-library.ts';

const PLACES = ['tools', 'holders', 'methods', 'materials', 'machines'] as const;
type Place = (typeof PLACES)[number];

/** What the shop has: the lists that every job draws on. */
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
            <MachinesPlace library={library.data} />
          </Tabs.Content>
        </Tabs.Root>
      )}
    </Page>
  );
}
