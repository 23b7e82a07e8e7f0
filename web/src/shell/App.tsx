import { lazy, Suspense } from 'react';
import { Navigate, Route, Routes } from 'react-router-dom';
import { SignInPage } from '../people/SignInPage.tsx';
import { useMe } from '../people/use-me.ts';
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
const ReleasesPlace = lazy(() => import('../release/ReleasesPlace.tsx'));
const FloorPage = lazy(() => import('../floor/FloorPage.tsx'));
const FloorJobPage = lazy(() => import('../floor/FloorJobPage.tsx'));
const ShopPage = lazy(() => import('../shop/ShopPage.tsx'));

/** Every address of the program; on a network first of all the way in. */
export function App() {
  const me = useMe();
  if (me.isPending) return <Loading />;
  if (me.data?.isRequired && !me.data.person) return <SignInPage />;
  return (
    <Suspense fallback={<Loading />}>
      <Routes>
        <Route
          path="/"
          element={me.data?.person?.role === 'operator' ? <Navigate to="/floor" replace /> : <JobsPage />}
        />
        <Route path="/floor" element={<FloorPage />} />
        <Route path="/floor/:id" element={<FloorJobPage />} />
        <Route path="/bin" element={<JobsPage bin />} />
        <Route path="/jobs/:id" element={<JobLayout />}>
          <Route index element={<WorksheetPlace />} />
          <Route path="setup" element={<SetupPlace />} />
          <Route path="prove" element={<ProvePlace />} />
          <Route path="code" element={<CodePlace />} />
          <Route path="sheet" element={<SheetPlace />} />
          <Route path="releases" element={<ReleasesPlace />} />
        </Route>
        <Route path="/jobs/:id/revision" element={<RevisionPage />} />
        <Route path="/shop/:place?" element={<ShopPage />} />
        <Route path="*" element={<NotFound />} />
      </Routes>
    </Suspense>
  );
}
