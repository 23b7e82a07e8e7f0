import { Button, ButtonGroup, FileUpload, Flex, Input, Pagination, Skeleton, Text } from '@chakra-ui/react';
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { ChevronLeft, ChevronRight, FileUp, Trash2, X } from 'lucide-react';
import { useCallback, useEffect, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router-dom';
import { api, author, type ListQuery, type UploadedJob } from '../api.ts';
import { IconAct } from '../kit/IconAct.tsx';
import { Nothing } from '../kit/Nothing.tsx';
import { Labelled } from '../kit/Labelled.tsx';
import { Notice } from '../kit/Notice.tsx';
import { toaster } from '../kit/toaster.tsx';
import { TextField } from '../kit/TextField.tsx';
import { useMe } from '../people/use-me.ts';
import { Page } from '../shell/Page.tsx';
import { JobTable } from './JobTable.tsx';
import { PART_FILES } from './part-files.ts';
import { UploadList } from './UploadList.tsx';
import { useJobActions } from './use-job-actions.ts';
import { DropPreview } from './DropPreview.tsx';
import { isStepName } from './part-files.ts';
import { usePreview } from './use-preview.ts';
import { useUploads, type Upload } from './use-uploads.ts';

/** All jobs, or the deleted ones; new ones by dropping files. */
export default function JobsPage({ bin = false }: { bin?: boolean }) {
  const client = useQueryClient();
  const me = useMe();
  const navigate = useNavigate();
  const [query, setQuery] = useListQuery(bin);
  const [problem, setProblem] = useState<string | null>(null);
  /** The one upload that is opened as soon as it is read. */
  const [waiting, setWaiting] = useState<string | null>(null);
  const actions = useJobActions(setProblem);
  const jobs = useQuery({
    queryKey: ['jobs', query],
    queryFn: () => api.jobs(query),
    placeholderData: keepPreviousData,
    refetchInterval: (q) => (q.state.data?.jobs.some((j) => j.status === 'reading') ? 600 : false),
  });
  const onJob = useCallback(
    (job: UploadedJob, all: number) => {
      // Of several nobody knows which is wanted first.
      setWaiting(all === 1 ? job.id : null);
      const { same } = job;
      if (same)
        toaster.create({
          description: `${job.fileName} is the very file that ${same.name} is made from: it is a job twice now.`,
          duration: 12_000,
          action: { label: 'Open the first', onClick: () => void navigate(`/jobs/${same.id}`) },
        });
      // A list that was asked for before the job was there is of no use any more.
      void client
        .cancelQueries({ queryKey: ['jobs'] })
        .then(() => client.invalidateQueries({ queryKey: ['jobs'] }));
    },
    [client, navigate],
  );
  const { uploads, start: send, forget } = useUploads(onJob);
  const preview = usePreview();
  const start = (files: readonly File[]): void => {
    const [only] = files;
    // What was dropped before is not what is waited for any more.
    setWaiting(null);
    if (only && files.length === 1 && isStepName(only.name)) void preview.show(only);
    else preview.stop();
    send(files);
  };
  const again = (u: Upload): void => {
    forget(u.key);
    start([u.file]);
  };
  // Followed by itself: the list may be narrowed, or be turned to another page.
  const wanted = useQuery({
    queryKey: ['waiting', waiting],
    queryFn: () => api.job(waiting ?? ''),
    enabled: waiting !== null,
    refetchInterval: (q) => (q.state.data?.job.status === 'reading' ? 600 : false),
  });
  const status = wanted.data?.job.status ?? 'reading';
  const isRead = status === 'ready';
  const isRefused = uploads.some((u) => u.file === preview.shown?.file && u.error !== null);
  const dropped = isRefused || status !== 'reading' ? null : preview.shown;
  useEffect(() => {
    if (isRead && waiting !== null) void navigate(`/jobs/${waiting}`);
  }, [isRead, waiting, navigate]);
  useEffect(() => {
    document.title = bin ? 'Bin · Yellow Pin' : 'Jobs · Yellow Pin';
  }, [bin]);
  return (
    <Page
      title={bin ? 'Bin' : 'Jobs'}
      actions={
        <Button asChild size="xs">
          {bin ? (
            <Link to="/">Back to the jobs</Link>
          ) : (
            <Link to="/bin">
              <Trash2 size={14} /> Bin
            </Link>
          )}
        </Button>
      }
    >
      {!bin && <DropPlace onFiles={start} />}
      <UploadList uploads={uploads} onRetry={again} onForget={forget} />
      {dropped && (
        <DropPreview preview={dropped.preview} doing={wanted.data ? wanted.data.job.progressText : null} />
      )}
      {problem && (
        <Notice
          kind="error"
          marginBottom="12px"
          actions={
            <IconAct label="Close" onClick={() => setProblem(null)}>
              <X size={16} />
            </IconAct>
          }
        >
          {problem}
        </Notice>
      )}
      {jobs.isError && (
        <Notice
          kind="error"
          marginBottom="12px"
          actions={
            <Button size="xs" onClick={() => void jobs.refetch()}>
              Try again
            </Button>
          }
        >
          {jobs.error.message}
        </Notice>
      )}
      <Flex gap="10px" align="end" marginBottom="10px" wrap="wrap">
        <Search value={query.search} onSearch={(search) => setQuery({ search, page: 0 })} />
        {!bin && !me.data?.person && <Author />}
        <Text color="quiet" marginInlineStart="auto" role="status">
          {jobs.data && `${jobs.data.total} ${jobs.data.total === 1 ? 'job' : 'jobs'}`}
        </Text>
      </Flex>
      {jobs.isPending && <Skeleton height="220px" />}
      {jobs.data && jobs.data.jobs.length > 0 && (
        <JobTable
          jobs={jobs.data.jobs}
          query={query}
          onSort={(part) => setQuery({ ...part, page: 0 })}
          actions={actions}
        />
      )}
      {jobs.data?.jobs.length === 0 && <NoJobs query={query} />}
      {jobs.data && jobs.data.total > jobs.data.pageSize && (
        <Pagination.Root
          count={jobs.data.total}
          pageSize={jobs.data.pageSize}
          page={jobs.data.page + 1}
          onPageChange={(d) => setQuery({ page: d.page - 1 })}
          marginTop="12px"
        >
          <ButtonGroup variant="outline" size="xs">
            <Pagination.PrevTrigger asChild>
              <Button aria-label="Page before">
                <ChevronLeft size={15} />
              </Button>
            </Pagination.PrevTrigger>
            <Pagination.PageText />
            <Pagination.NextTrigger asChild>
              <Button aria-label="Next page">
                <ChevronRight size={15} />
              </Button>
            </Pagination.NextTrigger>
          </ButtonGroup>
        </Pagination.Root>
      )}
    </Page>
  );
}

/** What the list is asked for, in the address: a reload and the back button come back to it. */
function useListQuery(bin: boolean): [ListQuery, (part: Partial<ListQuery>) => void] {
  const [params, setParams] = useSearchParams();
  const sort = params.get('sort') as ListQuery['sort'] | null;
  const query: ListQuery = {
    search: params.get('search')?.slice(0, 120) ?? '',
    sort: sort && ['name', 'file', 'state', 'made', 'changed'].includes(sort) ? sort : 'changed',
    order: params.get('order') === 'up' ? 'up' : 'down',
    page: Math.max(0, Math.floor(Number(params.get('page') ?? 0)) || 0),
    bin,
  };
  const set = (part: Partial<ListQuery>): void => {
    const next = { ...query, ...part };
    setParams(
      Object.fromEntries(
        Object.entries({
          search: next.search,
          sort: next.sort,
          order: next.order,
          page: String(next.page),
        }).filter(([key, v]) => v !== '' && !(key === 'page' && v === '0')),
      ),
      { replace: part.page === undefined || part.search !== undefined },
    );
  };
  return [query, set];
}

function DropPlace({ onFiles }: { onFiles(files: File[]): void }) {
  return (
    <FileUpload.Root
      accept={PART_FILES}
      maxFiles={50}
      // Nothing is kept here: each choice is sent at once.
      acceptedFiles={[]}
      alignItems="stretch"
      marginBottom="14px"
      onFileChange={(d) => onFiles([...d.acceptedFiles, ...d.rejectedFiles.map((r) => r.file)])}
    >
      <FileUpload.HiddenInput aria-label="STEP file" />
      <FileUpload.Context>
        {({ dragging }) => (
          <FileUpload.Dropzone
            minHeight="112px"
            borderWidth="2px"
            borderStyle="dashed"
            borderColor={dragging ? 'ink' : 'edge'}
            background={dragging ? 'hand' : 'sheet'}
            cursor="pointer"
            aria-label="Drop parts here, or press to choose them"
          >
            <FileUpload.DropzoneContent gap="4px">
              <FileUp size={24} aria-hidden="true" />
              <Text>Drop parts here: STEP files (.step, .stp) or 2D drawings (.dxf)</Text>
              <Text color="quiet">or press to choose them</Text>
            </FileUpload.DropzoneContent>
          </FileUpload.Dropzone>
        )}
      </FileUpload.Context>
    </FileUpload.Root>
  );
}

function Search({ value, onSearch }: { value: string; onSearch(text: string): void }) {
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  // The server is asked when one stops typing for a moment.
  useEffect(() => {
    if (text === value) return;
    const timer = setTimeout(() => onSearch(text), 250);
    return () => clearTimeout(timer);
  }, [text, value, onSearch]);
  return (
    <Labelled name="search">
      <Input
        width="260px"
        aria-label="Search the jobs"
        placeholder="name or file"
        maxLength={120}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
    </Labelled>
  );
}

/** Who sits here: signed under what is changed, so that the others know whom to ask. */
function Author() {
  const [name, setName] = useState(author.get());
  return (
    <Labelled name="you are">
      <TextField
        label="your name"
        width="160px"
        maxLength={60}
        placeholder="not said"
        value={name}
        onTake={(text) => {
          author.set(text.trim());
          setName(text.trim());
          return null;
        }}
      />
    </Labelled>
  );
}

function NoJobs({ query }: { query: ListQuery }) {
  const [title, text] =
    query.search !== ''
      ? [
          `No job has “${query.search}” in its name, its file or its plan`,
          'Search for less, or look in the bin.',
        ]
      : query.bin
        ? ['The bin is empty', 'Deleted jobs stay here until they are taken away for good.']
        : ['No jobs yet', 'Drop a part above, and its features are found and tagged.'];
  return (
    <Nothing title={title!} background="sheet" borderWidth="1px" borderColor="rule">
      {text}
    </Nothing>
  );
}
