import { Box, Table } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router-dom';
import { api } from '../api.ts';
import { FieldSays } from '../kit/FieldSays.tsx';
import { Quiet } from '../kit/Quiet.tsx';

/** Who changed what, the newest first. */
export function ChangesPlace() {
  const changes = useQuery({ queryKey: ['changes'], queryFn: api.changes });
  return (
    <Box paddingTop="10px" maxWidth="860px">
      {changes.error && <FieldSays>{changes.error.message}</FieldSays>}
      {changes.data?.length === 0 && <Quiet>Nothing was changed yet.</Quiet>}
      <Table.Root size="sm" unstyled className="listing">
        <Table.Header>
          <Table.Row>
            {['when', 'who', 'what', 'job'].map((h) => (
              <Table.ColumnHeader key={h}>{h}</Table.ColumnHeader>
            ))}
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {changes.data?.map((c, i) => (
            <Table.Row key={i}>
              <Table.Cell whiteSpace="nowrap">{new Date(c.at).toLocaleString()}</Table.Cell>
              <Table.Cell>{c.who ?? <Quiet>not said</Quiet>}</Table.Cell>
              <Table.Cell>{c.what}</Table.Cell>
              <Table.Cell>{c.jobId && c.job && <Link to={`/jobs/${c.jobId}`}>{c.job}</Link>}</Table.Cell>
            </Table.Row>
          ))}
        </Table.Body>
      </Table.Root>
    </Box>
  );
}
