import type { PlannedOperation } from '../../job/row.ts';
import { threadSizes, type ThreadSide } from '../../threads/shape.ts';
import { leadOf, startsOf, type Thread } from '../../threads/thread.ts';
import { firstTooth } from '../../tools/kinds/thread-mill.ts';
import { toothDiameter } from '../../operations/thread-mill/mill.ts';
import type { Tool } from '../../tools/schema.ts';
import type { Turns } from './turns.ts';

/** A place where a thread cutter went round, as read from the text. Program coordinates, mm. */
export interface ThreadPlace {
  label: string;
  tag: string;
  feature: string;
  side: ThreadSide;
  x: number;
  y: number;
  /** Where full thread is to begin. */
  startZ: number;
  thread: Thread | null;
  /** Depth of full thread that the print asks for. */
  printed?: number;
  tool: Tool;
  /** First line in which the cutter is fed there. */
  line: number;
  turns: Turns[];
  planned: readonly PlannedOperation[];
}

/** A place of the lowest tooth, against the thread that is wanted. */
export interface ToothPlace {
  line: number;
  z: number;
  angle: number;
  /** By how much the diameter there is cut deeper than wanted, mm; less than nought: not as deep. */
  off: number;
  /** Diameter that is cut, and the one that is wanted. */
  diameter: number;
  wanted: number;
}

/** Turns with what they cut. */
export interface CutTurns {
  clockwise: boolean;
  places: ToothPlace[];
  /** Deepest and least deep place. */
  most: ToothPlace;
  least: ToothPlace;
  /** Where the groove lies along the axis at the angle of X, within one pitch, mm. */
  phase: number;
}

/** The planned fit: how much wider than the standard's the thread is to be, mm. */
function plannedFit({ planned }: ThreadPlace): number {
  const said = planned.flatMap((o) => o.parameters.filter((p) => p.key === 'fit').map((p) => p.value))[0];
  return typeof said === 'number' ? said : 0;
}

/** +1 for a right hand: it goes up counter-clockwise. */
const handSign = ({ hand }: Pick<Thread, 'hand'>): 1 | -1 => (hand === 'right' ? 1 : -1);

/** What the turns cut, seen against a thread. */
export function cutTurns(place: ThreadPlace, thread: Thread): CutTurns[] {
  const { tool, side, startZ } = place;
  const fit = plannedFit(place);
  const d = toothDiameter(tool);
  const outward = side === 'inside' ? 1 : -1;
  return place.turns.flatMap(({ places, clockwise }) => {
    const seen = places.map(({ line, z, angle, radius }): ToothPlace => {
      const tooth = z + firstTooth(tool);
      const { major, minor } = threadSizes(thread, side, startZ - tooth);
      const wanted = (side === 'inside' ? major : minor) + fit;
      const diameter = 2 * radius + outward * d;
      return { line, z: tooth, angle, off: outward * (diameter - wanted), diameter, wanted };
    });
    const [begin] = seen;
    if (!begin) return [];
    const most = seen.reduce((a, b) => (b.off > a.off ? b : a));
    const least = seen.reduce((a, b) => (b.off < a.off ? b : a));
    return [{ clockwise, places: seen, most, least, phase: phaseOf(begin, thread) }];
  });
}

/** Where a groove that passes a place lies along the axis at the angle of X, within a lead, mm. */
export function phaseOf({ z, angle }: Pick<ToothPlace, 'z' | 'angle'>, thread: Thread): number {
  const lead = leadOf(thread);
  const at = z - (handSign(thread) * lead * angle) / (2 * Math.PI);
  return at - lead * Math.floor(at / lead);
}

/** How far apart two places along the axis are, whole pitches left out, mm: nought where one groove runs through both. */
export const outOfStep = (a: number, b: number, pitch: number): number => {
  const off = (a - b) / pitch;
  return pitch * (off - Math.round(off));
};

/** Which of the thread's starts a groove is, counted from another. */
export function startNumber(phase: number, from: number, thread: Thread): number {
  const n = startsOf(thread);
  return ((Math.round((phase - from) / thread.pitch) % n) + n) % n;
}

/** Angle at which a groove of that phase begins at a level, degrees from X. */
export function angleAt(phase: number, z: number, thread: Thread): number {
  const turns = (handSign(thread) * (z - phase)) / leadOf(thread);
  return 360 * (turns - Math.floor(turns));
}
