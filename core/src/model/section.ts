import { at } from '../lists.ts';
import { beginningAt, endingAt, jointOf } from '../geometry/parallel.ts';
import { distance2, turnBetween, type Segment, type Vec2 } from '../geometry/path.ts';
import { dot, type Vec3 } from '../geometry/vec.ts';
import type { Frame } from '../geometry/frame.ts';
import type { PartMesh } from './mesh.ts';
import { isWall, planeNormal, type PatchGraph } from './patches.ts';

/** A stretch of a cut through the part, along one of its patches, with the metal on its left. */
export interface CutPiece {
  patch: number;
  /** Exact where the patch is an upright plane or cylinder; null: it is something else, and only its ends are known. */
  segment: Segment | null;
  from: Vec2;
  to: Vec2;
}

/** A closed cut: counter-clockwise round metal, clockwise round air. */
export interface CutLoop {
  pieces: CutPiece[];
  /** Signed, mm²: above 0 round metal. */
  area: number;
}

const toPlan = (f: Frame, p: Vec3): Vec2 => [dot(p, f.x), dot(p, f.y)];

/** Corners nearer than this are one, mm: the mesh keeps places as single-precision numbers. */
const SAME = 2e-3;

/** Cuts a part's mesh at levels along `frame.z`; each cut looks at all triangles. */
export class Sections {
  private readonly heights: Float64Array;

  constructor(
    private readonly mesh: PartMesh,
    private readonly graph: PatchGraph,
    private readonly frame: Frame,
  ) {
    const { positions } = mesh;
    const n = positions.length / 3;
    const [x, y, z] = frame.z;
    this.heights = new Float64Array(n);
    for (let i = 0; i < n; i++)
      this.heights[i] = positions[3 * i]! * x + positions[3 * i + 1]! * y + positions[3 * i + 2]! * z;
  }

  /** The closed cuts at a level that no corner of the mesh lies on. */
  at(level: number): CutLoop[] {
    const { mesh, heights, graph } = this;
    const { triangles, faceOf } = mesh;
    const sides: { patch: number; from: Vec2; to: Vec2 }[] = [];
    for (let t = 0; t < faceOf.length; t++) {
      const [a, b, c] = [triangles[3 * t]!, triangles[3 * t + 1]!, triangles[3 * t + 2]!];
      const [ha, hb, hc] = [heights[a]! - level, heights[b]! - level, heights[c]! - level];
      if (ha > 0 === hb > 0 && hb > 0 === hc > 0) continue;
      // Seen from outside a triangle rises on its right: a cut from where it falls to where it rises has the metal on its left.
      const cut: { rises: Vec2 | null; falls: Vec2 | null } = { rises: null, falls: null };
      for (const [p, q, hp, hq] of [
        [a, b, ha, hb],
        [b, c, hb, hc],
        [c, a, hc, ha],
      ] as const) {
        if (hp > 0 === hq > 0) continue;
        // From the lower end to the higher: the two triangles of a side find one place.
        if (hq > 0) cut.rises = this.between(p, q, hp / (hp - hq));
        else cut.falls = this.between(q, p, hq / (hq - hp));
      }
      if (cut.rises && cut.falls)
        sides.push({ patch: at(graph.ofFace, faceOf[t]!), from: cut.falls, to: cut.rises });
    }
    return chained(sides).map((loop) => this.loopOf(loop));
  }

  private between(p: number, q: number, share: number): Vec2 {
    const { positions } = this.mesh;
    const point = [0, 1, 2].map(
      (k) => positions[3 * p + k]! + share * (positions[3 * q + k]! - positions[3 * p + k]!),
    ) as Vec3;
    return toPlan(this.frame, point);
  }

  /** Sides along one patch are one piece, on its exact line or circle. */
  private loopOf(sides: { patch: number; from: Vec2; to: Vec2 }[]): CutLoop {
    let area = 0;
    for (const s of sides) area += (s.from[0] * s.to[1] - s.from[1] * s.to[0]) / 2;
    const start = sides.findIndex(
      (s, i) => s.patch !== at(sides, (i + sides.length - 1) % sides.length).patch,
    );
    const turned = start <= 0 ? sides : [...sides.slice(start), ...sides.slice(0, start)];
    const runs: (typeof sides)[] = [];
    for (const s of turned) {
      const run = runs[runs.length - 1];
      if (run && at(run, 0).patch === s.patch) run.push(s);
      else runs.push([s]);
    }
    return { pieces: cornered(runs.map((run) => this.pieceOf(run))), area };
  }

  private pieceOf(run: { patch: number; from: Vec2; to: Vec2 }[]): CutPiece {
    const { patch, from } = at(run, 0);
    const { to } = at(run, run.length - 1);
    const p = at(this.graph.patches, patch);
    if (!isWall(p, this.frame.z)) return { patch, segment: null, from, to };
    if (p.surface.kind === 'cylinder') {
      const centre = toPlan(this.frame, p.surface.origin);
      const { radius } = p.surface;
      const place = (q: Vec2): Vec2 => {
        const l = distance2(q, centre) || 1;
        return [centre[0] + ((q[0] - centre[0]) * radius) / l, centre[1] + ((q[1] - centre[1]) * radius) / l];
      };
      const turn = run.reduce((sum, s) => sum + shortTurn(centre, s.from, s.to), 0);
      const isRound = Math.abs(Math.abs(turn) - 2 * Math.PI) < 1e-3;
      const [start, end] = [place(from), isRound ? place(from) : place(to)];
      const exact = isRound ? Math.sign(turn) * 2 * Math.PI : turnBetween(centre, start, end, turn > 0);
      return {
        patch,
        segment: { kind: 'arc', from: start, to: end, centre, radius, turn: exact },
        from: start,
        to: end,
      };
    }
    const n = planeNormal(p);
    if (!n || p.surface.kind !== 'plane') return { patch, segment: null, from, to };
    const normal: Vec2 = [dot(n, this.frame.x), dot(n, this.frame.y)];
    const offset = dot(p.surface.origin, n);
    const foot = (q: Vec2): Vec2 => {
      const k = offset - (q[0] * normal[0] + q[1] * normal[1]);
      return [q[0] + k * normal[0], q[1] + k * normal[1]];
    };
    const line: Segment = { kind: 'line', from: foot(from), to: foot(to) };
    return { patch, segment: line, from: line.from, to: line.to };
  }
}

/** Pieces that end where their exact lines and circles meet. */
function cornered(pieces: CutPiece[]): CutPiece[] {
  if (pieces.length < 2) return pieces;
  const out = pieces.map((p) => ({ ...p }));
  out.forEach((a, i) => {
    const b = at(out, (i + 1) % out.length);
    const corner = a.segment && b.segment && jointOf(a.segment, b.segment);
    if (!corner || !a.segment || !b.segment || distance2(corner, a.to) > NEAR) return;
    [a.to, b.from] = [corner, corner];
    a.segment = endingAt(a.segment, corner);
    b.segment = beginningAt(b.segment, corner);
  });
  return out;
}

/** A corner of the mesh lies at least as near to the true one, mm. */
const NEAR = 0.05;

/** By how much a short step round a centre turns, radians. */
function shortTurn(c: Vec2, p: Vec2, q: Vec2): number {
  const [a, b]: [Vec2, Vec2] = [
    [p[0] - c[0], p[1] - c[1]],
    [q[0] - c[0], q[1] - c[1]],
  ];
  return Math.atan2(a[0] * b[1] - a[1] * b[0], a[0] * b[0] + a[1] * b[1]);
}

/** Cells of one column of places, at most: what a whole number holds. */
const ROW = 2 ** 26;

/** Sides put end to end into closed loops; what does not close is left out. */
export function chained<S extends { from: Vec2; to: Vec2 }>(sides: readonly S[]): S[][] {
  const key = ([x, y]: Vec2, dx: number, dy: number): number =>
    (Math.round(x / SAME) + dx) * ROW + Math.round(y / SAME) + dy;
  const starts = new Map<number, number[]>();
  sides.forEach((s, i) => {
    const k = key(s.from, 0, 0);
    const list = starts.get(k);
    if (list) list.push(i);
    else starts.set(k, [i]);
  });
  const used = new Uint8Array(sides.length);
  const next = (p: Vec2): number => {
    let best = -1;
    let away = SAME;
    const look = (dx: number, dy: number): void => {
      for (const i of starts.get(key(p, dx, dy)) ?? []) {
        const d = distance2(sides[i]!.from, p);
        if (used[i] === 0 && d < away) [best, away] = [i, d];
      }
    };
    look(0, 0);
    // Nearly always it is there to the last digit; else it may lie over the border of its cell.
    if (best < 0) for (let dx = -1; dx <= 1; dx++) for (let dy = -1; dy <= 1; dy++) look(dx, dy);
    return best;
  };
  const out: S[][] = [];
  for (let i = 0; i < sides.length; i++) {
    if (used[i] !== 0) continue;
    const loop: S[] = [];
    let here = i;
    while (here >= 0) {
      used[here] = 1;
      loop.push(at(sides, here));
      here = next(at(sides, here).to);
    }
    if (loop.length > 2 && distance2(at(loop, 0).from, at(loop, loop.length - 1).to) < SAME) out.push(loop);
  }
  return out;
}

/** How a triangle is cut at a level, with the metal on the left; null where it is not. Three corners from `at` on in a list of x, y, z. */
export function cutOfTriangle(xyz: Float64Array, at: number, level: number): { from: Vec2; to: Vec2 } | null {
  let [from, to]: [Vec2 | null, Vec2 | null] = [null, null];
  for (let k = 0; k < 3; k++) {
    const [p, q] = [at + 3 * k, at + 3 * ((k + 1) % 3)];
    const [hp, hq] = [xyz[p + 2]! - level, xyz[q + 2]! - level];
    if (hp > 0 === hq > 0) continue;
    // From the lower end to the higher: the two triangles of a side find one place.
    const [low, high, share] = hq > 0 ? [p, q, hp / (hp - hq)] : [q, p, hq / (hq - hp)];
    const place: Vec2 = [
      xyz[low]! + share * (xyz[high]! - xyz[low]!),
      xyz[low + 1]! + share * (xyz[high + 1]! - xyz[low + 1]!),
    ];
    if (hq > 0) to = place;
    else from = place;
  }
  return from && to ? { from, to } : null;
}
