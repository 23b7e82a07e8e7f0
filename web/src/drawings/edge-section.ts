import type { PlannedOperation } from '@yellow-pin/core/job/derive';
import type { EdgeView } from '@yellow-pin/core/operations/edge-view';
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

/** How deep below an edge an operation's tip goes, mm: in its last pass. */
const deepOf = (view: EdgeView, o: PlannedOperation | null): number | null => {
  const work = o?.work.find((w) => w.label === view.label) ?? o?.work[0];
  const edge = work?.edges?.[0];
  return work && edge ? edge.top - work.z : null;
};

/** Lays an edge out, cut across, with the cutter of an operation where it stands in its last pass. */
export function drawEdgeSection(view: EdgeView, operation: PlannedOperation | null): EdgeDrawing {
  const { profile, lean } = view.shape;
  const edge =
    (operation?.work.find((w) => w.label === view.label) ?? operation?.work[0])?.edges?.[0] ?? null;
  const deep = deepOf(view, operation);
  const size = Math.max(LEAST, view.depth, edge?.inset ?? 0);
  const down = BELOW * Math.max(deep ?? 0, 1.6 * size);
  const k = (EDGE_HEIGHT - CORNER[1]) / down;
  const at = (x: number, z: number): string =>
    `${(CORNER[0] + k * x).toFixed(1)} ${(CORNER[1] - k * z).toFixed(1)}`;
  const [far, low] = [-CORNER[0] / k, -(EDGE_HEIGHT - CORNER[1]) / k];
  const slope = Math.tan((lean * Math.PI) / 180);
  const broken =
    profile.kind === 'chamfer'
      ? `L${at(profile.width, -profile.drop)}L${at(profile.width, low)}`
      : profile.kind === 'round'
        ? `A${(k * profile.radius).toFixed(1)} ${(k * profile.radius).toFixed(1)} 0 0 1 ${at(profile.radius, -profile.radius)}L${at(profile.radius, low)}`
        : `L${at(-low * slope, low)}`;
  const radius = operation && deep !== null ? radiusAt(toolProfile(operation.tool, null), deep) : null;
  const below = 'roomBelow' in view.feature ? view.feature.roomBelow : null;
  return {
    k,
    metal: `M${at(far, 0)}L${at(0, 0)}${broken}L${at(far, low)}Z`,
    wanted: edge && edge.inset > 0 ? `M${at(-edge.inset, 0)}L${at(edge.drop * slope, -edge.drop)}` : '',
    tool:
      radius === null || deep === null || !edge
        ? null
        : { x: CORNER[0] + k * (radius - edge.inset), y: CORNER[1] + k * deep },
    deep: deep === null ? null : { from: CORNER[1], to: CORNER[1] + k * deep, mm: deep },
    floor: below !== null && below < -low ? CORNER[1] + k * below : null,
  };
}
