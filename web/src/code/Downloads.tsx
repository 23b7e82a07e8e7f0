import { Box, Button, List, Text } from '@chakra-ui/react';
import { Download, FolderArchive } from 'lucide-react';
import { useState } from 'react';
import type { WrittenSetup } from '@yellow-pin/core/job/produce';
import { useJob } from '../job/job-view.ts';
import { Asked } from '../kit/Asked.tsx';
import { saveFile } from '../kit/save-file.ts';
import { askedBefore } from './asked-before.ts';

/** The program of the shown setup as a file, and those of all setups in one; where something is wrong, that is said and asked first. */
export function Downloads() {
  const { program, produced, open, checks, metal } = useJob();
  const [asking, setAsking] = useState<WrittenSetup[] | null>(null);
  if (!produced || produced.programs.length === 0) return null;
  const { programs } = produced;
  // Until the plan's own code is read back, what is there is of the plan before, or not known to be in order.
  const isReading = produced.checks === null;
  const save = (list: readonly WrittenSetup[]): void => {
    setAsking(null);
    if (list.length === 1) return saveFile(list[0]!.fileName, list[0]!.text);
    void zipped(list).then((bytes) => saveFile(`${zipName(open.job.name)}.zip`, bytes, 'application/zip'));
  };
  const start = (list: WrittenSetup[]): void => {
    if (askedBefore(list, checks, metal).length > 0) setAsking(list);
    else save(list);
  };
  return (
    <>
      {program && (
        <Button size="xs" marginInlineStart="auto" disabled={isReading} onClick={() => start([program])}>
          <Download size={15} />
          <Box as="span" maxWidth="230px" truncate>
            {program.fileName}
          </Box>
        </Button>
      )}
      {programs.length > 1 && (
        <Button size="xs" disabled={isReading} onClick={() => start(programs)}>
          <FolderArchive size={15} /> All {programs.length}
        </Button>
      )}
      {asking && (
        <Asked
          title="Before it is sent"
          isAlert
          onLeave={() => setAsking(null)}
          answers={
            <>
              <Button onClick={() => setAsking(null)}>Go back</Button>
              <Button variant="solid" onClick={() => save(asking)}>
                Save it all the same
              </Button>
            </>
          }
        >
          <List.Root gap="4px" paddingInlineStart="18px">
            {askedBefore(asking, checks, metal).map((text) => (
              <List.Item key={text}>{text}</List.Item>
            ))}
          </List.Root>
          <Text marginTop="10px">Do not run it as it is.</Text>
        </Asked>
      )}
    </>
  );
}

/** All programs as one ZIP file. */
async function zipped(programs: readonly WrittenSetup[]): Promise<Uint8Array<ArrayBuffer>> {
  const { strToU8, zipSync } = await import('fflate');
  const files = Object.fromEntries(programs.map((p) => [p.fileName, strToU8(p.text)]));
  return new Uint8Array(zipSync(files));
}

const zipName = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, 60) || 'programs';
