import type { ReadProgram } from '../../code/read/motion.ts';
import { arcSweep } from '../../geometry/arc.ts';
import { BoxGrid } from '../../geometry/box-grid.ts';
import { boxOfSegment, PathIndex } from '../../geometry/path-index.ts';
import { distance2, type Vec2 } from '../../geometry/path.ts';
import type { DerivedSetup } from '../../job/derive.ts';
import type { PlannedOperation } from '../../job/row.ts';
import { placesAlong, reachOver, type EdgePlace, type Stretch } from '../../motion/edges/reach.ts';
import type { WantedEdge, Work } from '../../motion/work.ts';
import { toolKind } from '../../tools/kinds/registry.ts';
import { radiusAt, type ProfilePoint } from '../../tools/profile.ts';
import type { Tool } from '../../tools/schema.ts';
import { chordsOf, type KnownMotion } from '../chords.ts';

/** mm. */
const CELL = 10;
/** A cutter whose tip is not so far below an edge does nothing to it, mm. */
const BELOW = 0.02;
/** Steps in which it is looked along a way, mm, and how many at the most. */
const LEAST_STEP = 0.5;
const MOST_LOOKS = 400;
/** A cutter is on an edge that it comes this near to, mm. */
const NEAR = 0.3;

/** An edge that is to be broken, chamfered or rounded in a setup, with the work that is planned for it. */
export interface SeenEdge {
  edge: WantedEdge;
  work: Work;
  operation: PlannedOperation;
}

export const seenEdges = ({ operations }: DerivedSetup): SeenEdge[] =>
  operations.flatMap((operation) =>
    operation.work.flatMap((work) => (work.edges ?? []).map((edge) => ({ edge, work, operation }))),
  );

/** What cutters did along an edge: how far they reached over it at each place, and in which lines. */
export interface MilledEdge extends SeenEdge {
  tool: Tool;
  places: readonly EdgePlace[];
  /** mm into the face above, at each place; -Infinity where nothing came by. */
  reach: number[];
  lines: number[];
  /** Fastest feed, mm/min, and highest speed, rpm. */
  feed: number;
  speed: number;
}

/** A cutter that breaks edges, fed. */
const isOnEdges = (m: { kind: string }, tool: Tool): boolean =>
  (m.kind === 'feed' || m.kind === 'arc') && toolKind(tool.kind).onEdges === true;

/** Finds the wanted edges along which a cutter goes. */
export class EdgeFinder {
  private readonly grid = new BoxGrid<SeenEdge>(CELL);
  private readonly paths = new Map<SeenEdge, PathIndex>();

  constructor(
    readonly edges: readonly SeenEdge[],
    private readonly outline: (tool: Tool) => readonly ProfilePoint[],
  ) {
    for (const seen of edges) {
      this.paths.set(seen, new PathIndex(seen.edge.path, CELL));
      for (const s of seen.edge.path) this.grid.add(seen, boxOfSegment(s));
    }
  }

  /** Radius of a cutter at an edge's level with its tip at `z`, mm; null where it is not below it. */
  radiusAtEdge(tool: Tool, { top }: WantedEdge, z: number): number | null {
    return top - z < BELOW ? null : radiusAt(this.outline(tool), top - z);
  }

  /** The edges that a straight stretch of a cutter's way touches. */
  at(m: KnownMotion, tool: Tool): SeenEdge[] {
    if (this.edges.length === 0 || !isOnEdges(m, tool)) return [];
    const z = Math.min(m.from[2], m.to[2]);
    const middle: Vec2 = [(m.from[0] + m.to[0]) / 2, (m.from[1] + m.to[1]) / 2];
    const half = Math.hypot(m.to[0] - m.from[0], m.to[1] - m.from[1]) / 2;
    return this.grid.near(...middle, half + tool.diameter / 2 + NEAR).filter((seen) => {
      const { edge } = seen;
      const index = this.paths.get(seen);
      const radius = this.radiusAtEdge(tool, edge, z);
      if (radius === null) return false;
      // In steps no longer than the cutter is wide there, nothing that it touches is passed over.
      const n = Math.min(MOST_LOOKS, Math.max(1, Math.ceil((2 * half) / Math.max(radius, LEAST_STEP))));
      return Array.from({ length: n + 1 }, (_, i) => i / n).some((t) => {
        const p: Vec2 = [m.from[0] + t * (m.to[0] - m.from[0]), m.from[1] + t * (m.to[1] - m.from[1])];
        return (index?.distance(p, radius + NEAR) ?? Infinity) <= radius + NEAR;
      });
    });
  }

  /** The edges that a motion touches anywhere. */
  along(m: KnownMotion, tool: Tool): Set<SeenEdge> {
    if (this.edges.length === 0 || !isOnEdges(m, tool)) return new Set();
    return new Set(chordsOf(m).flatMap((c) => this.at(c, tool)));
  }

  /** Whether a motion goes along wanted edges, or onto them. */
  isOn(m: KnownMotion, tool: Tool): boolean {
    return isOnEdges(m, tool) && chordsOf(m).some((c) => this.at(c, tool).length > 0);
  }
}

/** What was cut along all wanted edges, from what was read: one entry for each that a cutter came by. */
export function milledEdges(
  read: ReadProgram,
  finder: EdgeFinder,
  toolOf: (number: number) => Tool | null,
): MilledEdge[] {
  const out = new Map<SeenEdge, MilledEdge>();
  const places = new Map<SeenEdge, KnownPlaces>();
  if (finder.edges.length === 0) return [];
  for (const m of read.motions) {
    const tool = m.kind === 'feed' || m.kind === 'arc' ? toolOf(m.tool) : null;
    if (!tool || [...m.from, ...m.to].some((v) => v === null)) continue;
    const own = m as KnownMotion;
    // A level arc is taken as one: its chords lie inside it.
    const level = own.kind === 'arc' && own.centre && Math.abs(own.to[2] - own.from[2]) < 1e-9;
    for (const seen of finder.along(own, tool)) {
      let known = places.get(seen);
      if (!known) places.set(seen, (known = placesOf(seen.edge)));
      let g = out.get(seen);
      if (!g) out.set(seen, (g = emptyOf(seen, tool, known.list)));
      if (seen.operation.tool.id === tool.id) g.tool = tool;
      g.feed = Math.max(g.feed, m.feed);
      g.speed = Math.max(g.speed, m.speed);
      for (const c of level ? [own] : chordsOf(own)) {
        const radii = [c.from[2], c.to[2]].map((z) => finder.radiusAtEdge(tool, seen.edge, z));
        if (radii.every((r) => r === null)) continue;
        // One that comes down from above the edge is on it from where it is below.
        const [r0 = 0, r1 = 0] = radii.map((r) => r ?? 0);
        const stretch: Stretch = {
          from: [c.from[0], c.from[1]],
          to: [c.to[0], c.to[1]],
          radii: [r0, r1],
          ...(level && own.centre ? { arc: arcOf(own, own.centre) } : {}),
        };
        for (const i of known.near(stretch, Math.max(r0, r1) + NEAR)) {
          const place = known.list[i];
          const reach = place ? reachOver(stretch, place) : -Infinity;
          if (reach > (g.reach[i] ?? -Infinity)) [g.reach[i], g.lines[i]] = [reach, m.line];
        }
      }
    }
  }
  return [...out.values()];
}

function arcOf(m: KnownMotion, centre: readonly [number, number, number]): NonNullable<Stretch['arc']> {
  const [a, b] = [m.from, m.to].map((p) => Math.atan2(p[1] - centre[1], p[0] - centre[0]));
  const turns = Math.min(1, m.turns ?? 0);
  return { centre: [centre[0], centre[1]], turn: arcSweep(a ?? 0, b ?? 0, m.clockwise === true, turns) };
}

/** The places of an edge, and those that a stretch may come near to. */
interface KnownPlaces {
  list: EdgePlace[];
  near(stretch: Stretch, r: number): Iterable<number>;
}

function placesOf({ path }: WantedEdge): KnownPlaces {
  const list = placesAlong(path);
  const grid = new BoxGrid<number>(PLACES);
  list.forEach(({ at: [x, y] }, i) => grid.add(i, [x, y, x, y]));
  return {
    list,
    near: ({ from, to, arc }, r) => {
      // An arc lies within its radius of its centre.
      const [x, y] = arc ? arc.centre : [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
      const half = arc ? distance2(from, arc.centre) : distance2(from, to) / 2;
      return half + r > WIDE * PLACES ? list.keys() : grid.near(x, y, half + r);
    },
  };
}

/** Width of the cells in which an edge's places are kept, mm; over more of them than that all are looked at. */
const PLACES = 5;
const WIDE = 40;

const emptyOf = (seen: SeenEdge, tool: Tool, places: readonly EdgePlace[]): MilledEdge => ({
  ...seen,
  tool,
  places,
  reach: places.map(() => -Infinity),
  lines: places.map(() => 0),
  feed: 0,
  speed: 0,
});
