import { at } from '../lists.ts';
import type { Feature } from '../features/family.ts';
import { familyOf, isInPreparedStock, isOptional } from '../features/registry.ts';
import { type Vec3, isAlong } from '../geometry/vec.ts';
import {
  attitudeFor,
  attitudeName,
  newSetup,
  SIDES,
  sideDirection,
  WORK_OFFSETS,
  type Setup,
} from './setup.ts';

/**
 * The fewest directions, most rewarding first, from which every reachable feature can be made: the sides of the file's box, and the
 * features' own where the part stands askew. Sharp edges ask for no setup of their own, nor do faces, steps and pockets unless there is stock on
 * them; each end of a hole that widens asks for its side.
 */
export function chooseDirections(features: Feature[], hasStock = false): Vec3[] {
  // What is to be made, each with the directions of which one is needed: an end of a hole that widens only its own.
  const open = new Set(
    features.flatMap((f) => {
      const isAsked = !isOptional(f) || (hasStock && isInPreparedStock(f));
      if (!isAsked || f.reachableFrom.length === 0) return [];
      const ends = familyOf(f).madeFrom?.(f) ?? [];
      return ends.length > 0 ? ends.map((d) => [d]) : [f.reachableFrom];
    }),
  );
  const candidates: Vec3[] = SIDES.map(sideDirection);
  for (const from of open)
    for (const d of from) if (!candidates.some((c) => isAlong(c, d))) candidates.push(d);
  const out: Vec3[] = [];
  while (open.size > 0) {
    let best: { up: Vec3; reached: Vec3[][] } | null = null;
    for (const up of candidates) {
      if (out.includes(up)) continue;
      const reached = [...open].filter((from) => from.some((d) => isAlong(d, up)));
      if (reached.length > (best?.reached.length ?? 0)) best = { up, reached };
    }
    if (!best) break;
    out.push(best.up);
    for (const from of best.reached) open.delete(from);
  }
  return out.length > 0 ? out : [[0, 0, 1]];
}

/** Setups for directions, named by the side that is up, each on its own work offset. */
export function setupsFor(directions: readonly Vec3[]): Setup[] {
  const names = directions.map((up) => attitudeName(attitudeFor(up)));
  // Several directions askew are numbered: names must tell setups and their files apart.
  const named = names.map((n, i) =>
    names.indexOf(n) === names.lastIndexOf(n)
      ? n
      : `${n} ${names.slice(0, i + 1).filter((m) => m === n).length}`,
  );
  return directions
    .slice(0, 12)
    .map((up, i) => newSetup(`s${i + 1}`, at(named, i), up, WORK_OFFSETS[i % WORK_OFFSETS.length]));
}
