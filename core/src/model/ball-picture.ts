import {
  add,
  along,
  anyPerpendicular,
  cross,
  distance,
  dot,
  normalize,
  scale,
  sub,
  type Vec3,
} from '../geometry/vec.ts';
import { segmentsPerTurn } from './circle-edge.ts';
import { loopPoints, type Face, type Loop, type SolidModel } from './solid-model.ts';
import { insideTest, type Flat } from './triangulate.ts';

/** A part of a ball as it is seen from a point of the ball that is no part of it. */
export interface BallPicture {
  loops: Flat[][];
  /** Whether a place on the ball is in the face. */
  has(p: Vec3): boolean;
  /** Points of the face inside its border, as dense as the samples of its edges. */
  fill(): Flat[];
}

/** Places on a ball that are tried as the point to look from. */
const TRIES = 400;
const GOLDEN = Math.PI * (3 - Math.sqrt(5));

/** Places spread evenly over a unit ball. */
const spread = (n: number): Vec3[] =>
  Array.from({ length: n }, (_, i) => {
    const z = 1 - (2 * i + 1) / n;
    const r = Math.sqrt(1 - z * z);
    return [r * Math.cos(GOLDEN * i), r * Math.sin(GOLDEN * i), z];
  });

/**
 * The picture of a ball's face whose border runs anyhow, by stereographic projection: it has no poles, does not come back to itself, and keeps
 * every shape near enough. Seams do not matter in it. Null for a whole ball, which has no border.
 */
export function ballPicture(model: SolidModel, face: Face): BallPicture | null {
  const { surface: s } = face;
  if (s.kind !== 'sphere') return null;
  const runs = face.loops
    .flatMap(withoutSeams)
    .map((l) => loopPoints(model, l))
    .filter((l) => l.length >= 3);
  if (runs.length === 0) return null;
  const unit = (p: Vec3): Vec3 => normalize(sub(p, s.origin));
  const border = runs.map((run) => run.map(unit));
  const from = placeOutside(border, face.reversed ? -1 : 1);
  if (!from) return null;
  const x = anyPerpendicular(from);
  const y = cross(from, x);
  const flatOf = (d: Vec3, point: Vec3): Flat => {
    const k = (2 * s.radius) / Math.max(1e-12, 1 - dot(d, from));
    return { u: k * dot(d, x), v: k * dot(d, y), point };
  };
  const loops = runs.map((run) => run.map((p) => flatOf(unit(p), p)));
  const inside = insideTest(loops);
  return {
    loops,
    has: (p) => {
      const { u, v } = flatOf(unit(p), p);
      return inside(u, v);
    },
    fill: () => {
      const n = segmentsPerTurn(s.radius);
      // As many as there are cells as wide as a sample of an edge.
      const step = (2 * Math.PI) / n;
      return spread(Math.ceil((4 * Math.PI) / (step * step)))
        .filter((d) => border.every((run) => run.every((b) => distance(b, d) > CLEAR * step)))
        .map((d) => flatOf(d, along(s.origin, d, s.radius)))
        .filter(({ u, v }) => inside(u, v));
    },
  };
}

/** Inner points keep so much of a step away from the border. */
const CLEAR = 0.5;

/** A loop as loops without the edges that it runs up and down. */
function withoutSeams(loop: Loop): Loop[] {
  for (let i = 0; i < loop.length; i++)
    for (let k = i + 1; k < loop.length; k++)
      if (loop[k]!.edge === loop[i]!.edge)
        return [
          ...withoutSeams(loop.slice(i + 1, k)),
          ...withoutSeams([...loop.slice(k + 1), ...loop.slice(0, i)]),
        ];
  return loop.length > 0 ? [loop] : [];
}

/** So far from all of the border, as a share of the radius, a place is good enough. */
const FAR = 0.5;

/**
 * A place on the right of the border, where the face is not, and far from it: straight across from what the border goes round, as a rule, else
 * the farthest of many. `sense` is 1 where the face is seen from outside the ball.
 */
function placeOutside(border: readonly (readonly Vec3[])[], sense: 1 | -1): Vec3 | null {
  let round: Vec3 = [0, 0, 0];
  for (const run of border) run.forEach((a, i) => (round = add(round, cross(a, run[(i + 1) % run.length]!))));
  const across = normalize(scale(round, -sense));
  if (outsideBy(across, border, sense) > FAR) return across;
  let [best, most]: [Vec3 | null, number] = [null, 0];
  for (const place of spread(TRIES)) {
    const away = outsideBy(place, border, sense);
    if (away > most) [best, most] = [place, away];
  }
  return best;
}

/** How far a place lies from the border on its right; 0 on its left. */
function outsideBy(place: Vec3, border: readonly (readonly Vec3[])[], sense: 1 | -1): number {
  let [least, isRight] = [Infinity, false];
  for (const run of border)
    for (let i = 0; i < run.length; i++) {
      const b = run[i]!;
      const away = distance(b, place);
      if (away >= least) continue;
      least = away;
      const [a, c] = [run[(i + run.length - 1) % run.length]!, run[(i + 1) % run.length]!];
      // The left of the way over the ball, as seen from outside it; in a corner the mean of that of both its sides.
      const [before, after] = [normalize(cross(b, sub(b, a))), normalize(cross(b, sub(c, b)))];
      isRight = dot(sub(place, b), add(before, after)) * sense < 0;
    }
  return isRight ? least : 0;
}
