import { lazy, Suspense } from 'react';
import { Route, Routes } from 'react-router-dom';
import { Loading } from './Loading.tsx';
import { NotFound } from './NotFound.tsx';

// Each place is fetched when it is first gone to; the jobs' list needs nothing of the bench.
const JobsPage = lazy(() => import('../jobs/JobsPage.tsx'));
const JobLayout = lazy(() => import('../job/JobLayout.tsx'));
const WorksheetPlace = lazy(() => import('../bench/WorksheetPlace.tsx'));
const SetupPlace = lazy(() => import('../setup/SetupPlace.tsx'));
const ProvePlace = lazy(() => import('../prove/ProvePlace.tsx'));
const CodePlace = lazy(() => import('../code/CodePlace.tsx'));
const SheetPlace = lazy(() => import('../sheet/SheetPlace.tsx'));
const RevisionPage = lazy(() => import('../revision/RevisionPage.tsx'));
const ShopPage = lazy(() => import('../shop/ShopPage.tsx'));

/** Every address of the program. */
export function App() {
  return (
    <Suspense fallback={<Loading />}>
      <Routes>
        <Route path="/" element={<JobsPage />} />
        <Route path="/bin" element={<JobsPage bin />} />
        <Route path="/jobs/:id" element={<JobLayout />}>
          <Route index element={<WorksheetPlace />} />
          <Route path="setup" element={<SetupPlace />} />
          <Route path="prove" element={<ProvePlace />} />
          <Route path="code" element={<CodePlace />} />
          <Route path="sheet" element={<SheetPlace />} />
        </Route>
        <Route path="/jobs/:id/revision" element={<RevisionPage />} />
        <Route path="/shop/:place?" element={<ShopPage />} />
        <Route path="*" element={<NotFound />} />
      </Routes>
    </Suspense>
  );
}
