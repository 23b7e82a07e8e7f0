import { calloutsSaid } from '../callout/said.ts';
import { first, at } from '../lists.ts';
import type { Feature } from './family.ts';
import { FAMILIES, familyOf } from './registry.ts';
import { SizeKeys } from './size-keys.ts';

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

/** What features have in common that are made alike: their family's sizes, and the callouts that the file has for them. */
export function sizeKeyOf(f: Feature, anyDepth: boolean): string {
  // Numbers of callouts are not sizes: near ones are not one (M5x0.75, M5x0.8).
  const said = calloutsSaid(f.said ?? []).map((c) => c.replace(/[./|]/g, ','));
  return [familyOf(f).sizeKey(f, anyDepth), ...said].join('|');
}

/** Sorts features twice: by what they are, then by size (0.005 mm in diameter, 0.05 mm in depth or any depth). */
export function featureSizes(
  features: Feature[],
  { anyDepth = false, known = [] as readonly string[] } = {},
): FeatureSize[] {
  const sizes = new Map<string, FeatureSize>();
  // Keys that decisions hang on come first: a digit that changes at a rounding border loses none of them.
  const keys = new SizeKeys(known);
  const named = new Map<string, string>();
  for (const f of features) {
    const family = familyOf(f);
    const own = sizeKeyOf(f, anyDepth);
    let key = named.get(own);
    if (key === undefined) {
      key = keys.find(own);
      if (key === undefined) keys.add((key = own));
      named.set(own, key);
    }
    const size = sizes.get(key);
    if (size) size.features.push(f);
    else sizes.set(key, { key, tag: '', family: f.family, group: family.group(f), features: [f] });
  }
  const order = (s: FeatureSize): [number, number, string, number] => {
    const family = familyOf(first(s.features));
    return [
      FAMILIES.indexOf(family),
      family.groupRank?.(first(s.features)) ?? 0,
      s.group,
      family.sortBy(first(s.features)),
    ];
  };
  const list = [...sizes.values()]
    .map((size) => ({ size, by: order(size) }))
    .sort(({ by: a }, { by: b }) => a[0] - b[0] || a[1] - b[1] || a[2].localeCompare(b[2]) || a[3] - b[3])
    .map(({ size }) => size);
  list.forEach((s, i) => (s.tag = tagLetters(i)));
  return list;
}

/** A, B … Z, AA, AB … without I and O, which read as 1 and 0 on a print. */
export function tagLetters(index: number): string {
  const letters = 'ABCDEFGHJKLMNPQRSTUVWXYZ';
  let n = index;
  let out = '';
  do {
    out = at(letters, n % letters.length) + out;
    n = Math.floor(n / letters.length) - 1;
  } while (n >= 0);
  return out;
}
