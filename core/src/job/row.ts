import type { Callout } from '../callout/callout.ts';
import { isInPreparedStock, isOptional } from '../features/registry.ts';
import type { FeatureSize } from '../features/sets.ts';
import type { AreaView } from '../operations/area-view.ts';
import type { EdgeView } from '../operations/edge-view.ts';
import type { GrooveView } from '../operations/groove-view.ts';
import type { HoleView } from '../operations/hole-view.ts';
import type { Remark } from '../operations/kind.ts';
import type { PlannedOperation } from '../operations/planned.ts';
import type { ToolNeed } from '../tools/find.ts';
import type { Thread } from '../threads/thread.ts';

export type { PlannedOperation };

/** `optional`: nothing in the model asks for it (a sharp edge). */
export type RowState = 'planned' | 'open' | 'left out' | 'unreachable' | 'optional';

/** Why a row is not made, as far as it tells the way on: a tool is added, the part turned, the row left out, or something is to be decided. */
export type NotMade = 'no tool' | 'out of reach' | 'no method yet' | 'to decide';

/** What a size may be, until the programmer says: likeliest first. */
export type Guess =
  /** What the part's own file says of it: a callout in the job's unit. */
  | { kind: 'said'; callout: string }
  | { kind: 'thread'; designation: string }
  /** A clearance hole for a screw of that size (ISO 273): no thread. */
  | { kind: 'clearance'; screw: string; fit: string };

/** A method as rows name it. */
export interface MethodName {
  id: string;
  name: string;
}

/** A row of the worksheet: one size of feature, and how it is made. */
export interface Row {
  size: FeatureSize;
  tag: string;
  state: RowState;
  callout: Callout;
  calloutText: string;
  thread: Thread | null;
  /** What the print says; empty where nothing is typed. */
  print: Callout;
  /** Guesses that wait for the programmer's word. */
  guesses: Guess[];
  setupId: string | null;
  method: MethodName | null;
  /** Methods that apply, the one that is taken among them. */
  methods: MethodName[];
  holes: HoleView[];
  /** Of a row of slots, grooves or channels. */
  grooves: GrooveView[];
  /** Of a row of faces, steps, pockets or outlines. */
  areas: AreaView[];
  /** Of a row of chamfers, rounded or sharp edges. */
  edges: EdgeView[];
  operations: PlannedOperation[];
  /** Features of a planned row that are left out, each with its reason. */
  blocked: { label: string; feature: string; reason: string }[];
  /** Features of a row that another row's operation makes, each with what does. */
  madeBy: { label: string; feature: string; what: string }[];
  /** Why it is open, unreachable or left out; each says the mend. */
  reasons: string[];
  remarks: Remark[];
  /** Null for what is planned, left out on purpose, or optional. */
  notMade: NotMade | null;
  /** Tools that the shop lacks for it. */
  wants: ToolNeed[];
}

/**
 * Whether its features are faces of their own that are to be made: not so edges, which only name the faces beside them, nor what prepared
 * stock has already.
 */
export const ownsFaces = ({ size, state }: Pick<Row, 'size' | 'state'>): boolean =>
  !size.features.some(isOptional) || (state !== 'optional' && size.features.every(isInPreparedStock));

export const guessName = (g: Guess): string =>
  g.kind === 'said' ? g.callout : g.kind === 'thread' ? g.designation : `${g.screw} clearance, ${g.fit}`;
