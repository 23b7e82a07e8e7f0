import { Button, Flex, IconButton, Menu, Portal } from '@chakra-ui/react';
import { Copy, EllipsisVertical, PencilLine, RotateCcw, Trash2 } from 'lucide-react';
import type { ListedJob } from '../api.ts';
import { IconAct } from '../kit/IconAct.tsx';
import type { JobActions } from './use-job-actions.ts';

/** What can be done with a job in the list, or in the bin. */
export function JobActs({ job, actions }: { job: ListedJob; actions: JobActions }) {
  if (job.deletedAt !== null) {
    return (
      <Flex gap="6px" justify="end">
        <Button size="xs" aria-label={`Bring ${job.name} back`} onClick={() => actions.restore(job)}>
          <RotateCcw size={14} /> Bring back
        </Button>
        <Button size="xs" aria-label={`Take ${job.name} away for good`} onClick={() => actions.purge(job)}>
          <Trash2 size={14} /> For good
        </Button>
      </Flex>
    );
  }
  return (
    <Flex justify="end">
      <Menu.Root>
        <Menu.Trigger asChild>
          <IconButton variant="ghost" size="xs" color="inherit" aria-label={`More for ${job.name}`}>
            <EllipsisVertical size={16} />
          </IconButton>
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content background="sheet" borderWidth="1px" borderColor="rule">
              <Menu.Item value="rename" onClick={() => actions.startRename(job.id)}>
                <PencilLine size={14} /> Rename
              </Menu.Item>
              <Menu.Item value="copy" disabled={job.status !== 'ready'} onClick={() => actions.copy(job)}>
                <Copy size={14} /> Duplicate
              </Menu.Item>
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
      <IconAct
        label={`Delete ${job.name}`}
        hint="Delete: it goes to the bin"
        onClick={() => actions.remove(job)}
      >
        <Trash2 size={16} />
      </IconAct>
    </Flex>
  );
}
