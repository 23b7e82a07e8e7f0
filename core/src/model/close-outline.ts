import type { Vec3 } from '../geometry/vec.ts';
import { signedArea, type Flat } from './triangulate.ts';

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
  const out = loops.filter((l) => round.every((r) => r.loop !== l));
  const add = (outline: Flat[]) => out.unshift(outline);
  const first = round[0]!;
  if (!first.isFaceAbove && turns[across] > 0) {
    // Across the surface it comes back too: what is first by number lies at the far end of the face before.
    for (const f of first.loop) f[across] += turns[across];
    round = [...round.slice(1), first];
  } else if (!first.isFaceAbove && key === 'u' && turns.poles.lower) {
    add(capped(first.loop, turns.poles.lower, turns));
    round = round.slice(1);
  }
  for (let i = 0; i < round.length; i += 2) {
    const [a, b] = [round[i]!, round[i + 1]];
    if (b) add(joined(a.loop, b.loop, key, turns));
    else add(key === 'u' && turns.poles.upper ? capped(a.loop, turns.poles.upper, turns) : a.loop);
  }
  return out;
}

/** One outline of two loops that go round, joined by a cut that is run both ways. */
function joined(a: Flat[], b: Flat[], key: Key, turns: Turns): Flat[] {
  const turn = turns[key];
  const first = closed(a, key, turn);
  const isSame = Math.sign(windingOf(a, key, turn)) === Math.sign(windingOf(b, key, turn));
  const other = isSame ? [...b].reverse() : b;
  // The cut begins where the other loop is nearest, so that it runs straight across.
  const end = first[first.length - 1]!;
  const off = (f: Flat) => Math.abs(f[key] - end[key] - Math.round((f[key] - end[key]) / turn) * turn);
  let start = 0;
  other.forEach((f, i) => {
    if (off(f) < off(other[start]!)) start = i;
  });
  const winding = Math.sign(windingOf(other, key, turn));
  const turned = [
    ...other.slice(start),
    ...other.slice(0, start).map((f) => ({ ...f, [key]: f[key] + winding * turn })),
  ];
  const second = closed(turned, key, turn);
  const shift = Math.round((end[key] - second[0]![key]) / turn) * turn;
  return cutOpen(
    first,
    second.map((f) => ({ ...f, [key]: f[key] + shift })),
    key,
    turns,
  );
}

/** Two runs as one outline, with the cut between them run there and back over the very same points. */
function cutOpen(first: Flat[], second: Flat[], key: Key, { between }: Turns): Flat[] {
  const [start, end] = [first[0]!, first[first.length - 1]!];
  const cut = between?.(end, second[0]!) ?? [];
  const back = cut.map((f) => ({ ...f, [key]: f[key] + start[key] - end[key] })).reverse();
  return [...first, ...cut, ...second, ...back];
}

/** One outline of a loop that goes round and the pole that the face reaches. */
function capped(loop: Flat[], pole: Pole, turns: Turns): Flat[] {
  const run = closed(loop, 'u', turns.u);
  const at = (u: number): Flat => ({ u, v: pole.v, point: pole.point });
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
