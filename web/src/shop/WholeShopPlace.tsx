import { Box, Button, FileUpload, Flex, Table } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { FileDown, FileUp } from 'lucide-react';
import { useState } from 'react';
import type { Library } from '@yellow-pin/core/plan/library';
import type { ListName } from '@yellow-pin/core/plan/library-items';
import { shopChanges, type ShopChanges } from '@yellow-pin/core/plan/shop-changes';
import { api } from '../api.ts';
import { FieldSays } from '../kit/FieldSays.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { saveFile } from '../kit/save-file.ts';

/** What others name comes first: a tool stands in a holder. */
const IN_TURN: readonly ListName[] = ['holders', 'materials', 'machines', 'tools', 'methods'];

/** All that the shop has as one file, out and in; what taking one in would change is shown first. */
export function WholeShopPlace({ library }: { library: Library }) {
  const client = useQueryClient();
  const [seen, setSeen] = useState<{ file: string; changes: ShopChanges } | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const look = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    setSaid(null);
    setSeen(null);
    try {
      const changes = shopChanges(library, JSON.parse(await file.text()));
      if (changes) setSeen({ file: file.name, changes });
      else setSaid(`${file.name} holds no lists of a shop. Take a file that was saved here.`);
    } catch (e) {
      setSaid(`${file.name} is no JSON: ${(e as Error).message}`);
    }
  };
  const take = useMutation({
    mutationFn: async ({ changes, library: given }: ShopChanges) => {
      const left: string[] = [];
      for (const list of IN_TURN) {
        const ids = new Set(changes.filter((c) => c.list === list).map((c) => c.id));
        const items = given[list].filter((i) => ids.has(i.id));
        if (items.length === 0) continue;
        const answer = await api.importItems(list, items);
        left.push(...answer.left.map((l) => `${list}: ${l.message}`));
      }
      return left;
    },
    onSuccess: (left) => {
      setSeen(null);
      setSaid(left.length === 0 ? 'All of it is taken in.' : `Taken in, but for: ${left.join(' ')}`);
    },
    onError: (e) => setSaid(e.message),
    onSettled: () => client.invalidateQueries({ queryKey: ['library'] }),
  });
  return (
    <Box paddingTop="14px" maxWidth="860px">
      <Flex gap="8px" wrap="wrap" align="center" marginBottom="12px">
        <Button
          size="sm"
          onClick={() => saveFile('shop.json', JSON.stringify(library, null, 1), 'application/json')}
        >
          <FileDown size={16} /> Save the whole shop
        </Button>
        <FileUpload.Root
          width="auto"
          accept={['.json', 'application/json']}
          maxFiles={1}
          acceptedFiles={[]}
          onFileChange={(d) => void look(d.acceptedFiles[0] ?? d.rejectedFiles[0]?.file)}
        >
          <FileUpload.HiddenInput aria-label="file of a whole shop" />
          <FileUpload.Trigger asChild>
            <Button size="sm" variant="outline">
              <FileUp size={16} /> Look at a shop’s file
            </Button>
          </FileUpload.Trigger>
        </FileUpload.Root>
        <Quiet fontSize="13px">
          Tools, holders, methods, materials and machines; the command line reads the same file.
        </Quiet>
      </Flex>
      {said && <Box role="status">{said}</Box>}
      {seen && (
        <Seen
          {...seen}
          isTaking={take.isPending}
          onTake={() => take.mutate(seen.changes)}
          onLeave={() => setSeen(null)}
        />
      )}
    </Box>
  );
}

interface SeenProps {
  file: string;
  changes: ShopChanges;
  isTaking: boolean;
  onTake(): void;
  onLeave(): void;
}

/** What a file would change, before anything is. */
function Seen({ file, changes: { changes, same, left }, isTaking, onTake, onLeave }: SeenProps) {
  return (
    <section aria-label={`What ${file} would change`}>
      <p>
        {file}: {same} entries are as they are here; what the file does not have stays.{' '}
        {changes.length === 0 ? 'Nothing would change.' : `${changes.length} would change:`}
      </p>
      {left.map((l) => (
        <FieldSays key={l}>{`left out, ${l}`}</FieldSays>
      ))}
      {changes.length > 0 && (
        <>
          <Box
            maxHeight="46vh"
            overflow="auto"
            marginBlock="8px"
            tabIndex={0}
            role="region"
            aria-label="changes"
          >
            <Table.Root size="sm" unstyled className="listing">
              <Table.Header>
                <Table.Row>
                  {['list', 'entry', 'what'].map((h) => (
                    <Table.ColumnHeader key={h}>{h}</Table.ColumnHeader>
                  ))}
                </Table.Row>
              </Table.Header>
              <Table.Body>
                {changes.map((c) => (
                  <Table.Row key={`${c.list}/${c.id}`}>
                    <Table.Cell>{c.list}</Table.Cell>
                    <Table.Cell>{c.name}</Table.Cell>
                    <Table.Cell>{c.kind === 'new' ? 'is new' : `other ${c.fields.join(', ')}`}</Table.Cell>
                  </Table.Row>
                ))}
              </Table.Body>
            </Table.Root>
          </Box>
          <Button size="sm" variant="solid" loading={isTaking} onClick={onTake}>
            Take it in
          </Button>
        </>
      )}{' '}
      <Button size="sm" variant="outline" onClick={onLeave}>
        Leave it
      </Button>
    </section>
  );
}
