import { Box, Button, Image, Table, VisuallyHidden } from '@chakra-ui/react';
import {
  createColumnHelper,
  flexRender,
  getCoreRowModel,
  useReactTable,
  type SortingState,
} from '@tanstack/react-table';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useMemo } from 'react';
import { Link } from 'react-router-dom';
import type { ListedJob, ListQuery } from '../api.ts';
import { TextField } from '../kit/TextField.tsx';
import { JobActs } from './JobActs.tsx';
import { JobState } from './JobState.tsx';
import type { JobActions } from './use-job-actions.ts';

interface Props {
  jobs: ListedJob[];
  query: ListQuery;
  onSort(part: Pick<ListQuery, 'sort' | 'order'>): void;
  actions: JobActions;
}

const column = createColumnHelper<ListedJob>();
const day = (text: string): string =>
  new Date(text).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });

/** The jobs of one page; the server sorts them. */
export function JobTable({ jobs, query, onSort, actions }: Props) {
  const columns = useMemo(
    () => [
      column.display({
        id: 'picture',
        header: () => <VisuallyHidden>picture</VisuallyHidden>,
        cell: ({ row: { original: j } }) =>
          j.hasPicture ? (
            <Image src={`/api/jobs/${j.id}/picture`} alt="" width="72px" height="52px" loading="lazy" />
          ) : (
            <Box width="72px" height="52px" />
          ),
      }),
      column.accessor('name', {
        header: 'job',
        cell: ({ row: { original: j } }) => <Name job={j} actions={actions} />,
      }),
      column.accessor('fileName', { id: 'file', header: 'file' }),
      column.accessor('planned', {
        id: 'state',
        header: 'state',
        cell: ({ row: { original: j } }) => <JobState job={j} onCancel={() => actions.cancel(j)} />,
      }),
      column.accessor('changedAt', {
        id: 'changed',
        header: 'last changed',
        cell: ({ row: { original: j } }) => (
          <>
            {day(j.changedAt)}
            {j.changedBy && <Box color="quiet">{j.changedBy}</Box>}
          </>
        ),
      }),
      column.display({
        id: 'acts',
        header: () => <VisuallyHidden>actions</VisuallyHidden>,
        cell: ({ row: { original: j } }) => <JobActs job={j} actions={actions} />,
      }),
    ],
    [actions],
  );
  const sorting: SortingState = [{ id: query.sort, desc: query.order === 'down' }];
  const table = useReactTable({
    data: jobs,
    columns,
    state: { sorting },
    manualSorting: true,
    enableSortingRemoval: false,
    getRowId: (j) => j.id,
    getCoreRowModel: getCoreRowModel(),
    onSortingChange: (update) => {
      const next = typeof update === 'function' ? update(sorting) : update;
      const [first] = next;
      if (first) onSort({ sort: first.id as ListQuery['sort'], order: first.desc ? 'down' : 'up' });
    },
  });
  return (
    <Table.Root size="sm" background="sheet" borderWidth="1px" borderColor="rule">
      <Table.Header>
        {table.getHeaderGroups().map((group) => (
          <Table.Row key={group.id} background="sheet">
            {group.headers.map((h) => {
              const way = h.column.getIsSorted();
              const head = flexRender(h.column.columnDef.header, h.getContext());
              return (
                <Table.ColumnHeader
                  key={h.id}
                  color="quiet"
                  fontWeight="400"
                  borderBottomWidth="1.5px"
                  borderColor="ink"
                  aria-sort={way === 'asc' ? 'ascending' : way === 'desc' ? 'descending' : undefined}
                >
                  {h.column.getCanSort() ? (
                    <Button
                      variant="ghost"
                      size="2xs"
                      color="inherit"
                      marginInlineStart="-6px"
                      onClick={h.column.getToggleSortingHandler()}
                    >
                      {head}
                      {way === 'asc' && <ArrowUp size={13} aria-hidden="true" />}
                      {way === 'desc' && <ArrowDown size={13} aria-hidden="true" />}
                    </Button>
                  ) : (
                    head
                  )}
                </Table.ColumnHeader>
              );
            })}
          </Table.Row>
        ))}
      </Table.Header>
      <Table.Body>
        {table.getRowModel().rows.map((r) => (
          <Table.Row key={r.id} background="sheet">
            {r.getVisibleCells().map((c) => (
              <Table.Cell
                key={c.id}
                borderColor="rule-soft"
                color={c.column.id === 'file' ? 'quiet' : undefined}
                overflowWrap="anywhere"
                paddingBlock="5px"
              >
                {flexRender(c.column.columnDef.cell, c.getContext())}
              </Table.Cell>
            ))}
          </Table.Row>
        ))}
      </Table.Body>
    </Table.Root>
  );
}

function Name({ job, actions }: { job: ListedJob; actions: JobActions }) {
  if (actions.renaming === job.id) {
    return (
      <TextField
        label={`Name of ${job.name}`}
        value={job.name}
        maxLength={120}
        autoFocus
        onTake={(text) => actions.rename(job, text)}
        onDone={() => actions.startRename(null)}
      />
    );
  }
  if (job.status !== 'ready' || job.deletedAt !== null) return <>{job.name}</>;
  return (
    <>
      <Box
        asChild
        fontWeight="600"
        textDecoration="underline"
        textDecorationColor="edge"
        textUnderlineOffset="3px"
      >
        <Link to={`/jobs/${job.id}`}>{job.name}</Link>
      </Box>
      {job.found.map((f) => (
        <Box key={f.what + f.text} color="quiet" fontSize="12px">
          {f.what}: {f.text}
        </Box>
      ))}
    </>
  );
}
