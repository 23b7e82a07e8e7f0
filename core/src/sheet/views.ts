import { frameFrom, toFrame, type Frame } from '../geometry/frame.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { PartMesh } from '../model/mesh.ts';
import type { Bounds } from '../model/solid-model.ts';
import type { SetupFrame } from '../setup/setup-frame.ts';
import { heightsFor } from '../space/cache.ts';
import type { SheetView } from './schema.ts';

/** Pieces of edges in the part file's frame: six numbers each, and which edge it is of. */
export interface EdgePieces {
  positions: Float32Array;
  edgeOf: Uint32Array;
}

/** An edge is seen where nothing of the part stands higher over it than this, mm. */
const BURIED = 0.05;
/** Looked at beside the edge itself, so that its own faces hide nothing, mm. */
const THIN = 0.02;

type Axis = 'X' | 'Y' | 'Z';
const PLACE = { X: 0, Y: 1, Z: 2 } as const;

/** A setup seen from above, Y up on the paper. */
export const topView = (
  setup: SetupFrame,
  mesh: PartMesh,
  edges: EdgePieces,
  tags: SheetView['tags'],
): SheetView => viewOf(setup, setup.frame, ['X', 'Y'], mesh, edges, tags);

/** A setup seen from its front, Z up on the paper. */
export function frontView(setup: SetupFrame, mesh: PartMesh, edges: EdgePieces): SheetView {
  const { origin, x, y } = setup.frame;
  return viewOf(setup, frameFrom(origin, [-y[0], -y[1], -y[2]], x), ['X', 'Z'], mesh, edges, []);
}

function viewOf(
  setup: SetupFrame,
  frame: Frame,
  [right, up]: readonly [Axis, Axis],
  mesh: PartMesh,
  edges: EdgePieces,
  tags: SheetView['tags'],
): SheetView {
  const flat = ({ min, max }: Bounds): SheetView['stock'] => [
    [min[PLACE[right]], min[PLACE[up]]],
    [max[PLACE[right]], max[PLACE[up]]],
  ];
  return {
    right,
    up,
    lines: seenLines(frame, mesh, edges),
    stock: flat(setup.stock),
    keepOuts: setup.keepOuts.map((k) => ({ name: k.name, box: flat(k) })),
    tags,
  };
}

/** Pieces of edges that are seen along a frame's Z from above, chained where one goes on into the next; rounded to 0.01 mm. */
function seenLines(frame: Frame, mesh: PartMesh, { positions, edgeOf }: EdgePieces): number[][] {
  const heights = heightsFor(mesh, frame);
  const out: number[][] = [];
  let run: number[] = [];
  let last = null as { edge: number; end: Vec3 } | null;
  const round = (v: number): number => Math.round(v * 100) / 100;
  for (let i = 0; i < edgeOf.length; i++) {
    const at = (k: number): Vec3 => [
      positions[6 * i + k] ?? 0,
      positions[6 * i + k + 1] ?? 0,
      positions[6 * i + k + 2] ?? 0,
    ];
    const [from, to] = [toFrame(frame, at(0)), toFrame(frame, at(3))];
    const middle = [0, 1, 2].map((k) => ((from[k] ?? 0) + (to[k] ?? 0)) / 2) as Vec3;
    const isFlat = Math.hypot(to[0] - from[0], to[1] - from[1]) < 0.01;
    const isSeen = !isFlat && heights.column(middle[0], middle[1], THIN) <= middle[2] + BURIED;
    if (!isSeen) {
      last = null;
      continue;
    }
    const edge = edgeOf[i] ?? -1;
    const goesOn =
      last?.edge === edge &&
      Math.hypot(last.end[0] - from[0], last.end[1] - from[1], last.end[2] - from[2]) < 1e-6;
    if (!goesOn) {
      run = [round(from[0]), round(from[1])];
      out.push(run);
    }
    run.push(round(to[0]), round(to[1]));
    last = { edge, end: to };
  }
  return out;
}
