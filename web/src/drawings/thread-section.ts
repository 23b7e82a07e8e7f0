import type { Pass } from '@yellow-pin/core/motion/work';
import { flankAngle, threadSizes, type ThreadSide } from '@yellow-pin/core/threads/shape';
import { leadOf, type Thread } from '@yellow-pin/core/threads/thread';

/** A place of a cutter: how far its axis is from the thread's, and Z of its tip, mm. */
export interface CutterPlace {
  name: 'start' | 'full depth' | 'way out';
  away: number;
  z: number;
}

/**
 * Where the cutter of a thread begins, where it stands at full depth, and where it has left the wall: of the last pass, as its moves are
 * planned. Empty for a path that is none of a thread.
 */
export function threadPlaces(passes: readonly Pass[], axis: { x: number; y: number }): CutterPlace[] {
  const ends = passes.flatMap((p) => [
    { to: p.start, feed: 'lead' },
    ...p.moves.flatMap((m) => (m.kind === 'dwell' ? [] : [{ to: m.to, feed: m.feed as string }])),
  ]);
  const into = ends.findLastIndex((m) => m.feed === 'ramp');
  // The last arc on the wall leads out: before it the turns have ended, below where they began or above.
  const turned = ends[ends.findLastIndex((m) => m.feed === 'thread' || m.feed === 'finish') - 1];
  const [start, begun, out] = [ends[into - 1], ends[into], ends[ends.length - 1]];
  if (into < 1 || !start || !begun || !turned || !out) return [];
  const wall = turned.to[2] < begun.to[2] ? turned : begun;
  const place = (name: CutterPlace['name'], [x, y, z]: (typeof wall)['to']): CutterPlace => ({
    name,
    away: Math.hypot(x - axis.x, y - axis.y),
    z,
  });
  return [place('start', start.to), place('full depth', wall.to), place('way out', out.to)];
}

/**
 * The thread's profile on one side of its axis, as [radius, depth below its start] from the top down, mm: flanks of its own angle between
 * crest and root, to scale. `turn`: the share of a turn by which it is seen, as the other side is half a turn on.
 */
export function threadProfile(
  thread: Thread,
  side: ThreadSide,
  length: number,
  turn: number,
): [radius: number, depth: number][] {
  const { pitch } = thread;
  const { major, minor } = threadSizes(thread, side);
  const height = (major - minor) / 2;
  const flank = height * Math.tan((flankAngle(thread) * Math.PI) / 360);
  // What the flanks leave of a pitch is shared by crest and root, the crest of the hole's metal a quarter of a pitch (ISO 68-1).
  const crest = Math.min(pitch / 4, Math.max(0, pitch - 2 * flank));
  const root = Math.max(0, pitch - 2 * flank - crest);
  const [wide, narrow] = side === 'inside' ? [root, crest] : [crest, root];
  const at = (depth: number, isWide: boolean): [number, number] => {
    const sizes = threadSizes(thread, side, depth);
    return [(isWide ? sizes.major : sizes.minor) / 2, depth];
  };
  const out: [number, number][] = [];
  // The groove begins at the start on one side, and half a lead on at the other.
  for (let z = ((turn * leadOf(thread)) % pitch) - pitch; z < length; z += pitch) {
    const corners: [number, boolean][] = [
      [z, false],
      [z + narrow / 2, false],
      [z + narrow / 2 + flank, true],
      [z + narrow / 2 + flank + wide, true],
      [z + pitch - narrow / 2, false],
    ];
    for (const [depth, isWide] of corners) if (depth >= 0 && depth <= length) out.push(at(depth, isWide));
  }
  return out;
}
