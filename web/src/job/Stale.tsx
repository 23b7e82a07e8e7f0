import { Button } from '@chakra-ui/react';
import { useQueryClient } from '@tanstack/react-query';
import type { Conflict } from '@yellow-pin/core/plan/merge';
import { Notice } from '../kit/Notice.tsx';
import { useJob } from './job-view.ts';
import type { Elsewhere } from './use-job.ts';

/** Somebody else saved the plan while it was changed here: theirs, mine, or both where they touch different rows. */
export function Stale({ message, elsewhere }: { message: string; elsewhere: Elsewhere | null }) {
  const { id, rows } = useJob();
  const client = useQueryClient();
  if (!elsewhere)
    return (
      <Notice
        kind="error"
        actions={
          <Button size="xs" onClick={() => void client.invalidateQueries({ queryKey: ['job', id] })}>
            Load the newer plan
          </Button>
        }
      >
        {message} What you changed here is kept in this browser and offered again after that.
      </Notice>
    );
  const { conflicts, take } = elsewhere;
  const tags = new Map(rows.map((r) => [r.size.key, r.tag]));
  const named = [...new Set(conflicts.map((c) => nameOf(c, tags)))];
  return (
    <Notice
      kind="error"
      actions={
        <>
          {conflicts.length === 0 && (
            <Button size="xs" variant="solid" onClick={() => take('both')}>
              Keep both
            </Button>
          )}
          <Button size="xs" onClick={() => take('mine')}>
            Mine
          </Button>
          <Button size="xs" onClick={() => take('theirs')}>
            Theirs
          </Button>
        </>
      }
    >
      {message}{' '}
      {conflicts.length === 0
        ? 'You changed other rows than they did: both can be kept.'
        : `Both of you changed ${named.join(', ')}: choose whose stands. The other stays among the plan’s revisions.`}
    </Notice>
  );
}

/** A place of the plan that both changed, in words. */
function nameOf({ field, key }: Conflict, tags: ReadonlyMap<string, string>): string {
  if (field === 'sizes') return `row ${tags.get(key ?? '') ?? 'of a size'}`;
  const words: Partial<Record<Conflict['field'], string>> = {
    setups: 'a setup',
    toolOrders: 'the order of tools',
    splits: 'where files begin',
    loaded: 'numbers in the magazine',
    handEdits: 'edits by hand',
    codeOptions: 'how code is written',
    corrections: 'a correction',
    tools: 'a tool',
    accepted: 'an accepted finding',
    machineId: 'the machine',
    materialId: 'the material',
    units: 'the unit',
    edgeBreak: 'how sharp edges are broken',
    drawing: 'the drawing’s depths',
  };
  return words[field] ?? String(field);
}
