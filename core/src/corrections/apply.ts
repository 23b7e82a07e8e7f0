import { at as entryAt, first as firstOf } from '../lists.ts';
import type { Feature } from '../features/family.ts';
import { handMadeHole } from '../features/hole/changes.ts';
import { familyOf, isOpenBelow, placeOf } from '../features/registry.ts';
import { roundVec } from '../features/round.ts';
import { PlaceIndex } from '../geometry/place-index.ts';
import { distance, isAgainst, isAlong } from '../geometry/vec.ts';
import { handMadeEdge } from '../features/sharp-edge/index.ts';
import type { Correction, Target } from './schema.ts';

/** How far a feature may be from where a correction saw it, mm. */
const SAME_PLACE = 0.02;
const CELL = 0.05;

export interface Corrected {
  features: Feature[];
  /** Feature id → ids of the corrections that changed it. */
  by: Map<string, string[]>;
  /** Corrections of which something was not found, or that cannot be made as they are, with the reason. */
  lost: { id: string; reason: string }[];
}

/** The key under which a correction remembers a feature. */
export const targetOf = (f: Feature): Target => ({
  family: f.family,
  at: roundVec(placeOf(f)),
  axis: roundVec(f.axis),
});

export const isTarget = (t: Target, f: Feature): boolean =>
  f.family === t.family && isAlong(f.axis, t.axis) && distance(placeOf(f), t.at) < SAME_PLACE;

/** The recognised features as the programmer has corrected them, in order. What is recognised is not changed. */
export function applyCorrections(
  recognised: Feature[],
  corrections: Correction[],
  units: 'mm' | 'inch' = 'mm',
): Corrected {
  const by = new Map<string, string[]>();
  const lost: Corrected['lost'] = [];
  const live = new LiveFeatures(recognised);
  const replace = (old: Feature, fresh: Feature[], id: string): void => {
    live.replace(old, fresh);
    for (const f of fresh) by.set(f.id, [...new Set([...(by.get(old.id) ?? []), id])]);
  };
  for (const c of corrections) {
    if (c.kind === 'made') {
      const made = handMade(c.feature, c.id, units);
      live.add(made);
      by.set(made.id, [c.id]);
      continue;
    }
    const found = c.targets.map((t) => live.find(t));
    const missing = found.filter((f) => f.length === 0).length;
    if (missing > 0)
      lost.push({
        id: c.id,
        reason:
          missing === found.length
            ? 'its feature is no longer there'
            : `${missing} of its ${found.length} features are no longer there`,
      });
    const all = [...new Set(found.flat())];
    if (c.kind === 'join') {
      const whole = all[0];
      const joined =
        whole && all.every((f) => f.family === whole.family) ? familyOf(whole).changes?.join?.(all) : null;
      if (!joined) {
        lost.push({ id: c.id, reason: 'only plain holes of one diameter on one axis can be joined' });
        continue;
      }
      replace(firstOf(all), [joined], c.id);
      for (const f of all.slice(1)) replace(f, [], c.id);
      continue;
    }
    for (const f of all) {
      const fresh = changed(f, c, units);
      if (fresh) replace(f, fresh, c.id);
      else lost.push({ id: c.id, reason: REFUSED[c.kind] });
    }
  }
  return { features: live.list(), by, lost };
}

/** The features while they are corrected: each as recognised leads on to what became of it. */
class LiveFeatures {
  /** What became of each feature as recognised or made by hand, in order. */
  private readonly became: Feature[][] = [];
  private readonly origins = new Map<Feature, number[]>();
  private readonly now = new PlaceIndex<Feature>(CELL);
  private readonly before = new PlaceIndex<{ feature: Feature; origin: number }>(CELL);

  constructor(recognised: readonly Feature[]) {
    for (const f of recognised) this.add(f);
  }

  add(f: Feature): void {
    const origin = this.became.push([f]) - 1;
    this.origins.set(f, [origin]);
    this.now.add(f, placeOf(f));
    this.before.add({ feature: f, origin }, placeOf(f));
  }

  /** The features at a target's place now; else what became of those that were recognised there. */
  find(t: Target): Feature[] {
    const here = this.now.near(t.at, SAME_PLACE).filter((f) => isTarget(t, f));
    if (here.length > 0) return here;
    return this.before
      .near(t.at, SAME_PLACE)
      .filter(({ feature }) => isTarget(t, feature))
      .flatMap(({ origin }) => entryAt(this.became, origin));
  }

  replace(old: Feature, fresh: Feature[]): void {
    const origins = this.origins.get(old) ?? [];
    for (const o of origins)
      this.became[o] = entryAt(this.became, o).flatMap((f) => (f === old ? fresh : [f]));
    this.origins.delete(old);
    this.now.remove(old, placeOf(old));
    for (const f of fresh) {
      this.origins.set(f, origins);
      this.now.add(f, placeOf(f));
    }
  }

  list(): Feature[] {
    return this.became.flat();
  }
}

/** Why a correction of each kind may not fit its feature; each says what would. */
const REFUSED: Record<Exclude<Correction['kind'], 'made' | 'join'>, string> = {
  dismiss: 'it cannot be dismissed',
  approach:
    'no tool can come in from there: a cavity is entered along its axis, from below only where it goes through',
  levels: 'a step of it would be left with no length: type a greater depth',
  split: 'only a plain hole can be split, between two depths inside it',
  'own-chamfer': 'it has no entry chamfer',
};

/** What becomes of one feature; null where the correction does not fit it. */
function changed(
  f: Feature,
  c: Exclude<Correction, { kind: 'made' | 'join' }>,
  units: 'mm' | 'inch',
): Feature[] | null {
  const { changes } = familyOf(f);
  switch (c.kind) {
    case 'dismiss':
      return [];
    case 'approach':
      return turned(f, c.from);
    case 'split':
      return changes?.split?.(f, c.from, c.to) ?? null;
    case 'own-chamfer':
      return changes?.ownChamfer?.(f, units) ?? null;
    case 'levels': {
      const depth = changes?.depth?.(f);
      if (depth === undefined) return null;
      const grown = c.depth ?? depth + c.raiseTop + c.lowerBottom;
      const moved = grown > 0 ? changes?.moved?.(f, c.raiseTop, grown) : null;
      return moved ? [moved] : null;
    }
  }
}

/**
 * The feature made from another side. An edge may be broken from any; a cavity only along its axis, from below only where it goes
 * through: a blind hole entered at its bottom would be a tool driven into the part.
 */
function turned(f: Feature, from: Feature['axis']): Feature[] | null {
  const { isOnEdge, changes } = familyOf(f);
  const isBelow = isOpenBelow(f) && isAgainst(f.axis, from);
  if (!isOnEdge && !isAlong(f.axis, from) && !isBelow) return null;
  const read = isBelow ? changes?.fromBelow?.(f, from) : undefined;
  return [read ?? { ...f, reachableFrom: [from] }];
}

type Made = Extract<Correction, { kind: 'made' }>['feature'];

/** What is made by hand, by family. */
const MAKERS: {
  [N in Made['family']]: (made: Extract<Made, { family: N }>, id: string, units: 'mm' | 'inch') => Feature;
} = { hole: handMadeHole, 'sharp-edge': handMadeEdge };

const handMade = (made: Made, id: string, units: 'mm' | 'inch'): Feature =>
  (MAKERS[made.family] as (made: Made, id: string, units: 'mm' | 'inch') => Feature)(made, id, units);
