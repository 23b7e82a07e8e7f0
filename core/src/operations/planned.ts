import type { Planned } from './kind.ts';

/** An operation with its place in a job. */
export interface PlannedOperation extends Planned {
  id: string;
  kind: string;
  label: string;
  rank: number;
  setupId: string;
  tag: string;
  sizeKey: string;
  /** Key of its typed parameters in the plan. */
  key: string;
  /** Place among the operations of its size. */
  position: number;
  /** Keys of other sizes whose cavities its holes start in, made before in the same setup. */
  after: string[];
}
