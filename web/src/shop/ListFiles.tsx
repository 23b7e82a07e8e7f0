import { Button, FileUpload, Flex, List } from '@chakra-ui/react';
import { FileDown, FileUp, X } from 'lucide-react';
import { useState } from 'react';
import type { Library } from '@yellow-pin/core/plan/library';
import type { ListName } from '@yellow-pin/core/plan/library-items';
import { IconAct } from '../kit/IconAct.tsx';
import { Notice } from '../kit/Notice.tsx';
import { saveFile } from '../kit/save-file.ts';
import { itemsOf, type FileItems } from './list-file.ts';
import { useListChanges } from './use-library.ts';

interface Props {
  list: ListName;
  library: Library;
  /** Other ways than JSON to give the list out, and to read it in. */
  csv?: { write(): string; read(text: string): FileItems };
}

/** The whole list as a file, and lists from files: a bad entry is named, the rest is kept. */
export function ListFiles({ list, library, csv }: Props) {
  const { take } = useListChanges(list);
  const [said, setSaid] = useState<{ text: string; left: FileItems['left'] } | null>(null);
  const read = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    setSaid(null);
    const { items, left } = itemsOf(list, file.name, await file.text(), csv?.read);
    if (items.length === 0) {
      setSaid({ text: `${file.name}: nothing was taken.`, left });
      return;
    }
    take.mutate(items, {
      onSuccess: (answer) =>
        setSaid({
          text: `${file.name}: ${answer.taken} taken.`,
          left: [...left, ...answer.left.map((l) => ({ place: `entry ${l.index + 1}`, message: l.message }))],
        }),
      onError: (e) => setSaid({ text: `${file.name}: ${e.message}`, left }),
    });
  };
  return (
    <>
      <Flex gap="6px" wrap="wrap" align="center">
        <FileUpload.Root
          width="auto"
          accept={csv ? ['.json', '.csv', 'application/json', 'text/csv'] : ['.json', 'application/json']}
          maxFiles={1}
          acceptedFiles={[]}
          onFileChange={(d) => void read(d.acceptedFiles[0] ?? d.rejectedFiles[0]?.file)}
        >
          <FileUpload.HiddenInput aria-label={`file of ${list}`} />
          <FileUpload.Trigger asChild>
            <Button size="xs" loading={take.isPending}>
              <FileUp size={15} /> Take in
            </Button>
          </FileUpload.Trigger>
        </FileUpload.Root>
        {csv && (
          <Button size="xs" onClick={() => saveFile(`${list}.csv`, csv.write(), 'text/csv')}>
            <FileDown size={15} /> CSV
          </Button>
        )}
        <Button
          size="xs"
          onClick={() =>
            saveFile(`${list}.json`, JSON.stringify({ [list]: library[list] }, null, 1), 'application/json')
          }
        >
          <FileDown size={15} /> JSON
        </Button>
      </Flex>
      {said && (
        <Notice
          width="100%"
          kind={said.left.length > 0 ? 'error' : 'said'}
          actions={
            <IconAct label="Close" onClick={() => setSaid(null)}>
              <X size={16} />
            </IconAct>
          }
        >
          {said.text}
          {said.left.length > 0 && (
            <List.Root marginTop="4px" maxHeight="120px" overflow="auto">
              {said.left.map((l) => (
                <List.Item key={l.place}>
                  {l.place}: {l.message}
                </List.Item>
              ))}
            </List.Root>
          )}
        </Notice>
      )}
    </>
  );
}
