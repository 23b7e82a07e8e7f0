import type { Vec3 } from '../geometry/vec.ts';
import { insideTest, signedArea, type Flat } from './triangulate.ts';

/** What a flat picture of a surface that comes back to itself knows of that; lengths in the picture. */
export interface Turns {
  /** After how much it repeats; 0: never. */
  u: number;
  v: number;
  /** Places where all `u` are one point: at the lower and at the upper end of `v`. */
  poles: { lower?: Pole; upper?: Pole };
  /** Counter-clockwise outline of the whole surface, cut open beginning at a `u`; for surfaces without a border of their own. */
  whole?(from: number): Flat[];
  /** Points of the surface between two of its places, those not among them, where it bends from one to the other. */
  between?(a: Flat, b: Flat): Flat[];
}
export interface Pole {
  v: number;
  point: Vec3;
}

type Key = 'u' | 'v';

/**
 * Makes outlines that can be triangulated of the loops of a face: loops that go round the surface are joined in pairs by a cut, or with a
 * pole; holes are put beside what they are in; a face that is all of a closed surface but its holes gets an outline. `side` is 1 where loops
 * run with the face on their left in the picture, −1 where on their right.
 */
export function closeOutline(loops: Flat[][], turns: Turns, side: 1 | -1): Flat[][] {
  if (loops.length === 0) return turns.whole ? [turns.whole(0)] : [];
  gather(loops, turns);
  let out = bands(loops, 'u', turns, side);
  // Left of a way toward larger v lies smaller u.
  out = bands(out, 'v', turns, side === 1 ? -1 : 1);
  putInside(out, turns, side);
  const isClosedIn = out.length !== loops.length || out.some((l) => signedArea(l) * side > 0);
  if (!isClosedIn && turns.whole && out.every((l) => windingOf(l, 'u', turns.u) === 0)) {
    const around = turns.whole(clearOf(out, turns.u));
    for (const l of out) shiftNear(l, 'u', turns.u, middleOf(around, 'u'));
    out = [around, ...out];
  }
  return out;
}

/** Brings all loops next to the first by whole turns. */
function gather(loops: Flat[][], turns: Turns): void {
  const [first, ...others] = loops;
  if (!first) return;
  for (const key of ['u', 'v'] as const)
    if (turns[key] > 0) for (const l of others) shiftNear(l, key, turns[key], middleOf(first, key));
}

const middleOf = (l: readonly Flat[], key: Key): number => l.reduce((sum, f) => sum + f[key], 0) / l.length;

function shiftNear(l: Flat[], key: Key, turn: number, near: number): void {
  const shift = Math.round((near - middleOf(l, key)) / turn) * turn;
  if (shift !== 0) for (const f of l) f[key] += shift;
}

/** How often a loop goes round before it closes. */
export function windingOf(l: readonly Flat[], key: Key, turn: number): number {
  if (turn === 0) return 0;
  const [first, last] = [l[0]![key], l[l.length - 1]![key]];
  const closing = first - last - Math.round((first - last) / turn) * turn;
  return Math.round((last + closing - first) / turn);
}

/** Loops that go round, each with the next one across the face, as closed outlines; the others as they are. */
function bands(loops: Flat[][], key: Key, turns: Turns, side: 1 | -1): Flat[][] {
  const [across, turn] = [key === 'u' ? 'v' : 'u', turns[key]] as const;
  let round = loops
    .map((loop) => ({ loop, isFaceAbove: windingOf(loop, key, turn) * side }))
    .filter((l) => l.isFaceAbove !== 0)
    .map(({ loop, isFaceAbove }) => ({ loop, isFaceAbove: isFaceAbove > 0 }))
    .sort((a, b) => middleOf(a.loop, across) - middleOf(b.loop, across));
  if (round.length === 0) return loops;
  const plain = loops.filter((l) => round.every((r) => r.loop !== l));
  const outlines: Flat[][] = [];
  const add = (outline: Flat[]) => outlines.unshift(outline);
  const first = round[0]!;
  if (!first.isFaceAbove && turns[across] > 0) {
    // Across the surface it comes back too: what is first by number lies at the far end of the face before.
    for (const f of first.loop) f[across] += turns[across];
    round = [...round.slice(1), first];
  } else if (!first.isFaceAbove && key === 'u' && turns.poles.lower) {
    add(capped(first.loop, turns.poles.lower, turns, loops));
    round = round.slice(1);
  }
  for (let i = 0; i < round.length; i += 2) {
    const [a, b] = [round[i]!, round[i + 1]];
    if (b) add(joined(a.loop, b.loop, key, turns, loops));
    else add(key === 'u' && turns.poles.upper ? capped(a.loop, turns.poles.upper, turns, loops) : a.loop);
  }
  return [...outlines, ...plain];
}

/** Moves holes by whole turns into the outlines that they lie in, wherever those were cut open. */
function putInside(loops: readonly Flat[][], turns: Turns, side: 1 | -1): void {
  const outlines = loops.filter((l) => signedArea(l) * side > 0);
  if (outlines.length === 0 || outlines.length === loops.length) return;
  const inside = insideTest(outlines);
  const shifts = (turn: number): number[] => (turn > 0 ? [0, -1, 1, -2, 2].map((k) => k * turn) : [0]);
  for (const l of loops) {
    const [first] = l;
    if (!first || outlines.includes(l)) continue;
    const found = shifts(turns.u)
      .flatMap((u) => shifts(turns.v).map((v) => [u, v] as const))
      .find(([u, v]) => inside(first.u + u, first.v + v));
    if (found) for (const f of l) [f.u, f.v] = [f.u + found[0], f.v + found[1]];
  }
}

/** One outline of two loops that go round, joined by a cut that is run both ways. */
function joined(a: Flat[], b: Flat[], key: Key, turns: Turns, all: readonly Flat[][]): Flat[] {
  const turn = turns[key];
  const isSame = Math.sign(windingOf(a, key, turn)) === Math.sign(windingOf(b, key, turn));
  const other = isSame ? [...b].reverse() : b;
  const cut = shortestCut(a, other, key, turn, all);
  const first = closed(beginningAt(a, cut.from, key, turn), key, turn);
  const second = closed(beginningAt(other, cut.to, key, turn), key, turn);
  const end = first[first.length - 1]!;
  const shift = Math.round((end[key] - second[0]![key]) / turn) * turn;
  return cutOpen(
    first,
    second.map((f) => ({ ...f, [key]: f[key] + shift })),
    key,
    turns,
  );
}

/** A loop that goes round, begun at another of its points. */
function beginningAt(l: Flat[], start: number, key: Key, turn: number): Flat[] {
  const way = Math.sign(windingOf(l, key, turn)) * turn;
  return [...l.slice(start), ...l.slice(0, start).map((f) => ({ ...f, [key]: f[key] + way }))];
}

/** The shortest way from a point of one loop to one of another that meets no loop between them; the shortest of all where each meets one. */
function shortestCut(
  a: readonly Flat[],
  b: readonly Flat[],
  key: Key,
  turn: number,
  all: readonly Flat[][],
): { from: number; to: number } {
  const across = key === 'u' ? 'v' : 'u';
  const cuts = a.map((f, from) => {
    let [to, least, shift] = [0, Infinity, 0];
    b.forEach((g, i) => {
      const back = Math.round((f[key] - g[key]) / turn) * turn;
      const d = (g[key] + back - f[key]) ** 2 + (g[across] - f[across]) ** 2;
      if (d < least) [to, least, shift] = [i, d, back];
    });
    return { from, to, least, p: f, q: { ...b[to]!, [key]: b[to]![key] + shift } };
  });
  cuts.sort((x, y) => x.least - y.least);
  return cuts.find(({ p, q }) => !meetsAny(p, q, all, key, turn)) ?? cuts[0]!;
}

type Place = Pick<Flat, 'u' | 'v'>;

/** Whether the straight way between two places of the picture meets a side of a loop, by whatever turn it lies beside it. */
export function meetsAny(p: Place, q: Place, loops: readonly Flat[][], key: Key, turn: number): boolean {
  return loops.some((l) => {
    const closing = windingOf(l, key, turn) * turn;
    return l.some((f, i) => {
      const isLast = i + 1 === l.length;
      const g = l[isLast ? 0 : i + 1]!;
      const next = isLast ? { ...g, [key]: g[key] + closing } : g;
      const near = Math.round((p[key] - f[key]) / turn);
      return [near - 1, near, near + 1].some((k) => {
        const moved = (x: Place): Place => ({ ...x, [key]: x[key] + k * turn });
        return doCross(p, q, moved(f), moved(next));
      });
    });
  });
}

/** Whether two straight ways cross, ends that only touch not counted. */
function doCross(p: Place, q: Place, f: Place, g: Place): boolean {
  const side = (a: Place, b: Place, c: Place): number =>
    (b.u - a.u) * (c.v - a.v) - (b.v - a.v) * (c.u - a.u);
  const isApart = (x: number, y: number): boolean => (x > TOUCH && y < -TOUCH) || (x < -TOUCH && y > TOUCH);
  return isApart(side(p, q, f), side(p, q, g)) && isApart(side(f, g, p), side(f, g, q));
}

/** Areas below are rounding, mm². */
const TOUCH = 1e-9;

/** Two runs as one outline, with the cut between them run there and back over the very same points. */
function cutOpen(first: Flat[], second: Flat[], key: Key, { between }: Turns): Flat[] {
  const [start, end] = [first[0]!, first[first.length - 1]!];
  const cut = between?.(end, second[0]!) ?? [];
  const back = cut.map((f) => ({ ...f, [key]: f[key] + start[key] - end[key] })).reverse();
  return [...first, ...cut, ...second, ...back];
}

/** One outline of a loop that goes round and the pole that the face reaches. */
function capped(loop: Flat[], pole: Pole, turns: Turns, all: readonly Flat[][]): Flat[] {
  const at = (u: number): Flat => ({ u, v: pole.v, point: pole.point });
  // From where it is nearest to the pole nothing of it is on the way there.
  const order = loop
    .map((_, i) => i)
    .sort((i, k) => Math.abs(loop[i]!.v - pole.v) - Math.abs(loop[k]!.v - pole.v));
  const start = order.find((i) => !meetsAny(loop[i]!, at(loop[i]!.u), all, 'u', turns.u)) ?? order[0]!;
  const run = closed(beginningAt(loop, start, 'u', turns.u), 'u', turns.u);
  return cutOpen(run, [at(run[run.length - 1]!.u), at(run[0]!.u)], 'u', turns);
}

/** A loop that goes round, with its first point once more a turn farther. */
function closed(l: Flat[], key: Key, turn: number): Flat[] {
  const first = l[0]!;
  return [...l, { ...first, [key]: first[key] + Math.sign(windingOf(l, key, turn)) * turn }];
}

/** A place at which a cut through the whole surface meets none of the loops, as far as there is one. */
function clearOf(loops: Flat[][], turn: number): number {
  const spans = loops.map((l) => {
    const us = l.map((f) => f.u);
    return [Math.min(...us), Math.max(...us)] as const;
  });
  const tries = spans.map(([, to]) => to + 1e-3 * turn);
  const isClear = (u: number) =>
    spans.every(([from, to]) => {
      const near = u + Math.ceil((from - u) / turn) * turn;
      return near > to;
    });
  return tries.find(isClear) ?? tries[0] ?? 0;
}
