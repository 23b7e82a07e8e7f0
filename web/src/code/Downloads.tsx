import { Box, Button, List, Menu, Portal, Text } from '@chakra-ui/react';
import { ChevronDown, Download, Files, FolderArchive, Scissors } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { plainName } from '@yellow-pin/core/code/files/plain-name';
import { filesOf } from '@yellow-pin/core/job/files';
import { useJob } from '../job/job-view.ts';
import { usePicked } from '../job/store.ts';
import { Asked } from '../kit/Asked.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { saveFile } from '../kit/save-file.ts';
import { toaster } from '../kit/toaster.tsx';
import { askedBefore } from './asked-before.ts';
import { floorPackage } from './floor-package.ts';

/** What is saved: the shown setup's file or files, one operation of it, or everything for the floor. */
type What = 'this' | 'operation' | 'all';

/**
 * The ways out for programs: the shown setup as a file (or as several, where it is split), the operation in hand, or all that the floor needs
 * in one file. Where something is wrong, or not known yet, that is said and asked first.
 */
export function Downloads() {
  const { program, produced, open, plan, checks, metal, remote } = useJob();
  const { tag, operation } = usePicked('tag', 'operation');
  const [asking, setAsking] = useState<What | null>(null);
  const [doing, setDoing] = useState<string | null>(null);
  if (!produced || produced.programs.length === 0) return null;
  const { programs, job } = produced;
  // What was typed a moment ago is not in the code that is there.
  const isReading = produced.checks === null || produced.of !== plan;
  const list = asking === 'all' ? programs : program ? [program] : [];
  const asked = isReading ? [READING] : askedBefore(list, checks, metal);
  const isWaiting = isReading || metal === 'under way';
  const inHand = program?.setup.operations.find(
    (o) => o.tag === tag && (operation === null || operation === o.key),
  );
  const files = program ? filesOf(program, plan.splits, job.machine) : [];
  const save = async (): Promise<void> => {
    const what = asking;
    setAsking(null);
    if (what === 'this') for (const f of files) saveFile(f.fileName, f.text);
    if (what === 'operation' && program && inHand) {
      const file = await remote.current?.operationFile(program.setup.setup.id, inHand.id);
      if (file && 'text' in file) saveFile(file.fileName, file.text);
      else if (file) toaster.create({ type: 'error', description: file.why });
    }
    if (what === 'all' && remote.current) {
      const input = { jobName: open.job.name, programs, plan, job, remote: remote.current };
      const bytes = await floorPackage(input, setDoing).finally(() => setDoing(null));
      saveFile(`${plainName(open.job.name, 'programs')}.zip`, bytes, 'application/zip');
    }
  };
  return (
    <>
      {doing !== null && (
        <Quiet role="status" marginInlineStart="auto">
          {doing} …
        </Quiet>
      )}
      <Menu.Root onSelect={(d) => setAsking(d.value as What)} positioning={{ placement: 'bottom-end' }}>
        <Menu.Trigger asChild>
          <Button size="xs" marginInlineStart={doing === null ? 'auto' : undefined} loading={doing !== null}>
            <Download size={15} /> Save <ChevronDown size={14} />
          </Button>
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content minWidth="260px">
              {program && (
                <Menu.Item value="this">
                  {files.length > 1 ? <Files size={15} /> : <Download size={15} />}
                  <Box as="span" truncate>
                    {files.length > 1 ? `${files.length} files of this setup` : program.fileName}
                  </Box>
                </Menu.Item>
              )}
              {program && (
                <Menu.Item value="operation" disabled={!inHand}>
                  <Scissors size={15} />
                  {inHand
                    ? `only ${inHand.tag} ${inHand.label}`
                    : 'only one operation: take it in hand first'}
                </Menu.Item>
              )}
              <Menu.Item value="all">
                <FolderArchive size={15} /> everything for the floor, as ZIP
              </Menu.Item>
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
      {asking && <WhenKnown isReady={asked.length === 0} onReady={() => void save()} />}
      {asking && asked.length > 0 && (
        <Asked
          title="Before it is sent"
          isAlert
          onLeave={() => setAsking(null)}
          answers={
            <>
              <Button onClick={() => setAsking(null)}>Go back</Button>
              <Button variant="solid" disabled={isReading} onClick={() => void save()}>
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
