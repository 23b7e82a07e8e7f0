import { Code2, FileText, ListChecks, Ruler, Stamp, Table2, type LucideIcon } from 'lucide-react';

/** Where one can be in a job: its address below the job's own, its name, its key. */
export interface Place {
  path: string;
  name: string;
  key: string;
  icon: LucideIcon;
}

export const PLACES: readonly Place[] = [
  { path: '', name: 'Worksheet', key: 'w', icon: Table2 },
  { path: 'setup', name: 'Setup', key: 's', icon: Ruler },
  { path: 'prove', name: 'Prove-out', key: 'p', icon: ListChecks },
  { path: 'code', name: 'Code', key: 'c', icon: Code2 },
  { path: 'sheet', name: 'Sheet', key: 'f', icon: FileText },
  { path: 'releases', name: 'Release', key: 'r', icon: Stamp },
];

export const placeAddress = (jobId: string, path: string): string =>
  `/jobs/${jobId}${path === '' ? '' : `/${path}`}`;

/** The place that an address is in. */
export const placeOfAddress = (pathname: string): string => pathname.split('/')[3] ?? '';
