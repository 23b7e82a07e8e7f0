import type { CycleName } from '../../motion/work.ts';
import type { HoleView } from '../../operations/hole-view.ts';
import type { Thread } from '../../threads/thread.ts';
import type { ToolNeed } from '../find.ts';
import type { Tool, ToolKind } from '../schema.ts';

/** A corner of a tool's outline: radius at a height above the programmed tip, mm. */
export interface Corner {
  z: number;
  r: number;
}

/** Numbers that only some kinds of tool have. */
export type OwnNumber = keyof Pick<
  Tool,
  | 'pointAngleDeg'
  | 'tipDiameter'
  | 'teeth'
  | 'cornerRadius'
  | 'neckDiameter'
  | 'neckLength'
  | 'rampAngleDeg'
  | 'pilotDiameter'
  | 'pilotLength'
  | 'profileRadius'
>;

/** What a tool of a kind and size usually measures, without what only the shop can say of it. */
export type UsualShape = Pick<
  Tool,
  | OwnNumber
  | 'diameter'
  | 'sizeName'
  | 'fluteLength'
  | 'shankDiameter'
  | 'cutterMaterial'
  | 'threadForm'
  | 'thread'
>;

/** What is wrong with a tool's shape: the number to look at, and why. */
export interface ShapeFault {
  field: keyof Tool;
  message: string;
}

/** Height above the programmed tip at which a tool's main cone begins, how wide it is there, and its included angle. mm, degrees. */
export interface MainCone {
  z: number;
  diameter: number;
  angleDeg: number;
}

/** What the program knows of one kind of tool. */
export interface ToolKindSpec {
  kind: ToolKind;
  label: string;
  /** It cuts with its end only, straight down: fed sideways it breaks. */
  onlyPlunges: boolean;
  /** Its feed is so much a tooth; else so much a turn. */
  feedsByTooth?: boolean;
  /** Makes a hole in solid metal down to its point. */
  drills?: boolean;
  /** Breaks rims by going round in a hole, wider there than the hole is. */
  onRims?: boolean;
  /** Breaks or rounds edges by going along them: it stands in the corner that it cuts. */
  onEdges?: boolean;
  /** Cuts a thread by going round in a hole: wider than the hole is, as far as the thread goes. */
  cutsThreads?: boolean;
  /** Only starts a hole: of no use where it is there. */
  spots?: boolean;
  /** Opens a hole that is there: it must not come before the drill. */
  needsHole: boolean;
  /** Cycles that it may run in, the usual one first. */
  cycles: readonly CycleName[];
  /** Its depth says how wide a rim it leaves; its own diameter need not be any size of the hole. */
  isCone: boolean;
  /** Numbers of its own that it may have; those that it cannot do without come first, as many as said. */
  own: readonly OwnNumber[];
  needs: number;
  /** Where the cone begins with which it opens a rim; kinds that have none leave it out. */
  cone?(tool: Tool): MainCone;
  /** What only this kind can have wrong about its shape. `say` words a length. */
  wrong?(tool: Tool, say: (mm: number) => string): ShapeFault[];
  /** The cutting end's outline from the tip up to its full radius, or to where its neck begins. */
  end(tool: Tool): Corner[];
  /** Z where the tip of such a tool may stop in a hole, as it is drawn: to tell which of several holes on an axis a line makes. */
  bottoms(tool: Tool, hole: HoleView): number[];
  /** Diameter within which it is to touch the part in a hole, mm. */
  touches(tool: Tool, hole: HoleView, thread: Thread | null): number;
  /** A tool that would do for a need, of the usual proportions; null where the need says no size. */
  usual(need: ToolNeed): UsualShape | null;
}

/** The size a need asks for, mm: the exact one, else the next of a series that is wide enough, else the widest that is allowed. */
export function wantedSize(n: ToolNeed, series: readonly number[]): number | null {
  if (n.diameter !== undefined) return n.diameter;
  const least = n.minDiameter ?? 0;
  const most = n.maxDiameter ?? Infinity;
  return series.find((d) => d >= least - 1e-6 && d <= most + 1e-6) ?? n.minDiameter ?? n.maxDiameter ?? null;
}

/** A size as a figure: at most four decimals, no zeros at the end. */
export const sizeFigure = (mm: number): string => String(Math.round(mm * 1e4) / 1e4);

/** Largest diameter of a hole's steps on this side, mm. */
export const widestStep = (h: HoleView): number =>
  Math.max(0, ...h.steps.map((s) => (s.shape === 'cylinder' ? s.diameter : s.startDiameter)));

/** Diameter of what is drilled first: the narrow step, or the thread's drill where that is wider, mm. */
export function drilledWidth(h: HoleView, thread: Thread | null): number {
  const straight = h.steps.flatMap((s) => (s.shape === 'cylinder' ? [s.diameter] : []));
  return Math.max(straight.length > 0 ? Math.min(...straight) : 0, thread?.tapDrill ?? 0);
}

/** Floors of a hole's steps on this side, Z. */
export const floors = (h: HoleView): number[] => h.steps.map((s) => h.entryZ - s.end);

/** A cone of an included angle that begins as a flat of diameter `tip`. */
export function coneEnd(tip: number, diameter: number, angleDeg: number): Corner[] {
  return [
    { z: 0, r: tip / 2 },
    { z: coneHeight(diameter, tip, angleDeg), r: diameter / 2 },
  ];
}

/** Greatest distance between a curve of an outline and the straight pieces that stand for it, mm. */
const CHORD = 0.009;

/** Corners on an arc from angle `from` to `to` (radians, from the axis' outward direction upward) round (r, z), within {@link CHORD}. */
export function arcCorners(centre: Corner, radius: number, from: number, to: number): Corner[] {
  const step = 2 * Math.acos(Math.max(0, 1 - CHORD / Math.max(radius, CHORD)));
  const n = Math.max(4, Math.ceil(Math.abs(to - from) / step));
  return Array.from({ length: n + 1 }, (_, i) => {
    const a = from + (i / n) * (to - from);
    return {
      z: Math.max(0, centre.z + radius * Math.sin(a)),
      r: Math.max(0, centre.r + radius * Math.cos(a)),
    };
  });
}

/** Height of a cone of an included angle between two diameters, mm. */
export const coneHeight = (wide: number, narrow: number, angleDeg: number): number =>
  (wide - narrow) / 2 / Math.tan((angleDeg * Math.PI) / 360);

/** A square end. */
export const flatEnd = (diameter: number): Corner[] => [{ z: 0, r: diameter / 2 }];
