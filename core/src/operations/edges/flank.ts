import { coneOf } from '../../tools/cone.ts';
import { coneHeight } from '../../tools/kinds/kind.ts';
import type { Tool } from '../../tools/schema.ts';

/** The cone with which a cutter breaks edges: radius of its tip and how high it is, mm; `slope`: how much wider with each mm up. */
export interface Flank {
  tip: number;
  slope: number;
  height: number;
  /** Included angle, degrees. */
  angleDeg: number;
}

/** The flank of a chamfer mill; throws a RangeError for a tool without a cone. */
export function flankOf(tool: Tool): Flank {
  const { diameter, angleDeg } = coneOf(tool);
  return {
    tip: diameter / 2,
    slope: slopeOf(angleDeg),
    height: coneHeight(tool.diameter, diameter, angleDeg),
    angleDeg,
  };
}

/** Tangent of half an included angle: of the angle between a cone's flank and its axis. */
export const slopeOf = (angleDeg: number): number => Math.tan((angleDeg * Math.PI) / 360);

/**
 * Height of a chamfer whose width is measured across the top, mm: `v = w/tan(a)` on an upright wall (handbook, Edges); on one that leans
 * outward from it by `leanDeg` the flank meets the wall lower. Infinity where the wall leans as much as the flank.
 */
export function dropOf(width: number, slope: number, leanDeg = 0): number {
  const falls = slope - Math.tan((Math.max(-89, leanDeg) * Math.PI) / 180);
  return falls > 1e-9 ? width / falls : Infinity;
}

/** Width across the top of a chamfer that is measured along its slope: `w = s·sin(a)` (handbook, Edges). */
export const acrossOf = (along: number, slope: number): number => along * Math.sin(Math.atan(slope));

/** How a flank stands on an edge, mm. */
export interface Contact {
  /** Its tip below the upper edge's level. */
  deep: number;
  /** Its axis beside the upper edge as the model has it, in the air. */
  offset: number;
  /** Its radius at the upper edge's level. */
  radius: number;
}

/**
 * A flank with its tip `clearance` below a chamfer: `deep = v + c`, and its axis so far out that it cuts `inset` into the face above (0 where
 * the model has the chamfer). Of an upright wall the axis is `rt + c·tan(a)` beside it (handbook, Edges).
 */
export function contactOf(
  { tip, slope }: Flank,
  { inset, drop }: { inset: number; drop: number },
  clearance: number,
): Contact {
  const deep = drop + clearance;
  const radius = tip + deep * slope;
  return { deep, offset: radius - inset, radius };
}

/** Of a flank's height, what is used at the most; nearer to its tip than this it only rubs, mm. */
const USABLE = 0.97;
export const LEAST_CLEARANCE = 0.05;
/** The tip goes this share of what is left of the flank below the chamfer, where nothing else is said, and no more than that, mm. */
const USUAL_SHARE = 1 / 3;
const MOST_USUAL = 1;
/** Smaller clearances that are tried where there is no room for the usual one, mm. */
const SMALLER = [0.6, 0.4, 0.2, 0.1, LEAST_CLEARANCE];

/** The most that a tip can go below a chamfer of a height and the flank still leave it, mm; less than none where it is too short at all. */
export const mostClearance = ({ height }: Flank, drop: number): number => USABLE * height - drop;

/** Clearances to be tried, the usual one first. */
export function clearances(flank: Flank, drop: number): number[] {
  const most = mostClearance(flank, drop);
  if (most < LEAST_CLEARANCE) return [];
  const usual = Math.min(MOST_USUAL, Math.max(LEAST_CLEARANCE, USUAL_SHARE * most));
  const figure = Math.floor(usual * 20) / 20;
  return [figure, ...SMALLER.filter((c) => c < figure - 1e-9)];
}
