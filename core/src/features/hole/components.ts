import { at as entryAt, first, got } from '../../lists.ts';
import { distance, dot, sub, type Vec3, isParallel } from '../../geometry/vec.ts';
import { angleBasis } from '../../model/surface.ts';
import { isArcAbout, isCircleAbout, isClosedEdge } from '../../model/circle-edge.ts';
import type { PatchGraph } from '../../model/patches.ts';
import type { SolidModel } from '../../model/solid-model.ts';
import {
  isFullTurn,
  markRun,
  newBins,
  RADIUS_TOLERANCE,
  type AxisGroup,
  type AxisLine,
  type Piece,
} from './pieces.ts';

/** A connected run of border edges of a component. */
export interface Rim {
  edges: number[];
  /** The faces on its other side. */
  neighbours: number[];
  low: number;
  high: number;
  /** Goes all the way round the axis. */
  round: boolean;
  /** Share of its length that is concave: 1 at a floor, 0 at an open rim. */
  concaveShare: number;
  /** Lies in one plane square to the axis. */
  level: boolean;
}

/** Concave surfaces of one axis that hang together: the wall of a hole. */
export interface Component {
  line: AxisLine;
  pieces: Piece[];
  /** Planar rings between two of the pieces: counterbore floors, sides of undercuts. */
  flats: number[];
  rims: Rim[];
  interrupted: boolean;
}

/** Splits an axis group into components, then joins those that are one hole with a cavity across it. */
export function components(
  model: SolidModel,
  group: AxisGroup,
  isAir: (from: Vec3, to: Vec3) => boolean,
): Component[] {
  const { line, pieces } = group;
  const owner = new Map(pieces.map((p, i) => [p.face, i]));
  const parent = pieces.map((_, i) => i);
  const root = (i: number): number => (parent[i] === i ? i : (parent[i] = root(entryAt(parent, i))));
  const join = (a: number, b: number) => (parent[root(a)] = root(b));
  const ringEdges = new Map<number, { piece: number; concave: boolean }[]>();
  pieces.forEach((p, i) => {
    for (const { edge } of entryAt(model.faces, p.face).loops.flat()) {
      const e = entryAt(model.edges, edge);
      for (const f of e.faces) {
        if (f === p.face) continue;
        const other = owner.get(f);
        if (other !== undefined) join(i, other);
        else if (isSquarePlane(model, f, line)) {
          const list = ringEdges.get(f) ?? [];
          list.push({ piece: i, concave: e.convexity === 'concave' });
          ringEdges.set(f, list);
        }
      }
    }
  });
  const flats = new Map<number, number>();
  for (const [face, edges] of ringEdges) {
    const wall = edges.find((e) => e.concave);
    const throat = edges.find((e) => !e.concave);
    if (!wall || !throat) continue;
    for (const e of edges) join(e.piece, wall.piece);
    flats.set(face, wall.piece);
  }
  const byRoot = new Map<number, Component>();
  pieces.forEach((p, i) => {
    const r = root(i);
    const c = byRoot.get(r) ?? { line, pieces: [], flats: [], rims: [], interrupted: false };
    c.pieces.push(p);
    byRoot.set(r, c);
  });
  for (const [face, piece] of flats) got(byRoot, root(piece)).flats.push(face);
  const list = [...byRoot.values()];
  for (const c of list) c.rims = rimsOf(model, c);
  return joinAcrossGaps(model, list, isAir);
}

function isSquarePlane(model: SolidModel, face: number, line: AxisLine): boolean {
  const s = entryAt(model.faces, face).surface;
  return s.kind === 'plane' && isParallel(s.normal, line.direction);
}

/** The connected border runs of a component. */
export function rimsOf(model: SolidModel, c: Component): Rim[] {
  const own = new Set([...c.pieces.map((p) => p.face), ...c.flats]);
  const border: number[] = [];
  for (const p of c.pieces) {
    for (const { edge } of entryAt(model.faces, p.face).loops.flat()) {
      const e = entryAt(model.edges, edge);
      if (e.convexity !== 'seam' && e.faces.some((f) => !own.has(f))) border.push(edge);
    }
  }
  const key = (p: Vec3) => p.map((v) => Math.round(v * 1e4)).join();
  const runOf = new Map<string, number[]>();
  const runs: number[][] = [];
  for (const edge of new Set(border)) {
    const { points } = entryAt(model.edges, edge);
    const ends = [key(first(points)), key(entryAt(points, points.length - 1))];
    const touched = [...new Set(ends.flatMap((k) => (runOf.has(k) ? [got(runOf, k)] : [])))];
    const run = touched[0] ?? [];
    if (touched.length === 0) runs.push(run);
    for (const other of touched.slice(1)) {
      run.push(...other);
      runs.splice(runs.indexOf(other), 1);
      for (const [k, r] of runOf) if (r === other) runOf.set(k, run);
    }
    run.push(edge);
    for (const k of ends) runOf.set(k, run);
  }
  return runs.map((edges) => describeRim(model, edges, c.line, own));
}

function describeRim(model: SolidModel, edges: number[], line: AxisLine, own: Set<number>): Rim {
  const neighbours = [
    ...new Set(edges.flatMap((i) => entryAt(model.edges, i).faces.filter((f) => !own.has(f)))),
  ];
  const only = edges.length === 1 ? entryAt(model.edges, first(edges)) : null;
  if (only && isArcAbout(only, line.origin, line.direction) && isClosedEdge(only)) {
    const height = dot(sub(first(only.points), line.origin), line.direction);
    const concaveShare = only.convexity === 'concave' ? 1 : 0;
    return { edges, neighbours, low: height, high: height, round: true, concaveShare, level: true };
  }
  const [x, y] = angleBasis(line.direction);
  const bins = newBins();
  let [low, high, concave, total] = [Infinity, -Infinity, 0, 0];
  for (const index of edges) {
    const e = entryAt(model.edges, index);
    markRun(e.points, false, line, x, y, bins);
    e.points.forEach((p, i) => {
      const h = dot(sub(p, line.origin), line.direction);
      [low, high] = [Math.min(low, h), Math.max(high, h)];
      if (i === 0) return;
      const l = distance(entryAt(e.points, i - 1), p);
      total += l;
      if (e.convexity === 'concave') concave += l;
    });
  }
  return {
    edges,
    neighbours,
    low,
    high,
    round: isFullTurn(bins),
    concaveShare: total > 0 ? concave / total : 0,
    level: high - low < 5e-3,
  };
}

/**
 * Two walls of one diameter and axis with air between them are one hole when another cavity crosses it. They stay two where both
 * facing rims are plain circles in flat faces square to the axis: the cheeks of a fork.
 */
function joinAcrossGaps(
  model: SolidModel,
  list: Component[],
  isAir: (from: Vec3, to: Vec3) => boolean,
): Component[] {
  const sorted = [...list].sort((a, b) => lowOf(a) - lowOf(b));
  const out: Component[] = [];
  for (const c of sorted) {
    const before = out[out.length - 1];
    if (
      before &&
      sameBore(before, c) &&
      !isFork(model, before, c) &&
      isAir(at(before.line, highOf(before) - 1e-3), at(c.line, lowOf(c) + 1e-3))
    ) {
      before.pieces.push(...c.pieces);
      before.flats.push(...c.flats);
      before.rims = rimsOf(model, before);
      before.interrupted = true;
    } else out.push(c);
  }
  return out;
}

const at = (line: AxisLine, t: number): Vec3 =>
  [0, 1, 2].map((i) => entryAt(line.origin, i) + t * entryAt(line.direction, i)) as Vec3;
const lowOf = (c: Component): number => Math.min(...c.pieces.map((p) => p.low));
const highOf = (c: Component): number => Math.max(...c.pieces.map((p) => p.high));

function sameBore(lower: Component, upper: Component): boolean {
  const a = lower.pieces.reduce((m, p) => (p.high > m.high ? p : m));
  const b = upper.pieces.reduce((m, p) => (p.low < m.low ? p : m));
  return (
    a.kind === 'cylinder' && b.kind === 'cylinder' && Math.abs(a.radiusHigh - b.radiusLow) < RADIUS_TOLERANCE
  );
}

function isFork(model: SolidModel, lower: Component, upper: Component): boolean {
  const a = topRim(lower);
  const b = bottomRim(upper);
  const plain = (r: Rim | null): boolean =>
    r !== null &&
    r.level &&
    r.edges.every((e) =>
      isCircleAbout(entryAt(model.edges, e).points, lower.line.origin, lower.line.direction),
    ) &&
    r.neighbours.every((f) => isSquarePlane(model, f, lower.line));
  return plain(a) && plain(b);
}

/** The highest rim that goes right round, or null where that end is closed by the component's own surfaces. */
export function topRim(c: Component): Rim | null {
  return c.rims
    .filter((r) => r.round)
    .reduce<Rim | null>((m, r) => (m === null || r.low + r.high > m.low + m.high ? r : m), null);
}

export function bottomRim(c: Component): Rim | null {
  return c.rims
    .filter((r) => r.round)
    .reduce<Rim | null>((m, r) => (m === null || r.low + r.high < m.low + m.high ? r : m), null);
}

/** True where a floor carries a boss round the same axis: the wall belongs to a ring groove, not to a hole. */
export function hasIsland(model: SolidModel, graph: PatchGraph, rim: Rim, line: AxisLine): boolean {
  return rim.neighbours.some((f) => {
    if (!isSquarePlane(model, f, line)) return false;
    return entryAt(graph.patches, entryAt(graph.ofFace, f)).loops.some((loop) => {
      const rises = loop.every(
        ({ edge, convexity, other }) =>
          !rim.edges.includes(edge) &&
          convexity === 'concave' &&
          other >= 0 &&
          !entryAt(graph.patches, other).reversed,
      );
      return (
        rises &&
        isCircleAbout(
          loop.flatMap((b) => entryAt(model.edges, b.edge).points),
          line.origin,
          line.direction,
        )
      );
    });
  });
}
