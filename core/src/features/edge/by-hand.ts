import { distance, dot, type Vec3 } from '../../geometry/vec.ts';
import { at, first, last } from '../../lists.ts';
import { borderPoints, patchGraph, type Border } from '../../model/patches.ts';
import type { SolidModel } from '../../model/solid-model.ts';
import { outwardNormal } from '../../model/surface.ts';
import { round, roundVec } from '../round.ts';
import type { SharpEdgeFeature } from '../sharp-edge/schema.ts';
import { leanOf, upperEdge } from './upper.ts';

/** Ends of edges nearer than this meet, and a run is level within it, mm. */
const SAME = 2e-3;
/** A face that looks up less than this is none above an edge: cosine. */
const LOOKS_UP = 0.2;

/** A run of edges chosen by hand, as far as it is to be known to be broken. */
export type RunByHand = Pick<
  SharpEdgeFeature,
  'axis' | 'edges' | 'at' | 'length' | 'side' | 'loop' | 'upper' | 'rolled' | 'lean' | 'above' | 'beside'
>;

/**
 * Edges chosen by hand as one run along the faces above them, seen from `up`; where they do not make one level run with a face that looks up
 * on one side, without its exact curve: then it is shown, and cannot be cut. Null for no edges.
 */
export function runByHand(model: SolidModel, edges: readonly number[], up: Vec3): RunByHand | null {
  const graph = patchGraph(model);
  const own = edges.flatMap((e) => (model.edges[e] ? [e] : []));
  const [one] = own;
  if (one === undefined) return null;
  const length = own.reduce((sum, e) => {
    const { points } = at(model.edges, e);
    return sum + points.slice(1).reduce((n, p, i) => n + distance(p, at(points, i)), 0);
  }, 0);
  const borders = own.flatMap((edge) => borderOf(edge) ?? []);
  const chain = borders.length === own.length ? chained(model, borders) : null;
  const ends = chain && [first(borderPoints(model, first(chain))), last(borderPoints(model, last(chain)))];
  const isClosed = ends !== null && distance(at(ends, 0), at(ends, 1)) < SAME;
  const isLevel =
    chain?.every((b) =>
      borderPoints(model, b).every((p) => Math.abs(dot(p, up) - dot(at(ends ?? [], 0), up)) < SAME),
    ) ?? false;
  const base = {
    axis: up,
    edges: own,
    at: roundVec(first(at(model.edges, one).points)),
    length: round(length),
    side: 'outside' as const,
    loop: isClosed ? ('closed' as const) : ('open' as const),
  };
  if (!chain || !isLevel) return base;
  const { pieces, rolled } = upperEdge({ model, graph }, chain, up);
  const above = [...new Set(chain.map((b) => topOf(b.edge)))];
  return {
    ...base,
    at: roundVec(at(ends ?? [], 0)),
    upper: pieces,
    ...(rolled.length > 0 ? { rolled } : {}),
    lean: round(leanOf({ model, graph }, chain, up)),
    above,
    beside: [...new Set(chain.flatMap((b) => at(model.edges, b.edge).faces))],
  };

  /** The face above an edge. */
  function topOf(edge: number): number {
    const e = at(model.edges, edge);
    const middle = at(e.points, Math.floor(e.points.length / 2));
    const share = (f: number): number => dot(outwardNormal(at(model.faces, f), middle), up);
    return e.faces.reduce((best, f) => (share(f) > share(best) ? f : best), first(e.faces));
  }

  /** An edge as the face above it runs along it; null where that does not look up, or nothing is on its other side. */
  function borderOf(edge: number): Border | null {
    const e = at(model.edges, edge);
    const top = topOf(edge);
    const other = e.faces.find((f) => f !== top);
    const middle = at(e.points, Math.floor(e.points.length / 2));
    if (other === undefined || dot(outwardNormal(at(model.faces, top), middle), up) < LOOKS_UP) return null;
    const use = at(model.faces, top)
      .loops.flat()
      .find((l) => l.edge === edge);
    return use ? { ...use, other: graph.ofFace[other] ?? -1, convexity: e.convexity } : null;
  }
}

/** Borders in the order in which they follow each other; null where they do not make one run. */
function chained(model: SolidModel, borders: readonly Border[]): Border[] | null {
  const startOf = (b: Border): Vec3 => first(borderPoints(model, b));
  const endOf = (b: Border): Vec3 => last(borderPoints(model, b));
  const begins = borders.find((b) => !borders.some((o) => o !== b && distance(endOf(o), startOf(b)) < SAME));
  const out: Border[] = [begins ?? first(borders)];
  const left = new Set(borders.filter((b) => b !== first(out)));
  while (left.size > 0) {
    const next = [...left].find((b) => distance(startOf(b), endOf(last(out))) < SAME);
    if (!next) return null;
    left.delete(next);
    out.push(next);
  }
  return out;
}
