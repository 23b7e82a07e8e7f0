import type { ProofPlace } from '../metal/places.ts';
import type { MetalProof } from '../metal/prove-metal.ts';
import type { Check } from './checks/check.ts';

/** Rules whose findings are a tool in something that it is not to cut. */
const COLLISIONS = new Set([
  'low-rapid',
  'rapid-into-part',
  'into-part',
  'rapid-into-metal',
  'holder-into-metal',
  'holding',
]);

export interface ProofSummary {
  /** mm³ and mm, of what is not wanted; null where the part's shape is not known. */
  overcutVolume: number | null;
  leftoverVolume: number | null;
  largestOvercut: number | null;
  /** What the volumes do not count, in words. */
  notCounted: string[];
  collisions: { line?: number; message: string }[];
  places: ProofPlace[];
}

/** What the metal says, with the collisions that any check has found. */
export const proofSummary = (metal: MetalProof, checks: readonly Check[]): ProofSummary => ({
  overcutVolume: metal.overcutVolume,
  leftoverVolume: metal.leftoverVolume,
  largestOvercut: metal.largestOvercut,
  notCounted: metal.notCounted,
  collisions: checks.filter((c) => COLLISIONS.has(c.rule)).map((c) => ({ line: c.line, message: c.message })),
  places: metal.places,
});

/** Whether a rule's findings are collisions. */
export const isCollision = (rule: string): boolean => COLLISIONS.has(rule);
