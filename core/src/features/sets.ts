import type { Feature } from './family.ts';
import type { HoleFeature, StackStep } from './hole/schema.ts';

/** Features alike enough to be made alike. The tag's letter stands for it everywhere. */
export interface FeatureSize {
  /** Stable for the same shapes: the plan keeps its decisions under it. */
  key: string;
  tag: string;
  family: Feature['family'];
  /** What the features are, sizes aside: rows are grouped under it. */
  group: string;
  features: Feature[];
}

const DIAMETER_STEP = 0.005;
const DEPTH_STEP = 0.05;

const ROLE_NAMES: Record<HoleFeature['role'], string> = {
  plain: 'Plain holes',
  counterbored: 'Counterbored holes',
  countersunk: 'Countersunk holes',
  stepped: 'Stepped holes',
  tapered: 'Tapered holes',
};

/** Sorts features twice: by what they are, then by size (0.005 mm in diameter, 0.05 mm in depth or any depth). */
export function featureSizes(features: Feature[], { anyDepth = false } = {}): FeatureSize[] {
  const sizes = new Map<string, FeatureSize>();
  for (const f of features) {
    const key = sizeKey(f, anyDepth);
    const size = sizes.get(key);
    if (size) size.features.push(f);
    else sizes.set(key, { key, tag: '', family: f.family, group: `${ROLE_NAMES[f.role]}, ${f.kind}`, features: [f] });
  }
  const list = [...sizes.values()].sort((a, b) => groupRank(a) - groupRank(b) || narrowest(a.features[0]!) - narrowest(b.features[0]!));
  list.forEach((s, i) => (s.tag = tagLetters(i)));
  return list;
}

const groupRank = (s: FeatureSize): number => Object.keys(ROLE_NAMES).indexOf(s.features[0]!.role) * 2 + (s.features[0]!.kind === 'through' ? 0 : 1);

/** Smallest straight diameter of a hole, mm; its smallest cone end where nothing is straight. */
export function narrowest(f: HoleFeature): number {
  const straight = f.stack.flatMap((s) => (s.shape === 'cylinder' ? [s.diameter] : []));
  if (straight.length > 0) return Math.min(...straight);
  return Math.min(...f.stack.flatMap((s) => (s.shape === 'cone' ? [s.startDiameter, s.endDiameter] : [])));
}

/** A, B … Z, AA, AB … without I and O, which read as 1 and 0 on a print. */
export function tagLetters(index: number): string {
  const letters = 'ABCDEFGHJKLMNPQRSTUVWXYZ';
  let n = index;
  let out = '';
  do {
    out = letters[n % letters.length]! + out;
    n = Math.floor(n / letters.length) - 1;
  } while (n >= 0);
  return out;
}

function sizeKey(f: HoleFeature, anyDepth: boolean): string {
  const d = (v: number) => (Math.round(v / DIAMETER_STEP) * DIAMETER_STEP).toFixed(3);
  const l = (v: number) => (anyDepth ? '*' : (Math.round(v / DEPTH_STEP) * DEPTH_STEP).toFixed(2));
  const step = (s: StackStep, last: boolean): string => {
    if (s.shape === 'flat') return 'f';
    // A through hole's last length is the plate's thickness, not a size of the hole.
    if (s.shape === 'cylinder') return `c${d(s.diameter)}:${last && f.kind === 'through' ? '*' : l(s.length)}`;
    return `k${d(s.startDiameter)}-${d(s.endDiameter)}:${s.angle.toFixed(1)}`;
  };
  const bottom = f.bottom.shape === 'cone' ? `cone${f.bottom.angle.toFixed(0)}` : f.bottom.shape;
  const side = f.kind === 'through' && f.reachableFrom.length > 1 ? f.axis.map((v) => Math.abs(v).toFixed(3)).join() : f.axis.map((v) => v.toFixed(3)).join();
  return [f.family, f.role, f.kind, side, ...f.stack.map((s, i) => step(s, i === f.stack.length - 1)), bottom].join('|');
}
