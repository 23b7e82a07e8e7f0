import { Box, Button, Flex, Spinner, Splitter, useMediaQuery } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { Suspense, useCallback, useEffect, useMemo, useState } from 'react';
import { Link, Outlet, useLocation, useParams } from 'react-router-dom';
import { setupFrames } from '@yellow-pin/core/setup/setup-frame';
import { api } from '../api.ts';
import { ToolRail } from '../bench/ToolRail.tsx';
import { DropAnywhere } from './DropAnywhere.tsx';
import { NotReady } from '../jobs/NotReady.tsx';
import { PartPane } from '../part/PartPane.tsx';
import { SkipLink } from '../shell/Page.tsx';
import { useAddress } from './address.ts';
import { CommandSearch } from './CommandSearch.tsx';
import { Header } from './Header.tsx';
import { JobContext, type JobView } from './job-view.ts';
import { KeyList, useKeys } from './keys.tsx';
import { Notices } from './Notices.tsx';
import { DrawerLine } from './DrawerLine.tsx';
import { NotMadeLine } from './NotMadeLine.tsx';
import { placeOfAddress } from './places.ts';
import { setupToShow } from './setup-to-show.ts';
import { SolidChoice } from './SolidChoice.tsx';
import { usePick, usePlan } from './store.ts';
import { useMetalProof } from '../prove/use-metal.ts';
import { useAutosave, useProduced } from './use-job.ts';
import { useSummary } from './use-summary.ts';

const SPLIT = 'yellow-pin/split';
const keptSplit = (): number[] => {
  try {
    const [a] = JSON.parse(localStorage.getItem(SPLIT) ?? '[]') as unknown[];
    return typeof a === 'number' && a >= 20 && a <= 70 ? [a, 100 - a] : [53, 47];
  } catch {
    return [53, 47];
  }
};

/** A job that is open: it is loaded once, and all its places look at the same. */
export default function JobLayout() {
  const { id = '' } = useParams();
  const place = placeOfAddress(useLocation().pathname);
  const query = useQuery({
    queryKey: ['job', id],
    queryFn: () => api.job(id),
    staleTime: Infinity,
    gcTime: 0,
    refetchInterval: (q) => (q.state.data?.job.status === 'reading' ? 700 : false),
  });
  const library = useQuery({ queryKey: ['library'], queryFn: api.library, staleTime: Infinity });
  const open = query.data;
  const plan = usePlan((s) => s.plan);
  const saving = useAutosave(open);
  const { picture, produced, error, remote } = useProduced(open, library.data, plan);
  const proof = useMetalProof(produced, remote, place === 'prove');
  useSummary(id, produced, proof, saving.save);
  const wanted = usePick((s) => s.setupId);
  const pick = usePick((s) => s.pick);
  const [keys, setKeys] = useState(false);
  const [search, setSearch] = useState(false);
  const [motion, setMotion] = useState(true);
  const [fit, setFit] = useState(0);
  const [refused, setRefused] = useState<string | null>(null);
  const [isNarrow] = useMediaQuery(['(max-width: 859px), (max-height: 519px)']);

  useEffect(() => pick({ onFace: null, chosen: [], picking: null, pickSaid: null }), [id, pick]);
  useAddress(id);
  useEffect(() => {
    if (open) document.title = `${open.job.name} · Yellow Pin`;
  }, [open]);

  const rows = useMemo(() => produced?.job.rows ?? [], [produced]);
  const toggleMotion = useCallback(() => setMotion((m) => !m), []);
  const refit = useCallback(() => setFit((n) => n + 1), []);
  const toggleKeys = useCallback(() => setKeys((k) => !k), []);
  const openSearch = useCallback(() => setSearch(true), []);
  const closeSearch = useCallback(() => setSearch(false), []);
  const setupIds = useMemo(() => plan?.setups.map((s) => s.id) ?? [], [plan]);
  useKeys({ jobId: id, place, rows, setupIds, toggleMotion, fit: refit, toggleList: toggleKeys, openSearch });

  const setup = plan ? setupToShow(plan.setups, wanted, produced?.job ?? null) : null;
  const view = useMemo((): JobView | null => {
    if (!open || !plan || !setup || !library.data) return null;
    const derived = produced?.job.setups.find((s) => s.setup.id === setup.id) ?? null;
    const frame = picture
      ? (setupFrames(plan.setups, picture.bounds)[plan.setups.indexOf(setup)] ?? null)
      : null;
    return {
      id,
      open,
      plan,
      library: library.data,
      setup,
      here: derived ?? (frame ? { setup, frame, operations: [] } : null),
      picture,
      produced,
      rows,
      checks: proof.checks ?? produced?.checks ?? [],
      metal: proof.metal,
      program: produced?.programs.find((p) => p.setup.setup.id === setup.id) ?? null,
      remote,
    };
  }, [id, open, plan, setup, library.data, picture, produced, proof.checks, proof.metal, rows, remote]);

  if (query.isError || library.isError) {
    return (
      <NotReady job={null} title="The job could not be opened.">
        <p role="alert">{(query.error ?? library.error)?.message}</p>
        <Flex gap="10px" marginTop="10px">
          <Button onClick={() => (void query.refetch(), void library.refetch())}>Try again</Button>
          <Button asChild>
            <Link to="/">All jobs</Link>
          </Button>
        </Flex>
      </NotReady>
    );
  }
  if (!view) return <NotReady job={open?.job ?? null} />;

  const content = (
    <Suspense fallback={<Spinner margin="20px" role="status" aria-label="Loading" />}>
      <Outlet />
    </Suspense>
  );
  const part = (
    <PartPane motion={motion} onMotion={toggleMotion} fit={fit} onFit={refit} onKeys={toggleKeys} />
  );
  return (
    <JobContext.Provider value={view}>
      <SkipLink />
      <DropAnywhere jobId={id}>
        <Box className={`bench${isNarrow ? ' narrow' : ''}`}>
          <div>
            <Header saving={saving} place={place} onSearch={openSearch} />
            <Notices saving={saving} error={error} refused={refused} onClose={() => setRefused(null)} />
            <NotMadeLine />
            <DrawerLine />
          </div>
          <Box as="main" id="chakra-skip-nav" tabIndex={-1} minHeight="0" minWidth="0" display="grid">
            {place === 'sheet' || place === 'releases' ? (
              content
            ) : isNarrow ? (
              <div>
                <Box height="46vh" display="grid">
                  {part}
                </Box>
                <Box minHeight="440px" display="grid">
                  {content}
                </Box>
              </div>
            ) : (
              <Splitter.Root
                panels={[
                  { id: 'part', minSize: 20 },
                  { id: 'place', minSize: 30 },
                ]}
                defaultSize={keptSplit()}
                onResizeEnd={(d) => localStorage.setItem(SPLIT, JSON.stringify(d.size))}
                minHeight="0"
                height="100%"
              >
                <Splitter.Panel id="part" display="grid" minHeight="0">
                  {part}
                </Splitter.Panel>
                <Splitter.ResizeTrigger id="part:place" aria-label="Room for the part" background="sheet">
                  <Splitter.ResizeTriggerSeparator background="ink" width="1.5px" />
                </Splitter.ResizeTrigger>
                <Splitter.Panel id="place" display="grid" minHeight="0">
                  {content}
                </Splitter.Panel>
              </Splitter.Root>
            )}
          </Box>
          {place !== 'sheet' && place !== 'releases' && <ToolRail onRefused={setRefused} />}
          {keys && <KeyList onClose={toggleKeys} />}
          {search && <CommandSearch onClose={closeSearch} onMotion={toggleMotion} onFit={refit} />}
          <SolidChoice />
        </Box>
      </DropAnywhere>
    </JobContext.Provider>
  );
}
