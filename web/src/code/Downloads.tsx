import { Box, Button, List, Text } from '@chakra-ui/react';
import { Download, FolderArchive } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { WrittenSetup } from '@yellow-pin/core/job/produce';
import { useJob } from '../job/job-view.ts';
import { Asked } from '../kit/Asked.tsx';
import { saveFile } from '../kit/save-file.ts';
import { askedBefore } from './asked-before.ts';

/**
 * The program of the shown setup as a file, and those of all setups in one; where something is wrong, or not known yet, that is said and
 * asked first.
 */
export function Downloads() {
  const { program, produced, open, plan, checks, metal } = useJob();
  const [asking, setAsking] = useState<'this' | 'all' | null>(null);
  if (!produced || produced.programs.length === 0) return null;
  const { programs } = produced;
  // What was typed a moment ago is not in the code that is there.
  const isReading = produced.checks === null || produced.of !== plan;
  const list = asking === 'all' ? programs : program ? [program] : [];
  const asked = isReading ? [READING] : askedBefore(list, checks, metal);
  const isWaiting = isReading || metal === 'under way';
  const save = (): void => {
    setAsking(null);
    const [one] = list;
    if (list.length === 1 && one) return saveFile(one.fileName, one.text);
    void zipped(list).then((bytes) => saveFile(`${zipName(open.job.name)}.zip`, bytes, 'application/zip'));
  };
  return (
    <>
      {program && (
        <Button size="xs" marginInlineStart="auto" onClick={() => setAsking('this')}>
          <Download size={15} />
          <Box as="span" maxWidth="230px" truncate>
            {program.fileName}
          </Box>
        </Button>
      )}
      {programs.length > 1 && (
        <Button size="xs" onClick={() => setAsking('all')}>
          <FolderArchive size={15} /> All {programs.length}
        </Button>
      )}
      {asking && <WhenKnown isReady={asked.length === 0} onReady={save} />}
      {asking && asked.length > 0 && (
        <Asked
          title="Before it is sent"
          isAlert
          onLeave={() => setAsking(null)}
          answers={
            <>
              <Button onClick={() => setAsking(null)}>Go back</Button>
              <Button variant="solid" disabled={isReading} onClick={save}>
                Save it all the same
              </Button>
            </>
          }
        >
          <List.Root gap="4px" paddingInlineStart="18px">
            {asked.map((text) => (
              <List.Item key={text}>{text}</List.Item>
            ))}
          </List.Root>
          <Text marginTop="10px">
            {isWaiting
              ? 'It is saved by itself as soon as that is known, where nothing wrong is found.'
              : 'Do not run it as it is.'}
          </Text>
        </Asked>
      )}
    </>
  );
}

const READING = 'The code is being read back.';

/** Goes on by itself as soon as there is nothing to ask any more. */
function WhenKnown({ isReady, onReady }: { isReady: boolean; onReady(): void }) {
  const go = useRef(onReady);
  go.current = onReady;
  useEffect(() => {
    if (isReady) go.current();
  }, [isReady]);
  return null;
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
