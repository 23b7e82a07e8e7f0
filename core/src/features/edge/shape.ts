import { toFrame, type Frame } from '../../geometry/frame.ts';
import { reversePath, type Segment } from '../../geometry/path.ts';
import { dot, type Vec3 } from '../../geometry/vec.ts';
import { planPieces } from '../groove-shape.ts';
import type { ChamferFeature } from '../chamfer/schema.ts';
import type { RoundedEdgeFeature } from '../rounded-edge/schema.ts';
import type { SharpEdgeFeature } from '../sharp-edge/schema.ts';

/** What an edge is in the model: a slope of a width (square to the axis) and a height, a round, or nothing yet. mm. */
export type EdgeProfile =
  { kind: 'chamfer'; width: number; drop: number } | { kind: 'round'; radius: number } | { kind: 'sharp' };

/** A place on an edge that rises and falls, and the unit normals of its faces there: the one above, and the wall. */
export interface RisePoint {
  at: Vec3;
  up: Vec3;
  out: Vec3;
}

/** An edge as a setup sees it from above, program coordinates, mm. */
export interface EdgeShape {
  /** Its upper edge in plan, with the face above it on the left and the air on the right. */
  path: readonly Segment[];
  closed: boolean;
  side: 'outside' | 'inside';
  /** Z of the upper edge. */
  top: number;
  profile: EdgeProfile;
  /** By how much the wall below leans outward from upright at the most, degrees. */
  lean: number;
  /** Joints of the path, by the piece before them, where something round goes about the corner. */
  rolled: readonly number[];
  /** It looks away from the tool: it is come to from behind. */
  isBehind: boolean;
  /** Of an edge that rises and falls: its points, and how the face above and the wall below look there. */
  rise?: readonly RisePoint[];
}

type EdgeFeature = ChamferFeature | RoundedEdgeFeature | SharpEdgeFeature;

/** An edge in a setup's coordinates; null where its curve was not kept when the file was read. */
export function edgeShape(f: EdgeFeature, profile: EdgeProfile, frame: Frame): EdgeShape | null {
  if (!f.upper || f.upper.length === 0) return null;
  const path = planPieces(f.upper, f.axis, frame);
  const isBehind = dot(f.axis, frame.z) < 0;
  const rolled = f.rolled ?? [];
  const n = path.length;
  return {
    // Seen from behind the air would lie on its left.
    path: isBehind ? reversePath(path) : path,
    closed: f.loop === 'closed',
    side: f.side,
    top: toFrame(frame, f.at)[2],
    profile,
    lean: f.lean ?? 0,
    rolled: isBehind ? rolled.map((i) => (2 * n - 2 - i) % n) : rolled,
    isBehind,
  };
}
