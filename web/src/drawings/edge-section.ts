import type { PlannedOperation } from '@yellow-pin/core/job/derive';
import type { WantedRise } from '@yellow-pin/core/motion/work';
import type { EdgeView } from '@yellow-pin/core/operations/edge-view';
import { ballAt } from '@yellow-pin/core/operations/edges/ball';
import { radiusAt, toolProfile } from '@yellow-pin/core/tools/profile';

export const EDGE_WIDTH = 282;
export const EDGE_HEIGHT = 190;
/** px from the left and from the top where the corner is drawn. */
const CORNER = [112, 58] as const;
/** Of what the cutter needs below the edge, what is drawn; and no edge smaller than that, mm. */
const BELOW = 1.45;
const LEAST = 0.6;

/** A corner cut open with the cutter's flank on it, as paths in px. */
export interface EdgeDrawing {
  k: number;
  /** The metal as the model has it. */
  metal: string;
  /** Where the edge is to end: a line from the face above to the wall below; empty where the model has that itself. */
  wanted: string;
  /** The cutter's axis and tip, px; null without an operation. */
  tool: { x: number; y: number } | null;
  /** From the upper edge's level down to the tip, px, and in mm. */
  deep: { from: number; to: number; mm: number } | null;
  /** The level below it that the tip must stay above, px; null where nothing is drawn there. */
  floor: number | null;
}

/** How an operation's cutter stands on an edge: its tip below it, its axis beside it, how far it cuts into both faces. mm. */
interface Stands {
  deep: number;
  beside: number;
  inset: number;
  drop: number;
}

/** Where the cutter of an operation stands in its last pass; null where it does nothing at the edge. */
function standsAt(view: EdgeView, operation: PlannedOperation | null): Stands | null {
  const work = operation?.work.find((w) => w.label === view.label) ?? operation?.work[0];
  if (!operation || !work) return null;
  const edge = work.edges?.[0];
  if (edge) {
    const deep = edge.top - work.z;
    const radius = radiusAt(toolProfile(operation.tool, null), deep);
    return { deep, beside: radius - edge.inset, inset: edge.inset, drop: edge.drop };
  }
  const rise = work.rises?.[0];
  return rise ? ballStands(rise, operation.tool.diameter / 2) : null;
}

/** A ball where the face above its edge is most level: there the corner is as it is drawn. */
function ballStands({ run, width }: WantedRise, radius: number): Stands | null {
  const place = run.reduce((best, p) => (p.up[2] > best.up[2] ? p : best));
  const middle = ballAt(place, width, radius);
  if (!middle) return null;
  const l = Math.hypot(place.out[0], place.out[1]) || 1;
  const [x, y, z] = [0, 1, 2].map((i) => middle[i]! - place.at[i]!) as [number, number, number];
  return {
    deep: radius - z,
    beside: (x * place.out[0] + y * place.out[1]) / l,
    inset: width,
    drop: width,
  };
}

/** Lays an edge out, cut across, with the cutter of an operation where it stands in its last pass. */
export function drawEdgeSection(view: EdgeView, operation: PlannedOperation | null): EdgeDrawing {
  const { profile, lean, isBehind } = view.shape;
  const stands = standsAt(view, operation);
  const size = Math.max(LEAST, view.depth, stands?.inset ?? 0);
  const down = BELOW * Math.max(stands?.deep ?? 0, 1.6 * size);
  const k = (EDGE_HEIGHT - CORNER[1]) / down;
  const at = (x: number, z: number): string =>
    `${(CORNER[0] + k * x).toFixed(1)} ${(CORNER[1] - k * z).toFixed(1)}`;
  // Of an edge that looks away from the tool the metal lies above.
  const away = isBehind ? -1 : 1;
  const [far, low] = [-CORNER[0] / k, isBehind ? CORNER[1] / k : -(EDGE_HEIGHT - CORNER[1]) / k];
  const slope = Math.tan((lean * Math.PI) / 180);
  const broken =
    profile.kind === 'chamfer'
      ? `L${at(profile.width, -profile.drop)}L${at(profile.width, low)}`
      : profile.kind === 'round'
        ? `A${(k * profile.radius).toFixed(1)} ${(k * profile.radius).toFixed(1)} 0 0 1 ${at(profile.radius, -profile.radius)}L${at(profile.radius, low)}`
        : `L${at(Math.abs(low) * slope, low)}`;
  const below = 'roomBelow' in view.feature ? view.feature.roomBelow : null;
  const tip = CORNER[1] + k * (stands?.deep ?? 0);
  return {
    k,
    metal: `M${at(far, 0)}L${at(0, 0)}${broken}L${at(far, low)}Z`,
    wanted:
      stands && stands.inset > 0
        ? `M${at(-stands.inset, 0)}L${at(stands.drop * slope, -away * stands.drop)}`
        : '',
    tool: stands && { x: CORNER[0] + k * stands.beside, y: tip },
    deep: stands && { from: CORNER[1], to: tip, mm: stands.deep },
    floor: below !== null && !isBehind && below < -low ? CORNER[1] + k * below : null,
  };
}
