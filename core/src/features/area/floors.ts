import { at, first } from '../../lists.ts';
import type { Frame } from '../../geometry/frame.ts';
import { pathLength, segmentPoint, type Segment, type Vec2 } from '../../geometry/path.ts';
import { dot, isAlong, scale, type Vec3 } from '../../geometry/vec.ts';
import { planeNormal } from '../../model/patches.ts';
import type { CurvePiece } from '../base.ts';
import { once, type RecogniseContext } from '../family.ts';
import { round, roundVec } from '../round.ts';
import { footRadius, outerLoop } from '../strip/find.ts';
import { floorSides, fromPlan, planFrame, type Side } from '../strip/sides.ts';
import { wallTop } from '../strip/strip.ts';
import { insidePoint } from './rings.ts';
import type { BorderPiece } from './schema.ts';

/** A piece of an area's border in plan, with the area on its left. */
export interface Edge {
  segment: Segment;
  isWall: boolean;
  /** Patches of the wall, fillets at its foot included. */
  patches: number[];
}

/** A level area of a solid, as seen from one direction: what stands along its border, and how high. */
export interface LevelArea {
  frame: Frame;
  /** -1: it goes through. */
  floor: number;
  /** The outer border, then the islands that stand in it. */
  rings: Edge[][];
  /** Levels along `frame.z`: its own, and that of the face it is cut into; equal where no wall stands. */
  bottom: number;
  top: number;
  /** Of the fillets at the foot of its walls, mm. */
  floorRadius: number;
}

/** They lie on edges, or only name faces. */
const TAKE_NONE: ReadonlySet<string> = new Set(['chamfer', 'rounded-edge', 'sharp-edge', 'boss']);

/** Faces that belong to a hole, slot or groove. */
export const takenFaces = (context: RecogniseContext): ReadonlySet<number> =>
  once(
    context,
    'faces of cavities',
    () => new Set(context.found.filter((f) => !TAKE_NONE.has(f.family)).flatMap((f) => f.faces)),
  );

/** The directions that planes of a solid look to, the one that is up first and its opposite next. */
export function planeDirections({ graph, patches, main }: RecogniseContext): Vec3[] {
  const out: Vec3[] = [main, scale(main, -1)];
  for (const p of patches) {
    const n = planeNormal(at(graph.patches, p));
    if (n && !out.some((d) => isAlong(d, n))) out.push(n);
  }
  return out;
}

/** What the level planes of a solid that look along a direction are, and those whose borders are no upright walls. */
export function levelAreas(context: RecogniseContext, d: Vec3): { areas: LevelArea[]; left: number[] } {
  return once(context, `areas ${d.join()}`, () => {
    const areas: LevelArea[] = [];
    const left: number[] = [];
    const { graph, patches } = context;
    const taken = takenFaces(context);
    const frame = planFrame(d);
    for (const floor of patches) {
      const patch = at(graph.patches, floor);
      const n = planeNormal(patch);
      if (!n || !isAlong(n, d) || patch.faces.some((f) => taken.has(f))) continue;
      const area = areaOf(context, floor, frame);
      if (area) areas.push(area);
      else left.push(floor);
    }
    return { areas, left };
  });
}

function areaOf(context: RecogniseContext, floor: number, frame: Frame): LevelArea | null {
  const { model, graph } = context;
  const { loops } = at(graph.patches, floor);
  const outline = outerLoop(context, loops, frame);
  const rings: Edge[][] = [];
  for (const [i, loop] of loops.entries()) {
    // A hole or a pocket in the floor is none of its business.
    if (i !== outline && loop.every((b) => b.convexity === 'convex' || b.other < 0)) continue;
    const sides = floorSides(model, graph, loop, frame);
    const edges = sides && edgesOf(sides);
    if (!edges) return null;
    if (i === outline) rings.unshift(edges);
    else rings.push(edges);
  }
  const bottom = dot(first(at(model.edges, first(first(loops)).edge).points), frame.z);
  const levels = rings
    .flat()
    .flatMap((e) =>
      e.isWall
        ? [{ length: pathLength([e.segment]), ...wallTop(model, graph, first(e.patches), frame.z, bottom) }]
        : [],
    );
  // Under a ceiling it is undercut: another family's, or nobody's.
  if (levels.some((l) => l.ceilings.length > 0)) return null;
  return {
    frame,
    floor,
    rings,
    bottom,
    top: levels.length === 0 ? bottom : usualTop(levels),
    floorRadius: footRadius(context, loops.flat()),
  };
}

function edgesOf(sides: readonly Side[]): Edge[] | null {
  const out: Edge[] = [];
  for (const s of sides) {
    if (s.kind === 'lean') return null;
    if (s.kind === 'wall') out.push({ segment: s.segment, isWall: true, patches: [s.patch, ...s.through] });
    else out.push(...s.pieces.map((segment) => ({ segment, isWall: false, patches: [] })));
  }
  return out;
}

/** The level that most of the walls' length reaches, the highest of equals. */
function usualTop(levels: readonly { length: number; top: number }[]): number {
  const all = [...new Set(levels.map((l) => round(l.top)))];
  const reach = (top: number): number =>
    levels.reduce((sum, l) => sum + (Math.abs(l.top - top) < 1e-3 ? l.length : 0), 0);
  return all.reduce((best, t) => {
    const by = reach(t) - reach(best);
    return by > 1e-6 || (Math.abs(by) <= 1e-6 && t > best) ? t : best;
  });
}

/** Faces of an area's floor and walls, in file order. */
export function areaFaces({ graph }: RecogniseContext, { floor, rings }: LevelArea): number[] {
  const patches = [...(floor < 0 ? [] : [floor]), ...rings.flat().flatMap((e) => e.patches)];
  return [...new Set(patches.flatMap((p) => at(graph.patches, p).faces))].sort((a, b) => a - b);
}

/** A piece in plan as one in space, at a level. */
export function pieceAt(frame: Frame, s: Segment, level: number): CurvePiece {
  const place = (p: Vec2): Vec3 => roundVec(fromPlan(frame, p, level));
  if (s.kind === 'line') return { kind: 'line', from: place(s.from), to: place(s.to) };
  return {
    kind: 'arc',
    from: place(s.from),
    to: place(s.to),
    centre: place(s.centre),
    radius: round(s.radius),
    turn: s.turn,
  };
}

/** An area's border in space, at its own level. */
export const bordersOf = ({ frame, rings, bottom }: LevelArea): BorderPiece[][] =>
  rings.map((ring) =>
    ring.map(({ segment, isWall }) => ({ piece: pieceAt(frame, segment, bottom), isWall })),
  );

/** A point on an area, away from its borders. */
export const pointOn = ({ frame, rings, bottom }: LevelArea, level = bottom): Vec3 =>
  roundVec(fromPlan(frame, insidePoint(rings.map((r) => r.map((e) => e.segment))), level));

/** Beside a wall, and over a floor, where it is looked whether anything stands above, mm. */
const BESIDE = 0.05;

/** The directions of a few from which a straight tool reaches an area: nothing of the part stands over it. */
export function areaReach({ rays }: RecogniseContext, area: LevelArea, directions: readonly Vec3[]): Vec3[] {
  const { frame, rings, bottom, top, floorRadius } = area;
  const beside = rings.flat().flatMap(({ segment }) =>
    [0.1, 0.5, 0.9].map((share): Vec2 => {
      const p = segmentPoint(segment, share);
      const q = segmentPoint(segment, share + 0.01);
      const l = Math.hypot(q[0] - p[0], q[1] - p[1]) || 1;
      return [p[0] - (BESIDE * (q[1] - p[1])) / l, p[1] + (BESIDE * (q[0] - p[0])) / l];
    }),
  );
  const places = [insidePoint(rings.map((r) => r.map((e) => e.segment))), ...beside];
  return directions
    .filter((d) => {
      // Beside its walls the fillets at their foot are metal.
      const level = dot(d, frame.z) > 0 ? bottom + floorRadius + 0.02 : top - 0.02;
      return places.every((p) => rays.firstHit(fromPlan(frame, p, level), d) === null);
    })
    .map((d) => roundVec(d));
}
