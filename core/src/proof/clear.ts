import type { WantedRim } from '../motion/work.ts';
import type { HoleView } from '../operations/hole-view.ts';
import type { ProfilePoint } from '../tools/profile.ts';

/** A floor, and the end of a step, are met within this, mm. */
const AT = 0.02;
/** How much wider than it is to be something may be cut: both ends of a radius are rounded, mm. */
const SLACK = 0.03;
/** Places at which each stretch of an outline is looked at. */
const PLACES = 4;

/** Radius to which a hole may be cut at a depth below its entry: as wide as it is there, or as a wanted rim is. Infinity outside the part. */
export function clearRadius(v: HoleView, wanted: readonly WantedRim[], depth: number): number {
  return Math.max(ownRadius(v, depth), ...wanted.map((r) => rimRadius(r, v.entryZ - depth)));
}

function ownRadius({ steps, farSteps, depth: whole, through }: HoleView, depth: number): number {
  if (depth < 0) return Infinity;
  for (const s of [...steps, ...farSteps]) {
    if (depth > s.end + AT) continue;
    if (s.shape === 'cylinder') return s.diameter / 2;
    const t = Math.min(1, Math.max(0, (depth - s.top) / s.length));
    return (s.startDiameter + t * (s.endDiameter - s.startDiameter)) / 2;
  }
  return through && depth >= whole - AT ? Infinity : 0;
}

/** A cone narrows into the part from its rim's level. */
function rimRadius({ z: level, diameter, angleDeg, below }: WantedRim, z: number): number {
  const into = below ? z - level : level - z;
  return into < -AT ? 0 : diameter / 2 - Math.max(0, into) * Math.tan((angleDeg * Math.PI) / 360);
}

/** Where a cutter led round so far from a hole's axis, tip at `z`, is wider than it may be: radius and Z there; null where it is nowhere. */
export function tooWide(
  profile: readonly ProfilePoint[],
  orbit: number,
  z: number,
  view: HoleView,
  wanted: readonly WantedRim[],
): { radius: number; clear: number; z: number } | null {
  const cutting = profile.filter((p) => p.part === 'cutting' || p.part === 'neck');
  for (const [i, q] of cutting.entries()) {
    const p = cutting[i - 1] ?? q;
    for (let k = 1; k <= PLACES; k++) {
      const t = k / PLACES;
      const [at, radius] = [z + p.z + t * (q.z - p.z), orbit + p.r + t * (q.r - p.r)];
      const clear = clearRadius(view, wanted, view.entryZ - at);
      if (radius > clear + SLACK) return { radius, clear, z: at };
    }
  }
  return null;
}
