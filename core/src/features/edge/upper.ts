import { fitPoints } from '../../geometry/fit-points.ts';
import { isSameCarrier, joinSegments, type Segment } from '../../geometry/path.ts';
import { dot, type Vec3 } from '../../geometry/vec.ts';
import { at, first, last } from '../../lists.ts';
import { borderPoints, isWall, type Border, type Patch } from '../../model/patches.ts';
import { outwardNormal } from '../../model/surface.ts';
import { pieceAt } from '../area/floors.ts';
import type { CurvePiece } from '../base.ts';
import type { RecogniseContext } from '../family.ts';
import { planFrame, rimPieces } from '../strip/sides.ts';

/** A chain of points is followed by lines and arcs within this, mm. */
const FIT = 0.002;
const DEGREES = 180 / Math.PI;

/** The upper edge of a run as exact pieces in space, with the face above it on the left. */
export interface UpperEdge {
  pieces: CurvePiece[];
  /** Joints (the piece before each) where the strips below do not meet at a mitre: a third surface goes round the corner there. */
  rolled: number[];
}

/** The edges of a run, neighbours on one line or circle joined. */
export function upperEdge(
  { model, graph }: Pick<RecogniseContext, 'model' | 'graph'>,
  borders: readonly Border[],
  d: Vec3,
): UpperEdge {
  const frame = planFrame(d);
  const chain: { segment: Segment; strip: number }[] = [];
  for (const b of borders) {
    const points = borderPoints(model, b);
    const below = at(graph.patches, b.other);
    const own = rimPieces(below, points, frame);
    for (const segment of isExact(own, below, d) ? own : fitted(own)) {
      const before = chain.at(-1);
      if (before && isSameCarrier(before.segment, segment))
        chain[chain.length - 1] = { ...before, segment: joinSegments(before.segment, segment) };
      else chain.push({ segment, strip: b.other });
    }
  }
  const [start, end] = [first(chain), last(chain)];
  if (chain.length > 1 && isSameCarrier(end.segment, start.segment) && isJoined(end.segment, start.segment)) {
    chain[0] = { ...start, segment: joinSegments(end.segment, start.segment) };
    chain.pop();
  }
  const level = dot(first(borderPoints(model, first(borders))), d);
  const meet = (a: number, b: number): boolean =>
    a === b ||
    at(graph.patches, a)
      .loops.flat()
      .some((c) => c.other === b);
  return {
    pieces: chain.map((c) => pieceAt(frame, c.segment, level)),
    rolled: chain.flatMap((c, i) => {
      const next = at(chain, (i + 1) % chain.length);
      return meet(c.strip, next.strip) ? [] : [i];
    }),
  };
}

const isJoined = (a: Segment, b: Segment): boolean =>
  Math.hypot(a.to[0] - b.from[0], a.to[1] - b.from[1]) < 1e-4;

/** One line, or an arc about the axis of what lies below: nothing is to be fitted. */
const isExact = (own: readonly Segment[], below: Patch, d: Vec3): boolean =>
  own.length === 1 || isWall(below, d);

const fitted = (own: readonly Segment[]): Segment[] =>
  fitPoints([first(own).from, ...own.map((s) => s.to)], FIT);

/** By how much the walls below a run lean outward from upright at the most, degrees; less than none where they are all undercut. */
export function leanOf(
  { model, graph }: Pick<RecogniseContext, 'model' | 'graph'>,
  borders: readonly Border[],
  d: Vec3,
): number {
  let most = -90;
  for (const b of borders) {
    const below = at(graph.patches, b.other);
    if (isWall(below, d)) {
      most = Math.max(most, 0);
      continue;
    }
    const face = at(model.faces, first(below.faces));
    for (const p of borderPoints(model, b))
      most = Math.max(most, DEGREES * Math.asin(Math.max(-1, Math.min(1, dot(outwardNormal(face, p), d)))));
  }
  return most;
}
