import { at } from '../../lists.ts';
import type { RecogniseContext } from '../family.ts';
import { round, roundVec } from '../round.ts';
import type { EdgeRun } from './runs.ts';
import { leanOf, upperEdge } from './upper.ts';

/** What all edge features take from a run. */
export function edgeFields(context: RecogniseContext, r: EdgeRun) {
  const { pieces, rolled } = upperEdge(context, r.borders, r.axis);
  return {
    solid: context.solid,
    reachableFrom: [roundVec(r.axis)],
    axis: roundVec(r.axis),
    loop: r.closed ? ('closed' as const) : ('open' as const),
    length: round(r.length),
    side: r.side,
    at: roundVec(r.at),
    edges: r.borders.map((b) => b.edge),
    roomBeside: r.roomBeside === null ? null : round(r.roomBeside),
    roomBelow: r.roomBelow === null ? null : round(r.roomBelow),
    upper: pieces,
    ...(rolled.length > 0 ? { rolled } : {}),
    lean: round(r.form.kind === 'sharp' ? leanOf(context, r.borders, r.axis) : 0),
    above: runFaces(context, [r.top]),
    beside: besideFaces(context, r),
  };
}

/** Faces above an edge and below it, its own strips not counted. */
function besideFaces(context: RecogniseContext, r: EdgeRun): number[] {
  const { graph } = context;
  if (r.form.kind === 'sharp') return runFaces(context, [r.top, ...r.strips]);
  const next = r.strips.flatMap((p) =>
    at(graph.patches, p)
      .loops.flat()
      .flatMap((b) => (b.other < 0 || r.strips.includes(b.other) ? [] : [b.other])),
  );
  return runFaces(context, [r.top, ...next]);
}

/** Faces of patches, in file order. */
export function runFaces({ graph }: RecogniseContext, patches: readonly number[]): number[] {
  const out: number[] = [];
  for (const p of new Set(patches)) out.push(...at(graph.patches, p).faces);
  return out.length > 1 ? out.sort((a, b) => a - b) : out;
}

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
