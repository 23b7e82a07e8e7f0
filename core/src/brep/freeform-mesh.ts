import { add, distance, dot, length, normalize, scale, sub, type Vec3 } from '../geometry/vec.ts';
import { closeOutline, type Turns } from '../model/close-outline.ts';
import { insideTest, level, triangulateOutline, turnRound, type Flat } from '../model/triangulate.ts';
import type { FreeformMesh } from '../model/solid-model.ts';
import type { FreeformFace } from './build-model.ts';
import { NearestPlace } from './nearest-place.ts';
import {
  domainNormal,
  surfaceDomain,
  transformDirection,
  transformPoint,
  type SurfaceDomain,
} from './evaluate.ts';
import { invert34 } from './matrix34.ts';

/** Between two inner points the surface turns by at most this, radians, and leaves its chord by at most this, mm. */
const TURN = 0.3;
const CHORD = 0.02;
/** Lines of inner points in one direction at most. */
const MOST = 60;
/** Places on a surface are found within this, mm. */
const FOUND = 1e-6;

/**
 * Triangles of a free-form face in the parameters of its surface. The corners on its border are the samples of its edges, so that it fits the
 * faces beside it; inside stands a grid as dense as the surface bends. Null where its border cannot be laid out flat.
 */
export function meshFreeform(face: FreeformFace): FreeformMesh | null {
  const domain = surfaceDomain(face.surface);
  if (!domain) return null;
  const back = face.location && invert34(face.location);
  const flat = new FlatPicture(domain);
  const loops: Flat[][] = [];
  for (const points of face.loops) {
    const loop = flat.unroll(points.map((p) => transformPoint(back, p)));
    if (!loop) return null;
    if (loop.length >= 3) loops.push(loop);
  }
  const outlines = closeOutline(loops, flat.turns, face.reversed ? -1 : 1);
  if (outlines.length === 0) return null;
  flat.suit(outlines);
  level(outlines, FOUND);
  const outline = triangulateOutline(outlines, flat.grid(outlines));
  if (!outline) return null;
  return flat.mesh(outline.flat, outline.triangles, face);
}

/** Parameters of a surface stretched to lengths: what is far apart on it is far apart in the picture. */
class FlatPicture {
  private readonly scaleU: number;
  private scaleV: number;
  /** Poles are points of its own border here: no outline ends in one that it does not run to. */
  readonly turns: Turns;
  private readonly nearest: NearestPlace;

  constructor(private readonly d: SurfaceDomain) {
    const { u, v } = d;
    const tries = [0.1, 0.3, 0.5, 0.7, 0.9];
    const at = (range: [number, number], t: number) => range[0] + t * (range[1] - range[0]);
    const lengthAlong = (way: 'u' | 'v') =>
      Math.max(
        1e-9,
        ...tries.map(
          (s) =>
            tries.slice(1).reduce((sum, t, i) => {
              const [a, b] = [tries[i]!, t];
              return way === 'u'
                ? sum + distance(d.point(at(u, a), at(v, s)), d.point(at(u, b), at(v, s)))
                : sum + distance(d.point(at(u, s), at(v, a)), d.point(at(u, s), at(v, b)));
            }, 0) / 0.8,
        ),
      );
    this.scaleU = lengthAlong('u') / (u[1] - u[0]);
    this.scaleV = lengthAlong('v') / (v[1] - v[0]);
    const closes = (way: 'u' | 'v') =>
      tries.every((t) =>
        way === 'u'
          ? distance(d.point(u[0], at(v, t)), d.point(u[1], at(v, t))) < 1e-5
          : distance(d.point(at(u, t), v[0]), d.point(at(u, t), v[1])) < 1e-5,
      );
    this.turns = {
      u: closes('u') ? (u[1] - u[0]) * this.scaleU : 0,
      v: closes('v') ? (v[1] - v[0]) * this.scaleV : 0,
      poles: {},
      between: (a, b) => this.between(a, b),
    };
    this.nearest = new NearestPlace(d, this.turns.u > 0, this.turns.v > 0);
  }

  /** Points on the way that is straight in the picture: twice as many until none lies off its chord. */
  private between(a: Flat, b: Flat): Flat[] {
    const at = (t: number): Flat => {
      const [u, v] = [a.u + t * (b.u - a.u), a.v + t * (b.v - a.v)];
      return { u, v, point: t === 0 ? a.point : t === 1 ? b.point : this.at(u, v) };
    };
    for (let n = 2; ; n *= 2) {
      const run = Array.from({ length: n + 1 }, (_, i) => at(i / n));
      const isNear = run.slice(1).every((q, i) => {
        const p = run[i]!.point;
        const middle = at((i + 0.5) / n).point;
        return distance(middle, scale(add(p, q.point), 0.5)) < CHORD;
      });
      if (isNear || n >= MOST) return run.slice(1, -1);
    }
  }

  /** A closed run of points laid out flat; null where it does not lie on the surface. */
  unroll(points: readonly Vec3[]): Flat[] | null {
    const out: Flat[] = [];
    let near: [number, number] | null = null;
    for (const p of points) {
      const found: [number, number] | null = this.nearest.find(p, near);
      if (!found) return null;
      near = found;
      let [u, v] = [found[0] * this.scaleU, found[1] * this.scaleV];
      const before = out[out.length - 1];
      if (before && this.turns.u > 0) u += Math.round((before.u - u) / this.turns.u) * this.turns.u;
      if (before && this.turns.v > 0) v += Math.round((before.v - v) / this.turns.v) * this.turns.v;
      out.push({ u, v, point: p });
    }
    this.openPoles(out);
    return out;
  }

  /** A pole has every parameter of its side: it is come to at that of the point before, and left at that of the next. */
  private openPoles(run: Flat[]): void {
    for (let i = run.length - 1; i >= 0; i--) {
      const f = run[i]!;
      const side = this.poleAt(f);
      if (side === null) continue;
      const [before, after] = [run[(i + run.length - 1) % run.length]!, run[(i + 1) % run.length]!];
      const [a, b] = [{ ...f }, { ...f }];
      a[side] = before[side];
      b[side] = after[side];
      if (Math.abs(a[side] - b[side]) > 1e-9) run.splice(i, 1, a, b);
      else run.splice(i, 1, a);
    }
  }

  /** The parameter that says nothing at a place, as where a dome's lines come together. */
  private poleAt({ u, v }: Flat): 'u' | 'v' | null {
    const [pu, pv] = [u / this.scaleU, v / this.scaleV];
    const { d } = this;
    const isStill = (at: (t: number) => Vec3, [lo, hi]: [number, number]) =>
      distance(at(lo), at((lo + hi) / 2)) < 1e-5 && distance(at(lo), at(hi)) < 1e-5;
    if (isStill((t) => d.point(t, pv), d.u)) return 'u';
    return isStill((t) => d.point(pu, t), d.v) ? 'v' : null;
  }

  /**
   * Changes the picture's proportions so that a step is as long either way. A surface that bends in one way only, as an extruded curve does,
   * has no inner points: where it is high its triangles would span many samples round the bend, and cut it short.
   */
  suit(loops: Flat[][]): void {
    const { stepU, stepV } = this.steps(loops);
    const k = stepU / stepV;
    if (!(k > 0 && Number.isFinite(k))) return;
    this.scaleV *= k;
    for (const loop of loops) for (const f of loop) f.v *= k;
  }

  /** Where the outlines reach, and how many steps the surface wants there either way. */
  private steps(loops: Flat[][]) {
    const range = (key: 'u' | 'v'): [number, number] => {
      let [lo, hi] = [Infinity, -Infinity];
      for (const loop of loops) for (const f of loop) [lo, hi] = [Math.min(lo, f[key]), Math.max(hi, f[key])];
      return [lo, hi];
    };
    const [ru, rv] = [range('u'), range('v')];
    const [nu, nv] = [this.lines(ru, rv, 'u'), this.lines(rv, ru, 'v')];
    return { ru, rv, nu, nv, stepU: (ru[1] - ru[0]) / nu, stepV: (rv[1] - rv[0]) / nv };
  }

  /** Inner points on a grid, clear of the border. */
  grid(loops: Flat[][]): Flat[] {
    const { ru, rv, nu, nv, stepU, stepV } = this.steps(loops);
    const inside = insideTest(loops);
    const out: Flat[] = [];
    for (let i = 1; i < nu; i++)
      for (let j = 1; j < nv; j++) {
        const [u, v] = [ru[0] + i * stepU, rv[0] + j * stepV];
        const [mu, mv] = [0.35 * stepU, 0.35 * stepV];
        if (inside(u, v) && inside(u - mu, v) && inside(u + mu, v) && inside(u, v - mv) && inside(u, v + mv))
          out.push({ u, v, point: this.at(u, v) });
      }
    return out;
  }

  /** How many steps are wanted in one way, so that turn and chord of each stay small. */
  private lines(own: [number, number], other: [number, number], way: 'u' | 'v'): number {
    let most = 1;
    const n = 16;
    for (const share of [0.15, 0.5, 0.85]) {
      const across = other[0] + share * (other[1] - other[0]);
      const at = (i: number): [number, number] => {
        const t = own[0] + (i / n) * (own[1] - own[0]);
        return way === 'u' ? [t, across] : [across, t];
      };
      const run = Array.from({ length: n + 1 }, (_, i) => this.at(...at(i)));
      const normals = run.map((_, i) => this.normal({ u: at(i)[0], v: at(i)[1] }));
      let [turn, twist, long] = [0, 0, 0];
      for (let i = 0; i < n; i++) {
        const step = sub(run[i + 1]!, run[i]!);
        long += length(step);
        if (i > 0) turn += angleBetween(sub(run[i]!, run[i - 1]!), step);
        twist += angleBetween(normals[i]!, normals[i + 1]!);
      }
      // What lies across may be straight and turn all the same, as a screw's side does.
      turn = Math.max(turn, twist);
      // An arc of length L and turn A in n pieces leaves its chord by L·A/(8·n²).
      most = Math.max(most, Math.ceil(turn / TURN), Math.ceil(Math.sqrt((long * turn) / (8 * CHORD))));
    }
    return Math.min(MOST, most);
  }

  mesh(flat: Flat[], triangles: number[], face: FreeformFace): FreeformMesh {
    const sign = face.reversed ? -1 : 1;
    const positions: number[] = [];
    const normals: number[] = [];
    for (const f of flat) {
      positions.push(...transformPoint(face.location, f.point));
      normals.push(...scale(normalize(transformDirection(face.location, this.normal(f))), sign));
    }
    // Counter-clockwise in the picture is so as seen along the surface's own normal.
    if (face.reversed) turnRound(triangles);
    return { positions, normals, triangles };
  }

  /** The surface's own normal; at a pole, that of a place beside it. */
  private normal({ u, v }: Pick<Flat, 'u' | 'v'>): Vec3 {
    const [pu, pv] = this.inDomain(u / this.scaleU, v / this.scaleV);
    const n = domainNormal(this.d, pu, pv);
    if (length(n) > 0.5) return n;
    const toward = (t: number, [lo, hi]: [number, number]) => t + 1e-3 * ((lo + hi) / 2 - t);
    return domainNormal(this.d, toward(pu, this.d.u), toward(pv, this.d.v));
  }

  private at(u: number, v: number): Vec3 {
    return this.d.point(...this.inDomain(u / this.scaleU, v / this.scaleV));
  }

  /** Parameters brought back by whole turns where the surface is closed. */
  private inDomain(u: number, v: number): [number, number] {
    const back = (t: number, [lo, hi]: [number, number], isClosed: boolean) =>
      isClosed ? t - Math.floor((t - lo) / (hi - lo) - 1e-12) * (hi - lo) : t;
    return [back(u, this.d.u, this.turns.u > 0), back(v, this.d.v, this.turns.v > 0)];
  }
}

function angleBetween(a: Vec3, b: Vec3): number {
  const l = length(a) * length(b);
  return l > 1e-18 ? Math.acos(Math.max(-1, Math.min(1, dot(a, b) / l))) : 0;
}
