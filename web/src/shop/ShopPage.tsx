import { Skeleton, Tabs } from '@chakra-ui/react';
import { useEffect } from 'react';
import { useNavigate, useParams } from 'react-router-dom';
import { Notice } from '../kit/Notice.tsx';
import { ChangesPlace } from '../people/ChangesPlace.tsx';
import { PeoplePlace } from '../people/PeoplePlace.tsx';
import { useMe } from '../people/use-me.ts';
import { Page } from '../shell/Page.tsx';
import { HoldersPlace } from './HoldersPlace.tsx';
import { MachinesPlace } from './machines/MachinesPlace.tsx';
import { MaterialsPlace } from './MaterialsPlace.tsx';
import { MethodsPlace } from './MethodsPlace.tsx';
import { ToolsPlace } from './ToolsPlace.tsx';
import { WholeShopPlace } from './WholeShopPlace.tsx';
import { useLibrary } from './use-library.ts';

const PLACES = [
  'tools',
  'holders',
  'methods',
  'materials',
  'machines',
  'whole shop',
  'changes',
  'people',
] as const;
type Place = (typeof PLACES)[number];

/** What the shop has: the lists that every job draws on. */
export default function ShopPage() {
  const { place } = useParams();
  const navigate = useNavigate();
  const library = useLibrary();
  const me = useMe();
  const at: Place = PLACES.find((p) => p === place) ?? 'tools';
  const places = PLACES.filter((p) => p !== 'people' || me.data?.isRequired);
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
            {places.map((p) => (
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
          <Tabs.Content value="whole shop">
            <WholeShopPlace library={library.data} />
          </Tabs.Content>
          <Tabs.Content value="changes">
            <ChangesPlace />
          </Tabs.Content>
          {me.data?.isRequired && (
            <Tabs.Content value="people">
              <PeoplePlace />
            </Tabs.Content>
          )}
        </Tabs.Root>
      )}
    </Page>
  );
}
