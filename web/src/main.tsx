import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import './app.css';
import { ChakraProvider } from '@chakra-ui/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter, Link, Route, Routes } from 'react-router-dom';
import { BenchPage } from './bench/BenchPage.tsx';
import { RevisionPage } from './revision/RevisionPage.tsx';
import { JobsPage } from './jobs/JobsPage.tsx';
import { system } from './theme.ts';

const client = new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } } });

const NotFound = () => (
  <main className="page">
    <h1>There is nothing at this address.</h1>
    <p>
      <Link to="/">All jobs</Link>
    </p>
  </main>
);

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <ChakraProvider value={system}>
      <QueryClientProvider client={client}>
        <BrowserRouter>
          <Routes>
            <Route path="/" element={<JobsPage />} />
            <Route path="/jobs/:id" element={<BenchPage view="worksheet" />} />
            <Route path="/jobs/:id/code" element={<BenchPage view="code" />} />
            <Route path="/jobs/:id/setup" element={<BenchPage view="setup" />} />
            <Route path="/jobs/:id/revision" element={<RevisionPage />} />
            <Route path="*" element={<NotFound />} />
          </Routes>
        </BrowserRouter>
      </QueryClientProvider>
    </ChakraProvider>
  </StrictMode>,
);
