import { useEffect, useState } from 'react';
import type { FloorSheet } from '@yellow-pin/core/sheet/schema';
import { useJob } from '../job/job-view.ts';

/** The job's floor sheets as its programs stand; null while they are read back. */
export function useSheets(): FloorSheet[] | null {
  const { produced, remote } = useJob();
  const [sheets, setSheets] = useState<{ of: unknown; list: FloorSheet[] | null } | null>(null);
  const isRead = produced?.checks !== null && produced !== null;
  useEffect(() => {
    if (!isRead) return;
    let current = true;
    void remote.current?.sheets().then((list) => current && setSheets({ of: produced, list }));
    return () => {
      current = false;
    };
  }, [isRead, produced, remote]);
  return sheets?.of === produced ? sheets.list : null;
}
