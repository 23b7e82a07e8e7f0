import { at } from '../../lists.ts';
import type { RecogniseContext } from '../family.ts';
import { round, roundVec } from '../round.ts';
import type { EdgeRun } from './runs.ts';

/** What all edge features take from a run. */
export function edgeFields({ solid }: RecogniseContext, r: EdgeRun) {
  return {
    solid,
    reachableFrom: [roundVec(r.axis)],
    axis: roundVec(r.axis),
    loop: r.closed ? ('closed' as const) : ('open' as const),
    length: round(r.length),
    side: r.side,
    at: roundVec(r.at),
    edges: r.borders.map((b) => b.edge),
    roomBeside: r.roomBeside === null ? null : round(r.roomBeside),
    roomBelow: r.roomBelow === null ? null : round(r.roomBelow),
  };
}

export const runFaces = ({ graph }: RecogniseContext, patches: number[]): number[] =>
  [...new Set(patches.flatMap((p) => at(graph.patches, p).faces))].sort((a, b) => a - b);

/** Straight: planes only. Circular: one round only. Mixed: both, or several rounds. */
export function stripKindOf({ graph }: RecogniseContext, r: EdgeRun): 'straight' | 'circular' | 'mixed' {
  const surfaces = r.strips.map((p) => at(graph.patches, p).surface);
  if (surfaces.every((s) => s.kind === 'plane' || s.kind === 'cylinder')) return 'straight';
  return surfaces.length === 1 ? 'circular' : 'mixed';
}

/** Shorter runs than this many widths are facets, not edges. */
const SHORTEST = 2;
export const isLongEnough = (r: EdgeRun): boolean =>
  r.form.kind === 'sharp' || r.length >= SHORTEST * r.form.width;
