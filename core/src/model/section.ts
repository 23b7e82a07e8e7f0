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

/** A plane whose normal's cosine is this near to one is met at its own level alone. */
const LEVEL = 1 - 1e-12;

/** Cuts a part's mesh at levels along `frame.z`; each cut looks at all triangles that are neither left out nor level. */
export class Sections {
  private readonly heights: Float64Array;
  /** The triangles that may be cut, by number. */
  private readonly cut: Uint32Array;

  constructor(
    private readonly mesh: PartMesh,
    private readonly graph: PatchGraph,
    private readonly frame: Frame,
    /** Patches that are not cut. */
    isLeftOut: readonly boolean[] = [],
  ) {
    const { positions, triangles, faceOf } = mesh;
    const [x, y, z] = frame.z;
    const isCut = graph.patches.map(
      ({ surface: s }, i) =>
        !isLeftOut[i] && !(s.kind === 'plane' && Math.abs(dot(s.normal, frame.z)) > LEVEL),
    );
    this.heights = new Float64Array(positions.length / 3);
    const cut = new Uint32Array(faceOf.length);
    let count = 0;
    for (let t = 0; t < faceOf.length; t++) {
      if (!isCut[graph.ofFace[faceOf[t]!]!]) continue;
      cut[count++] = t;
      for (let k = 3 * t; k < 3 * t + 3; k++) {
        const i = triangles[k]!;
        this.heights[i] = positions[3 * i]! * x + positions[3 * i + 1]! * y + positions[3 * i + 2]! * z;
      }
    }
    this.cut = cut.subarray(0, count);
  }

  /** The closed cuts at a level that no corner of the mesh lies on. */
  at(level: number): CutLoop[] {
    const { mesh, heights, graph } = this;
    const { triangles, faceOf } = mesh;
    const sides: { patch: number; from: Vec2; to: Vec2 }[] = [];
    for (const t of this.cut) {
      const [a, b, c] = [triangles[3 * t]!, triangles[3 * t + 1]!, triangles[3 * t + 2]!];
      const [ha, hb, hc] = [heights[a]! - level, heights[b]! - level, heights[c]! - level];
      if (ha > 0 === hb > 0 && hb > 0 === hc > 0) continue;
      const patch = graph.ofFace[faceOf[t]!]!;
      // Seen from outside a triangle rises on its right: a cut from where it falls to where it rises has the metal on its left.
      let [rises, falls]: [Vec2 | null, Vec2 | null] = [null, null];
      for (let k = 0; k < 3; k++) {
        const [p, q] = [triangles[3 * t + k]!, triangles[3 * t + ((k + 1) % 3)]!];
        const [hp, hq] = [heights[p]! - level, heights[q]! - level];
        if (hp > 0 === hq > 0) continue;
        // From the lower end to the higher: the two triangles of a side find one place.
        if (hq > 0) rises = this.between(p, q, hp / (hp - hq));
        else falls = this.between(q, p, hq / (hq - hp));
      }
      if (rises && falls) sides.push({ patch, from: falls, to: rises });
    }
    return chained(sides).map((loop) => this.loopOf(loop));
  }

  private between(p: number, q: number, share: number): Vec2 {
    const { positions } = this.mesh;
    const [a, b] = [3 * p, 3 * q];
    return toPlan(this.frame, [
      positions[a]! + share * (positions[b]! - positions[a]!),
      positions[a + 1]! + share * (positions[b + 1]! - positions[a + 1]!),
      positions[a + 2]! + share * (positions[b + 2]! - positions[a + 2]!),
    ]);
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

interface Side {
  from: Vec2;
  to: Vec2;
}

/** Sides by the cell that they begin in. */
class Starts<S extends Side> {
  private readonly cells = new Map<number, number[]>();
  private readonly used: Uint8Array;

  constructor(private readonly sides: readonly S[]) {
    this.used = new Uint8Array(sides.length);
    sides.forEach((s, i) => {
      const k = this.key(s.from, 0, 0);
      const list = this.cells.get(k);
      if (list) list.push(i);
      else this.cells.set(k, [i]);
    });
  }

  /** The side, unless it was taken before. */
  take(i: number): S | null {
    if (this.used[i] !== 0) return null;
    this.used[i] = 1;
    return at(this.sides, i);
  }

  /** The side not yet taken that begins where another ends; -1 where none does. */
  after(p: Vec2): number {
    // Nearly always it is there to the last digit; else it may lie over the border of its cell.
    let best = this.nearest(p, 0, 0);
    if (best < 0)
      for (let dx = -1; dx <= 1 && best < 0; dx++)
        for (let dy = -1; dy <= 1 && best < 0; dy++) best = this.nearest(p, dx, dy);
    return best;
  }

  private nearest(p: Vec2, dx: number, dy: number): number {
    let [best, away] = [-1, SAME];
    for (const i of this.cells.get(this.key(p, dx, dy)) ?? []) {
      const d = distance2(this.sides[i]!.from, p);
      if (this.used[i] === 0 && d < away) [best, away] = [i, d];
    }
    return best;
  }

  private key([x, y]: Vec2, dx: number, dy: number): number {
    return (Math.round(x / SAME) + dx) * ROW + Math.round(y / SAME) + dy;
  }
}

/** Sides put end to end into closed loops; what does not close is left out. */
export function chained<S extends Side>(sides: readonly S[]): S[][] {
  const starts = new Starts(sides);
  const out: S[][] = [];
  for (let i = 0; i < sides.length; i++) {
    const loop: S[] = [];
    let side = starts.take(i);
    while (side) {
      loop.push(side);
      const next = starts.after(side.to);
      side = next < 0 ? null : starts.take(next);
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
