import { Box, Button, Flex, Heading, Input, Table } from '@chakra-ui/react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Trash2, UserPlus } from 'lucide-react';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { api, type Person } from '../api.ts';
import { Choice } from '../kit/Choice.tsx';
import { FieldSays } from '../kit/FieldSays.tsx';
import { IconAct } from '../kit/IconAct.tsx';
import { Labelled } from '../kit/Labelled.tsx';
import { PasswordInput } from '../kit/PasswordInput.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { useMe } from './use-me.ts';

const ROLES = [
  ['programmer', 'programmer: plans, releases, changes the shop'],
  ['operator', 'operator: reads the floor, writes notes'],
] as const;

/** Who may sign in, and as what. */
export function PeoplePlace() {
  const me = useMe();
  const client = useQueryClient();
  const people = useQuery({ queryKey: ['people'], queryFn: api.people });
  const again = () => client.invalidateQueries({ queryKey: ['people'] });
  const change = useMutation({
    mutationFn: ({ id, ...c }: { id: string; role?: Person['role']; password?: string }) =>
      api.changePerson(id, c),
    onSettled: again,
  });
  const remove = useMutation({ mutationFn: api.removePerson, onSettled: again });
  const said = change.error ?? remove.error ?? people.error;
  return (
    <Box paddingTop="10px" maxWidth="760px">
      {said && <FieldSays>{said.message}</FieldSays>}
      <Table.Root size="sm" unstyled className="listing">
        <Table.Header>
          <Table.Row>
            {['name', 'role', 'another password', ''].map((h) => (
              <Table.ColumnHeader key={h}>{h}</Table.ColumnHeader>
            ))}
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {people.data?.map((p) => (
            <Table.Row key={p.id}>
              <Table.Cell fontWeight="600">
                {p.name} {p.id === me.data?.person?.id && <Quiet fontWeight="400">you</Quiet>}
              </Table.Cell>
              <Table.Cell>
                <Choice<Person['role']>
                  label={`role of ${p.name}`}
                  value={p.role}
                  options={[
                    ['programmer', 'programmer'],
                    ['operator', 'operator'],
                  ]}
                  onChange={(role) => change.mutate({ id: p.id, role })}
                />
              </Table.Cell>
              <Table.Cell>
                <NewPassword name={p.name} onTake={(password) => change.mutate({ id: p.id, password })} />
              </Table.Cell>
              <Table.Cell>
                <IconAct label={`Take ${p.name} away`} onClick={() => remove.mutate(p.id)}>
                  <Trash2 size={15} />
                </IconAct>
              </Table.Cell>
            </Table.Row>
          ))}
        </Table.Body>
      </Table.Root>
      <AddPerson onAdded={() => void again()} />
    </Box>
  );
}

function NewPassword({ name, onTake }: { name: string; onTake(password: string): void }) {
  const [text, setText] = useState('');
  return (
    <Flex gap="6px">
      <PasswordInput
        size="xs"
        autoComplete="new-password"
        aria-label={`another password for ${name}`}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <Button size="xs" disabled={text === ''} onClick={() => (onTake(text), setText(''))}>
        Give it
      </Button>
    </Flex>
  );
}

function AddPerson({ onAdded }: { onAdded(): void }) {
  const [role, setRole] = useState<Person['role']>('operator');
  const { register, handleSubmit, reset } = useForm<{ name: string; password: string }>();
  const add = useMutation({
    mutationFn: (v: { name: string; password: string }) => api.addPerson({ ...v, role }),
    onSuccess: () => (reset(), onAdded()),
  });
  return (
    <Box asChild marginTop="20px">
      <form onSubmit={(e) => void handleSubmit((v) => add.mutate(v))(e)} aria-label="Add somebody">
        <Heading as="h2" fontSize="15px" marginBottom="8px">
          Add somebody
        </Heading>
        <Flex gap="12px" wrap="wrap" align="end">
          <Labelled name="name" width="180px">
            <Input size="sm" aria-label="name" autoComplete="off" {...register('name')} />
          </Labelled>
          <Labelled name="password, ten letters at least" width="220px">
            <PasswordInput
              size="sm"
              aria-label="password"
              autoComplete="new-password"
              {...register('password')}
            />
          </Labelled>
          <Labelled name="role">
            <Choice<Person['role']> label="role" value={role} options={ROLES} onChange={setRole} />
          </Labelled>
          <Button type="submit" size="sm" loading={add.isPending}>
            <UserPlus size={15} /> Add
          </Button>
        </Flex>
        {add.isError && <FieldSays>{add.error.message}</FieldSays>}
      </form>
    </Box>
  );
}
