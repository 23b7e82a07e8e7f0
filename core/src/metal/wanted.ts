import { pointLength } from '../cutting/depths.ts';
import { drilledStep } from '../operations/hole-view.ts';
import { operationKind } from '../operations/registry.ts';
import type { SeenHole } from '../proof/checks/check.ts';
import type { Row } from '../job/row.ts';
import type { SeenBoss } from '../proof/threads/bosses.ts';
import { besidePath, extendedPath } from '../geometry/parallel.ts';
import { length2, type Segment, segmentPoint, type Vec2 } from '../geometry/path.ts';
import { along, dot, sub, type Vec3 } from '../geometry/vec.ts';
import type { WantedEdge, WantedRise } from '../motion/work.ts';
import type { Thread } from '../threads/thread.ts';
import { PIPE_TAPER, threadSizes } from '../threads/shape.ts';
import { firstTooth } from '../tools/kinds/thread-mill.ts';
import type { ToolBody } from './body.ts';
import { PlaceList } from './place-list.ts';
import { clearRadius } from '../proof/clear.ts';

/** mm. */
const CELL = 4;
/** How much wider than meant a wanted cut may be before it is one no longer, mm. */
const SLACK = 0.01;
/** The flattest point that a drill usually has, degrees. */
const USUAL_POINT = 118;

/** Cuts that are meant and not in the model: the band of a thread, broken rims, what the print wants otherwise, the point of a drill. */
export class WantedCuts {
  private readonly grid = new PlaceList<WantedHole>(CELL);

  /** Cones that are to be there at holes' rims, by the cutter that makes them. */
  private readonly cones = new PlaceList<WantedCone>(CELL);

  private readonly bosses = new PlaceList<WantedBoss>(CELL);

  private readonly rises = new PlaceList<RiseStretch>(CELL);

  private readonly edges = new PlaceList<{ edge: WantedEdge; piece: Segment[] }>(CELL);

  constructor(
    holes: readonly SeenHole[],
    cones: readonly WantedCone[] = [],
    bosses: readonly SeenBoss[] = [],
    edges: readonly WantedEdge[] = [],
    rises: readonly WantedRise[] = [],
  ) {
    for (const rise of rises)
      rise.run.forEach((p, i) => {
        const q = rise.run[i + 1];
        if (!q) return;
        const r = rise.width + rise.hollow + SLACK;
        this.rises.add({ rise, from: p, to: q }, [
          Math.min(p.at[0], q.at[0]) - r,
          Math.min(p.at[1], q.at[1]) - r,
          Math.max(p.at[0], q.at[0]) + r,
          Math.max(p.at[1], q.at[1]) + r,
        ]);
      });
    for (const e of edges.filter((w) => w.inset > 0))
      for (const [i, s] of e.path.entries()) {
        // An open run is left past its end: what falls away there, such as a chamfer, is cut as far as the flank reaches.
        const past = (end: number): number => (!e.closed && i === end ? e.inset : 0);
        const piece = extendedPath([s], past(0), past(e.path.length - 1));
        const points = piece.flatMap((q) => Array.from({ length: 33 }, (_, n) => segmentPoint(q, n / 32)));
        const r = e.inset + SLACK + (s.kind === 'arc' ? 0.01 * s.radius : 0);
        const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
        this.edges.add({ edge: e, piece }, [
          Math.min(...xs) - r,
          Math.min(...ys) - r,
          Math.max(...xs) + r,
          Math.max(...ys) + r,
        ]);
      }
    for (const b of bosses.flatMap((s) => wantedBoss(s) ?? []))
      this.bosses.add(b, [b.x - b.outer, b.y - b.outer, b.x + b.outer, b.y + b.outer]);
    for (const c of cones) {
      const r = c.body.radius;
      this.cones.add(c, [c.x - r, c.y - r, c.x + r, c.y + r]);
    }

    for (const h of holes) {
      const { x, y } = h.view;
      const hole = { ...h, band: bandOf(h) };
      const r = reachOf(hole);
      this.grid.add(hole, [x - r, y - r, x + r, y + r]);
    }
  }

  /** Whether metal at a place is meant to be cut. Program coordinates, mm. */
  at(x: number, y: number, z: number): boolean {
    return (
      this.grid.at(x, y).some((h) => isWanted(h, length2(x - h.view.x, y - h.view.y), z)) ||
      this.cones.at(x, y).some((c) => isInCone(c, length2(x - c.x, y - c.y), z)) ||
      this.bosses.at(x, y).some((b) => isInBoss(b, length2(x - b.x, y - b.y), z)) ||
      this.rises.at(x, y).some((r) => isOnRise(r, [x, y, z])) ||
      this.edges.at(x, y).some(({ edge, piece }) => isOnEdge(edge, piece, [x, y], z))
    );
  }
}

/** A planned cutter that breaks a rim: what it takes at the planned depth is wanted, and nothing deeper. */
export interface WantedCone {
  x: number;
  y: number;
  /** Where its tip goes. */
  z: number;
  body: ToolBody;
}

const isInCone = ({ z: tip, body }: WantedCone, rho: number, z: number): boolean =>
  rho <= body.radius && z >= tip + body.bottom(rho) - SLACK;

/** Two neighbouring points of an edge that rises and falls. */
interface RiseStretch {
  rise: WantedRise;
  from: WantedRise['run'][number];
  to: WantedRise['run'][number];
}

/** Inside the corner that a ball is to cut off between two points of an edge: no farther into both faces together than its hollow reaches. */
function isOnRise({ rise: { width, hollow }, from, to }: RiseStretch, p: Vec3): boolean {
  const d = sub(to.at, from.at);
  const l2 = dot(d, d);
  const t = l2 < 1e-18 ? 0 : dot(sub(p, from.at), d) / l2;
  if (t < -0.1 || t > 1.1) return false;
  const off = sub(p, along(from.at, d, t));
  const [below, inside] = [-dot(off, from.up), -dot(off, from.out)];
  return below + inside <= width + Math.SQRT2 * hollow + SLACK && Math.max(below, inside) <= width + SLACK;
}

/** Inside the corner that is to be cut off an edge: less far from it the deeper it lies. */
function isOnEdge(
  { top, inset, slope, drop, behind }: WantedEdge,
  piece: Segment[],
  p: Vec2,
  z: number,
): boolean {
  const below = behind ? z - top : top - z;
  if (below < -SLACK || below > drop + SLACK) return false;
  // Inside the edge as far as the flank, and outside it what a wall that leans has there.
  const { off } = besidePath(piece, p);
  const flank = inset - Math.max(0, below) * slope;
  return off >= 0 ? off <= Math.max(0, flank) + SLACK : -off <= drop && off <= flank + SLACK;
}

/** The band that a thread takes of a boss: from its root to its wall. */
interface WantedBoss {
  x: number;
  y: number;
  top: number;
  bottom: number;
  /** Radius of the root where the thread begins, and how much it grows with each mm down. */
  root: number;
  slope: number;
  outer: number;
}

function wantedBoss({ view, row }: SeenBoss): WantedBoss | null {
  const { thread } = row;
  if (!thread) return null;
  const { fit, corner, slope } = cutOf(row, thread);
  const { x, y, entryZ, height, chamfered } = view;
  return {
    x,
    y,
    top: entryZ,
    bottom: entryZ - height,
    root: (threadSizes(thread, 'outside').minor + fit) / 2 - corner - slope * chamfered,
    slope,
    outer: view.feature.diameter / 2 + SLACK,
  };
}

const isInBoss = ({ top, bottom, root, slope, outer }: WantedBoss, rho: number, z: number): boolean =>
  z <= top + SLACK && z >= bottom - SLACK && rho <= outer && rho >= root + slope * (top - z) - SLACK;

/** A hole, with what its thread takes beyond it. */
type WantedHole = SeenHole & { band: ThreadBand | null };

/** Where a thread is cut, below the entry: its major radius where it begins, and how much that falls with each mm down. */
interface ThreadBand {
  top: number;
  radius: number;
  slope: number;
}

/** As wide as the gauge asks for. */
function bandOf({ view, row }: SeenHole): ThreadBand | null {
  const { thread } = row;
  if (!thread) return null;
  const { fit, corner, slope } = cutOf(row, thread);
  const wide = threadSizes(thread).major + fit;
  return { top: drilledStep(view)?.top ?? 0, radius: wide / 2 + corner, slope };
}

/** How a thread is planned to be cut: its fit, its taper, and how much deeper the corner of a straight tooth goes on that. */
function cutOf({ operations }: Row, { form }: Thread): { fit: number; corner: number; slope: number } {
  const cut = operations.find((o) => operationKind(o.kind).millsThreads);
  const fit = cut?.parameters.find((p) => p.key === 'fit')?.value;
  const slope = form === 'pipe-tapered' ? PIPE_TAPER / 2 : 0;
  const corner = cut && !cut.tool.threadForm?.tapered ? firstTooth(cut.tool) * slope : 0;
  return { fit: typeof fit === 'number' ? fit : 0, corner, slope };
}

function reachOf({ view, band, wanted }: WantedHole): number {
  const steps = [...view.steps, ...view.farSteps].flatMap((s) =>
    s.shape === 'cylinder' ? [s.diameter] : [s.startDiameter, s.endDiameter],
  );
  return Math.max(2 * (band?.radius ?? 0), ...steps, ...wanted.map((r) => r.diameter)) / 2 + SLACK;
}

function isWanted({ view, band, wanted }: WantedHole, rho: number, z: number): boolean {
  const depth = view.entryZ - z;
  if (depth < -SLACK) return false;
  const clear = clearRadius(view, wanted, depth);
  if (clear !== Infinity && rho <= clear + SLACK) return true;
  const drilled = drilledStep(view);
  const bottom = view.depth;
  if (band && depth >= band.top - SLACK && depth <= bottom + SLACK)
    return rho <= band.radius - band.slope * (depth - band.top) + SLACK;
  if (view.through || !drilled || depth <= bottom) return false;
  // Below its full diameter a blind hole ends in the drill's point.
  const r = drilled.diameter / 2;
  return rho <= r && depth - bottom <= pointLength(2 * (r - rho), USUAL_POINT) + SLACK;
}
