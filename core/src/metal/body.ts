import { first, last } from '../lists.ts';
import type { ProfilePart, ProfilePoint } from '../tools/profile.ts';

/** A side of a body as a line of points: how high it is at a distance from the axis. Distances grow, mm. */
interface Side {
  d: Float64Array;
  z: Float64Array;
}

/**
 * A stretch of a tool's outline that first widens and then narrows, as a body of revolution: at every distance from its axis it is one
 * interval of heights above the programmed tip. A whole tool is a list of them.
 */
export class ToolBody {
  /** Widest radius, mm. */
  readonly radius: number;
  /** Lowest and highest point above the tip, mm. */
  readonly low: number;
  readonly high: number;
  /** Its underside is one level out to its edge: a flat end mill, a shank, a holder. */
  readonly isFlat: boolean;
  /** Its top is one level, as a rule. */
  readonly hasFlatTop: boolean;
  private readonly under: Side;
  private readonly over: Side;

  constructor(
    readonly part: ProfilePart,
    points: readonly ProfilePoint[],
  ) {
    this.radius = Math.max(...points.map((p) => p.r));
    const widest = points.findIndex((p) => p.r >= this.radius - 1e-12);
    const lastWide = points.findLastIndex((p) => p.r >= this.radius - 1e-12);
    this.under = side(points.slice(0, widest + 1));
    this.over = side([...points.slice(lastWide)].reverse());
    this.low = first(points).z;
    this.high = last(points).z;
    this.isFlat = isLevel(this.under);
    this.hasFlatTop = isLevel(this.over);
  }

  /** Height of the underside at a distance from the axis, mm above the tip; `d` no more than the radius. */
  bottom(d: number): number {
    return this.isFlat ? this.low : heightAt(this.under, d);
  }

  /** Height of the upper side at a distance from the axis, mm above the tip. */
  top(d: number): number {
    return this.hasFlatTop ? this.high : heightAt(this.over, d);
  }
}

/** Points from the axis outward; a step straight up or down is two points at one distance. */
function side(points: readonly ProfilePoint[]): Side {
  const kept = points.filter((p, i) => i === 0 || p.r !== points[i - 1]?.r || p.z !== points[i - 1]?.z);
  return { d: Float64Array.from(kept, (p) => p.r), z: Float64Array.from(kept, (p) => p.z) };
}

const isLevel = ({ z }: Side): boolean => z.every((v) => Math.abs(v - z[0]!) < 1e-9);

/** Height on a side at a distance; at a step the one that is met first from the axis. */
function heightAt({ d, z }: Side, distance: number): number {
  const n = d.length;
  if (n === 1 || distance <= d[0]!) return z[0]!;
  let [lo, hi] = [0, n - 1];
  while (hi - lo > 1) {
    const mid = (lo + hi) >> 1;
    if (d[mid]! < distance) lo = mid;
    else hi = mid;
  }
  const [d0, d1] = [d[lo]!, d[hi]!];
  const t = d1 > d0 ? Math.min(1, (distance - d0) / (d1 - d0)) : 1;
  return z[lo]! + t * (z[hi]! - z[lo]!);
}

/** A tool's outline as bodies: cut where what it belongs to changes, and where it is narrower than above and below. */
export function toolBodies(profile: readonly ProfilePoint[]): ToolBody[] {
  const out: ToolBody[] = [];
  let run: ProfilePoint[] = [];
  let isNarrowing = false;
  const close = (): void => {
    if (run.length > 1 && Math.max(...run.map((p) => p.r)) > 0 && last(run).z > first(run).z)
      out.push(new ToolBody(last(run).part, run));
  };
  for (const p of profile) {
    const before = run[run.length - 1];
    if (!before) {
      run = [p];
      continue;
    }
    if (run.length > 1 && p.part !== before.part) {
      close();
      // A new part begins where the one before ends, as wide as it says itself.
      run = p.z > before.z ? [before, p] : [p];
      isNarrowing = false;
      continue;
    }
    if (p.r < before.r - 1e-12) isNarrowing = true;
    else if (p.r > before.r + 1e-12 && isNarrowing) {
      close();
      run = [before];
      isNarrowing = false;
    }
    run.push(p);
  }
  close();
  return out;
}
