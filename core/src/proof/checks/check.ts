import type { WantedRim } from '../../motion/work.ts';
import type { CycleCall, ReadProgram } from '../../code/read/motion.ts';
import type { DerivedJob, DerivedSetup } from '../../job/derive.ts';
import type { Vec3 } from '../../geometry/vec.ts';
import type { PlannedOperation, Row } from '../../job/row.ts';
import type { HoleView } from '../../operations/hole-view.ts';
import type { Work } from '../../motion/work.ts';
import type { Severity } from '../../operations/kind.ts';
import type { Space } from '../../space/space.ts';
import type { Disc, ProfilePoint } from '../../tools/profile.ts';
import type { Tool } from '../../tools/schema.ts';
import type { HoleFinder, MilledHole } from '../milled.ts';
import type { AreaFinder, MilledArea } from '../areas/finder.ts';
import type { EdgeFinder, MilledEdge } from '../edges/finder.ts';
import type { MilledRise, RiseFinder } from '../edges/rises.ts';
import type { EntryHole } from '../entry-holes.ts';
import type { GrooveFinder, MilledGroove } from '../grooves/finder.ts';
import type { MilledBoss, SeenBoss } from '../threads/bosses.ts';

/** One finding: what, where and the mend. Severities: an error must not be sent to the machine. */
export interface Check {
  rule: string;
  severity: Severity;
  message: string;
  tag?: string;
  feature?: string;
  setupId?: string;
  line?: number;
  /** The place of it in the part file's frame, mm. */
  at?: Vec3;
  /** The text was not understood, or the plan cannot be posted so: it must be mended and cannot be accepted. */
  mustMend?: true;
  /** Why somebody has accepted it; it counts as a note then. */
  accepted?: string;
}

/** A finding before it is known which setup it is of. */
export type Finding = Omit<Check, 'setupId'>;

/** A hole of the model as this setup makes it, with its row. */
export interface SeenHole {
  view: HoleView;
  row: Row;
  /** Rims that are broken in this setup though the model has them sharp. */
  wanted: readonly WantedRim[];
}

/** A cycle line together with the hole it makes. */
export interface MadeHole {
  call: CycleCall;
  /** Place among the program's cycle lines. */
  index: number;
  tool: Tool | null;
  view: HoleView | null;
  row: Row | null;
  tag: string | null;
  /** What the plan has for this tool on this hole. */
  planned: { operation: PlannedOperation; hole: Work } | null;
}

export interface CheckContext {
  job: DerivedJob;
  setup: DerivedSetup;
  space: Space;
  discs(tool: Tool): readonly Disc[];
  outline(tool: Tool): readonly ProfilePoint[];
  read: ReadProgram;
  holes: SeenHole[];
  made: MadeHole[];
  /** Holes that mills went round in, and where motions of mills belong. */
  milled: MilledHole[];
  finder: HoleFinder;
  /** Slots, grooves and channels, and what was milled in them. */
  grooves: GrooveFinder;
  milledGrooves: MilledGroove[];
  /** Faces, steps, pockets and outlines that are to be made, and what was milled at their floors. */
  areas: AreaFinder;
  milledAreas: MilledArea[];
  /** Edges that are to be broken, chamfered or rounded, and what was cut along them. */
  edges: EdgeFinder;
  milledEdges: MilledEdge[];
  rises: RiseFinder;
  milledRises: MilledRise[];
  /** Holes to go in by, by their lines. */
  entryHoles: ReadonlyMap<number, EntryHole>;
  /** Bosses that have a thread, and what went round them. */
  bosses: SeenBoss[];
  milledBosses: MilledBoss[];
  /** Ids of features that earlier setups make whole. */
  madeEarlier: ReadonlySet<string>;
  toolOf(number: number): Tool | null;
  units: 'mm' | 'inch';
  /** A length with its unit. */
  say(mm: number): string;
  /** A coordinate as it would be written: `Z-21.354`. */
  word(letter: string, mm: number): string;
}

export interface CheckRule {
  rule: string;
  run(context: CheckContext): Finding[];
}

/** Depths agree within this, mm: more than any rounding of the code, less than matters in a hole. */
export const DEPTH_TOLERANCE = 0.01;

export const at = (m: MadeHole): Pick<Finding, 'line' | 'tag' | 'feature'> => ({
  line: m.call.line,
  tag: m.tag ?? undefined,
  feature: m.view?.feature.id,
});
export const name = (m: MadeHole): string => m.view?.label ?? `line ${m.call.line}`;
export const toolName = (tool: Tool): string => `T${tool.number ?? '–'} ${tool.description}`;

/** Whether the line's depth is the plan's own. */
export const isAsPlanned = (m: MadeHole): boolean =>
  m.planned !== null && Math.abs(m.planned.hole.z - m.call.z) <= DEPTH_TOLERANCE;

/** Of the lines that one tool drills one hole in, the deepest: depths are judged once. */
export function deepestLines(made: readonly MadeHole[]): MadeHole[] {
  const deepest = new Map<string, MadeHole>();
  const loose: MadeHole[] = [];
  for (const m of made) {
    if (!m.view) {
      loose.push(m);
      continue;
    }
    const key = `${m.view.feature.id}/${m.call.tool}`;
    const before = deepest.get(key);
    if (!before || m.call.z < before.call.z) deepest.set(key, m);
  }
  return [...deepest.values(), ...loose].sort((a, b) => a.index - b.index);
}
