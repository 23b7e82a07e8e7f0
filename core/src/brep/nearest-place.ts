import { distance, dot, scale, sub, type Vec3 } from '../geometry/vec.ts';
import type { SurfaceDomain } from './evaluate.ts';

/** Farther from the surface than this a point does not lie on it, mm. */
const OFF_SURFACE = 0.05;

/** Finds where on a surface points lie. */
export class NearestPlace {
  constructor(
    private readonly d: SurfaceDomain,
    private readonly isClosedU: boolean,
    private readonly isClosedV: boolean,
  ) {}

  /** Parameters of the surface's place nearest to a point, from those of a point beside it; null where it does not lie on the surface. */
  find(p: Vec3, near: [number, number] | null): [number, number] | null {
    if (near) {
      const found = this.descend(p, near);
      if (found.off < OFF_SURFACE / 10) return found.at;
    }
    const { u, v } = this.d;
    const n = 16;
    const starts: { at: [number, number]; off: number }[] = [];
    for (let i = 0; i <= n; i++)
      for (let j = 0; j <= n; j++) {
        const at: [number, number] = [u[0] + (i / n) * (u[1] - u[0]), v[0] + (j / n) * (v[1] - v[0])];
        starts.push({ at, off: distance(this.d.point(...at), p) });
      }
    starts.sort((a, b) => a.off - b.off);
    let best = { at: starts[0]!.at, off: Infinity };
    for (const s of starts.slice(0, 6)) {
      const found = this.descend(p, s.at);
      if (found.off < best.off) best = found;
      if (best.off < 1e-6) break;
    }
    return best.off < OFF_SURFACE ? best.at : null;
  }

  /** Gauss and Newton's descent to the nearest place, inside the domain where the surface ends there. */
  private descend(p: Vec3, from: [number, number]): { at: [number, number]; off: number } {
    const { d } = this;
    const clamp = (t: number, [lo, hi]: [number, number], isClosed: boolean, isOpen: boolean) => {
      if (isClosed) return t - Math.floor((t - lo) / (hi - lo)) * (hi - lo);
      return isOpen ? t : Math.min(hi, Math.max(lo, t));
    };
    let [u, v] = from;
    let off = distance(d.point(u, v), p);
    for (let i = 0; i < 30 && off > 1e-9; i++) {
      const du = this.slope(u, v, 'u');
      const dv = this.slope(u, v, 'v');
      const r = sub(p, d.point(u, v));
      const [a, b, c] = [dot(du, du), dot(du, dv), dot(dv, dv)];
      const [ru, rv] = [dot(du, r), dot(dv, r)];
      const det = a * c - b * b;
      let [su, sv] =
        det > 1e-14 * a * c
          ? [(c * ru - b * rv) / det, (a * rv - b * ru) / det]
          : [a > 0 ? ru / a : 0, c > 0 ? rv / c : 0];
      let isBetter = false;
      for (let k = 0; k < 6 && !isBetter; k++, su /= 2, sv /= 2) {
        const nu = clamp(u + su, d.u, this.isClosedU, false);
        const nv = clamp(v + sv, d.v, this.isClosedV, d.openV === true);
        const now = distance(d.point(nu, nv), p);
        if (now < off) {
          isBetter = off - now > 1e-13;
          [u, v, off] = [nu, nv, now];
        }
      }
      if (!isBetter) break;
    }
    return { at: [u, v], off };
  }

  private slope(u: number, v: number, way: 'u' | 'v'): Vec3 {
    const { d } = this;
    const [lo, hi] = d[way];
    const t = way === 'u' ? u : v;
    const h = (hi - lo) * 1e-5;
    const [a, b] = [Math.max(Math.min(lo, t), t - h), Math.min(Math.max(hi, t), t + h)];
    const at = (s: number) => (way === 'u' ? d.point(s, v) : d.point(u, s));
    return scale(sub(at(b), at(a)), 1 / (b - a));
  }
}
