import { stretchesOf } from '@yellow-pin/core/motion/stretches';
import { parallelPath } from '@yellow-pin/core/geometry/parallel';
import { reversePath, segmentPoint, type Segment, type Vec2 } from '@yellow-pin/core/geometry/path';
import type { PlannedOperation } from '@yellow-pin/core/job/derive';
import type { AreaView } from '@yellow-pin/core/operations/area-view';
import type { EdgeView } from '@yellow-pin/core/operations/edge-view';
import type { GrooveView } from '@yellow-pin/core/operations/groove-view';

/** What is drawn from above with the way of its cutter. */
export type PlanView = GrooveView | AreaView | EdgeView;

export const PLAN_WIDTH = 282;
export const PLAN_HEIGHT = 130;
const MARGIN = 10;

/** A groove from above with the way of its cutter, as paths in px. */
export interface DrawnPlan {
  k: number;
  /** Its walls at the widest and at the mouth, and its middle. */
  walls: string[];
  middle: string;
  /** Where the cutter's centre goes while it cuts, and where it only comes and goes. */
  cuts: string;
  leads: string;
  /** The cutter at the end of its way along the wall. */
  cutter: { x: number; y: number; r: number };
}

const points = (s: Segment): Vec2[] =>
  s.kind === 'line' ? [s.from, s.to] : Array.from({ length: 25 }, (_, i) => segmentPoint(s, i / 24));

/** The outline at a distance from the middle: closed round its shut ends, run out at its open ones. */
function outlineAt({ shape }: GrooveView, half: number): Vec2[][] {
  const { path, closed, ends, isOneSided } = shape;
  if (isOneSided) return [parallelPath(path, -half, closed)?.flatMap(points) ?? []];
  const [left, right] = [parallelPath(path, half, closed), parallelPath(path, -half, closed)];
  if (!left || !right) return [];
  if (closed) return [left.flatMap(points), right.flatMap(points)];
  const cap = (centre: Vec2, from: Vec2, to: Vec2, isOpen: boolean): Vec2[] =>
    isOpen ? [from, to] : points({ kind: 'arc', from, to, centre, radius: half, turn: Math.PI });
  const back = reversePath(left);
  const [end, start] = [path[path.length - 1]!.to, path[0]!.from];
  return [
    [
      ...right.flatMap(points),
      ...cap(end, right[right.length - 1]!.to, back[0]!.from, ends[1].open),
      ...back.flatMap(points),
      ...cap(start, back[back.length - 1]!.to, right[0]!.from, ends[0].open),
    ],
  ];
}

/** What bounds a groove or an area from above, its middle line where it has one, and how much more the cutter needs about it, mm. */
interface Outlines {
  rings: Vec2[][];
  middle: Vec2[];
  isClosed: boolean;
  start: Vec2;
  more: number;
}

function grooveOutlines(view: GrooveView, radius: number): Outlines {
  const { shape } = view;
  const halves = [...new Set(shape.levels.flatMap((l) => [l.halfTop, l.halfBottom]))];
  const start = shape.path[0]!.from;
  const circle = (r: number): Vec2[] =>
    Array.from({ length: 49 }, (_, i) => [
      start[0] + r * Math.cos((i * Math.PI) / 24),
      start[1] + r * Math.sin((i * Math.PI) / 24),
    ]);
  const isRound = shape.bore !== undefined;
  const rings = isRound
    ? [...halves, shape.bore ?? 0].map(circle)
    : [
        ...halves.flatMap((h) => outlineAt(view, h)),
        ...(shape.isOneSided ? [shape.path.flatMap(points)] : []),
      ];
  return {
    rings,
    middle: isRound || shape.isOneSided ? [] : [...shape.path].flatMap(points),
    isClosed: shape.closed,
    start,
    more: shape.isOneSided || shape.ends.some((e) => e.open) ? 2 * radius : 1,
  };
}

function areaOutlines({ shape }: AreaView, radius: number): Outlines {
  const rings = shape.rings.map((r) => r.flatMap((e) => points(e.segment)));
  const start = rings[0]?.[0] ?? [0, 0];
  return { rings, middle: [], isClosed: true, start, more: shape.side === 'closed' ? 1 : 2 * radius };
}

export const isAreaView = (v: PlanView): v is AreaView => 'rings' in v.shape;
export const isEdgeView = (v: PlanView): v is EdgeView => 'profile' in v.shape;

/** An edge is one line; what its cutter needs stands beside it. */
const edgeOutlines = ({ shape }: EdgeView, radius: number): Outlines => ({
  rings: [shape.path.flatMap(points)],
  middle: [],
  isClosed: shape.closed,
  start: shape.path[0]?.from ?? [0, 0],
  more: shape.side === 'inside' ? 1 : 2.5 * radius,
});

/** Lays a groove, an area or an edge out from above, its longer side across. */
export function drawPlan(view: PlanView, { tool, work: works }: PlannedOperation): DrawnPlan {
  const radius = tool.diameter / 2;
  const isArea = isAreaView(view);
  const outlines = isArea
    ? areaOutlines(view, radius)
    : isEdgeView(view)
      ? edgeOutlines(view, radius)
      : grooveOutlines(view, radius);
  const isOneSided = isEdgeView(view) ? !view.shape.closed : !isArea && view.shape.isOneSided;
  const work = works.find((w) => w.label === view.label) ?? works[0];
  const { more } = outlines;
  const xs = outlines.rings.flat().map((p) => p[0]);
  const ys = outlines.rings.flat().map((p) => p[1]);
  const box = [
    Math.min(...xs) - more,
    Math.min(...ys) - more,
    Math.max(...xs) + more,
    Math.max(...ys) + more,
  ] as const;
  const [w, h] = [box[2] - box[0], box[3] - box[1]];
  const isTall = h > w;
  const k = Math.min(
    (PLAN_WIDTH - 2 * MARGIN) / (isTall ? h : w),
    (PLAN_HEIGHT - 2 * MARGIN) / (isTall ? w : h),
  );
  const place = ([x, y]: readonly [number, number]): [number, number] => {
    const [u, v] = [x - (box[0] + box[2]) / 2, y - (box[1] + box[3]) / 2];
    // A tall one lies on its side.
    return isTall
      ? [PLAN_WIDTH / 2 + k * v, PLAN_HEIGHT / 2 + k * u]
      : [PLAN_WIDTH / 2 + k * u, PLAN_HEIGHT / 2 - k * v];
  };
  const d = (p: Vec2[], close = true): string =>
    p.length === 0
      ? ''
      : `M${p
          .map((q) =>
            place(q)
              .map((c) => c.toFixed(1))
              .join(' '),
          )
          .join('L')}${close ? 'Z' : ''}`;
  const way = { cuts: '', leads: '' };
  if (work?.motion.kind === 'path')
    for (const pass of work.motion.passes)
      for (const [i, move] of pass.moves.entries()) {
        if (move.kind === 'dwell') continue;
        const before = pass.moves[i - 1];
        const from = before && before.kind !== 'dwell' ? before.to : pass.start;
        const own = stretchesOf({
          ...work,
          motion: { kind: 'path', passes: [{ start: from, moves: [move] }] },
        });
        const text = own
          .map(([a, b]) =>
            d(
              [
                [a[0], a[1]],
                [b[0], b[1]],
              ],
              false,
            ),
          )
          .join('');
        if (move.feed === 'lead') way.leads += text;
        else way.cuts += text;
      }
  const [cx, cy] = place(lastCut(work) ?? outlines.start);
  return {
    k,
    // An area's islands are holes in it.
    walls: isArea ? [outlines.rings.map((o) => d(o)).join('')] : outlines.rings.map((o) => d(o, !isOneSided)),
    middle: d(outlines.middle, outlines.isClosed),
    ...way,
    cutter: { x: cx, y: cy, r: radius * k },
  };
}

/** Half-way along the last way on which the cutter cuts. */
function lastCut(work: PlannedOperation['work'][number] | undefined): [number, number] | null {
  if (work?.motion.kind !== 'path') return work ? [work.x, work.y] : null;
  const moves = work.motion.passes.flatMap((p) => p.moves).filter((m) => m.kind !== 'dwell');
  const i = moves.findLastIndex((m) => m.feed !== 'lead');
  const [before, last] = [moves[i - 1], moves[i]];
  if (!last) return null;
  if (last.kind === 'arc' || !before) return [last.to[0], last.to[1]];
  return [(before.to[0] + last.to[0]) / 2, (before.to[1] + last.to[1]) / 2];
}
