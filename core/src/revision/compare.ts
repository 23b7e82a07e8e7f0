import { isTarget, targetOf } from '../corrections/apply.ts';
import type { Correction } from '../corrections/schema.ts';
import type { Feature } from '../features/family.ts';
import { isOptional, placeOf } from '../features/registry.ts';
import { sizeKeyOf } from '../features/sets.ts';
import { nearestPairs, PlaceIndex } from '../geometry/place-index.ts';
import { type Vec3, isAlong } from '../geometry/vec.ts';
import type { Plan } from '../plan/plan.ts';

export interface Pair {
  before: Feature;
  after: Feature;
}

/** What became of each feature from one revision of a part to the next. Sharp edges follow the rest and are not listed. */
export interface Comparison {
  stayed: Pair[];
  moved: Pair[];
  resized: Pair[];
  gone: Feature[];
  added: Feature[];
}

/** Places this near count as one, mm. */
const SAME_PLACE = 0.02;
const CELL = 0.05;

/** Pairs the features of two revisions: first by place and size, then by place, then the nearest of one size. */
export function compareFeatures(before: Feature[], after: Feature[]): Comparison {
  const out: Comparison = { stayed: [], moved: [], resized: [], gone: [], added: [] };
  const shaped = (list: Feature[]): Feature[] => list.filter((f) => !isOptional(f));
  let old = shaped(before);
  let fresh = shaped(after);
  const size = new Map([...old, ...fresh].map((f) => [f, sizeKeyOf(f, false)]));
  const take = (list: Pair[], pairs: [Feature, Feature][]): void => {
    const used = new Set(pairs.flat());
    for (const [a, b] of pairs) list.push({ before: a, after: b });
    old = old.filter((f) => !used.has(f));
    fresh = fresh.filter((f) => !used.has(f));
  };
  take(
    out.stayed,
    pairsInPlace(old, fresh, (a, b) => size.get(a) === size.get(b)),
  );
  take(
    out.resized,
    pairsInPlace(old, fresh, () => true),
  );
  take(out.moved, pairsOfOneSize(old, fresh, size));
  out.gone = old;
  out.added = fresh;
  return out;
}

/** Features of one family at one place that look the same way, each in one pair at most. */
function pairsInPlace(
  old: readonly Feature[],
  fresh: readonly Feature[],
  fits: (a: Feature, b: Feature) => boolean,
): [Feature, Feature][] {
  const index = new PlaceIndex<Feature>(CELL);
  for (const b of fresh) index.add(b, placeOf(b));
  const used = new Set<Feature>();
  return old.flatMap((a): [Feature, Feature][] => {
    const b = index
      .near(placeOf(a), SAME_PLACE)
      .find((f) => !used.has(f) && f.family === a.family && isAlong(a.axis, f.axis) && fits(a, f));
    if (!b) return [];
    used.add(b);
    return [[a, b]];
  });
}

/** Within each size the nearest pairs. */
function pairsOfOneSize(
  old: readonly Feature[],
  fresh: readonly Feature[],
  size: ReadonlyMap<Feature, string>,
): [Feature, Feature][] {
  const group = (list: readonly Feature[]): Map<string, { item: Feature; at: Vec3 }[]> => {
    const out = new Map<string, { item: Feature; at: Vec3 }[]>();
    for (const f of list) {
      const key = `${f.family}/${size.get(f)}`;
      const entry = { item: f, at: placeOf(f) };
      const known = out.get(key);
      if (known) known.push(entry);
      else out.set(key, [entry]);
    }
    return out;
  };
  const after = group(fresh);
  return [...group(old)].flatMap(([key, list]) => nearestPairs(list, after.get(key) ?? []));
}

export interface Carried {
  plan: Plan;
  /** What the programmer is asked to look at: rows whose features changed, corrections that found nothing. */
  asks: string[];
}

/**
 * The plan for the new revision. Sizes that stayed keep their decisions (they are kept by shape and size); corrections follow their
 * features to new places. `takeOver`: ids of resized features (new ids) whose size takes the decisions of the size before.
 */
export function carryPlan(
  plan: Plan,
  before: Feature[],
  comparison: Comparison,
  takeOver: ReadonlySet<string>,
): Carried {
  const asks: string[] = [];
  const now = new Map<Feature, Feature>(
    [...comparison.stayed, ...comparison.moved, ...comparison.resized].map((p) => [p.before, p.after]),
  );
  const sizes = { ...plan.sizes };
  for (const { before: a, after: b } of comparison.resized) {
    const [from, to] = [sizeKeyOf(a, false), sizeKeyOf(b, false)];
    if (!sizes[from] || sizes[to]) continue;
    if (takeOver.has(b.id)) sizes[to] = sizes[from];
    else asks.push(`${b.id} has a new size: what was decided for the old one was not taken over.`);
  }
  const corrections = plan.corrections.flatMap((c): Correction[] => {
    if (c.kind === 'made') {
      if (!('edges' in c.feature)) return [c];
      // Edges are known by their numbers in the file, which a new file gives anew.
      asks.push('Edges put in by hand were left out: choose them again in the new revision.');
      return [];
    }
    const targets = c.targets.flatMap((t) => {
      const old = before.find((f) => isTarget(t, f));
      if (!old) return [t];
      if (isOptional(old)) return [t];
      const fresh = now.get(old);
      return fresh ? [targetOf(fresh)] : [];
    });
    const missing = c.targets.length - targets.length;
    if (missing > 0)
      asks.push(`A correction (${c.kind}) lost ${missing} of its ${c.targets.length} features.`);
    if (targets.length === 0 || (c.kind === 'join' && targets.length < 2)) return [];
    return [{ ...c, targets } as Correction];
  });
  return { plan: { ...plan, sizes, corrections }, asks };
}
