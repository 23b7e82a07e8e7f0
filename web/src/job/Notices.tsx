import { Button } from '@chakra-ui/react';
import { X } from 'lucide-react';
import { Link } from 'react-router-dom';
import { IconAct } from '../kit/IconAct.tsx';
import { Notice } from '../kit/Notice.tsx';
import { useJob } from './job-view.ts';
import { Stale } from './Stale.tsx';
import { undo } from './store.ts';
import type { Saving } from './use-job.ts';

interface Props {
  saving: Saving;
  /** What went wrong while the plan was worked out. */
  error: string | null;
  /** Why the last drag was not done. */
  refused: string | null;
  onClose(): void;
}

/** What the programmer should know before going on, each with its way on. */
export function Notices({ saving, error, refused, onClose }: Props) {
  const { id, open } = useJob();
  const { save, draft, takeDraft, dropDraft, again } = saving;
  return (
    <section aria-label="Notices">
      {save.state === 'stale' && <Stale message={save.message} elsewhere={saving.elsewhere} />}
      {save.state === 'refused' && (
        <Notice
          kind="error"
          actions={
            <Button size="xs" onClick={undo}>
              Undo
            </Button>
          }
        >
          {save.message} Change it back, or undo; what you change next is saved again.
        </Notice>
      )}
      {save.state === 'away' && (
        <Notice
          kind="error"
          actions={
            <Button size="xs" onClick={again}>
              Try now
            </Button>
          }
        >
          {save.message} It is kept in this browser and tried again by itself.
        </Notice>
      )}
      {draft && (
        <Notice
          actions={
            <>
              <Button size="xs" onClick={takeDraft}>
                Use that edit instead
              </Button>
              <Button size="xs" onClick={dropDraft}>
                Drop it
              </Button>
            </>
          }
        >
          This browser holds an edit of this job that was never stored; the plan was changed elsewhere since.
        </Notice>
      )}
      {open.pending && (
        <Notice
          actions={
            <Button size="xs" asChild>
              <Link to={`/jobs/${id}/revision`}>Compare it</Link>
            </Button>
          }
        >
          A newer file of this part waits: {open.pending.fileName}.
        </Notice>
      )}
      {error && <Notice kind="error">{error}</Notice>}
      {refused && (
        <Notice
          kind="error"
          actions={
            <IconAct label="Close" onClick={onClose}>
              <X size={16} />
            </IconAct>
          }
        >
          Not moved: {refused}
        </Notice>
      )}
    </section>
  );
}
