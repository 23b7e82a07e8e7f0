import { mainLine, type Motion } from '@yellow-pin/core/code/read/motion';
import { fromFrame, type Frame } from '@yellow-pin/core/geometry/frame';
import { dot, type Vec3 } from '@yellow-pin/core/geometry/vec';
import { motionPoints } from './motion-points.ts';

/** A program's whole motion as straight pieces in the part's own coordinates: small to send and quick to draw. */
export interface MotionPack {
  /** Line of the text that each piece comes from, rising. */
  lines: Uint32Array;
  /** 1 where a piece is a rapid. */
  rapid: Uint8Array;
  /** Six numbers a piece: from, to. */
  points: Float32Array;
}

/** Packs what was read from a text; motions whose ends the text does not say are left out. */
export function packMotion(motions: readonly Motion[], frame: Frame): MotionPack {
  const lines: number[] = [];
  const rapid: number[] = [];
  const points: number[] = [];
  for (const m of motions) {
    const way = motionPoints(m).map((p) => fromFrame(frame, p));
    for (let i = 1; i < way.length; i++) {
      lines.push(mainLine(m));
      rapid.push(m.kind === 'rapid' ? 1 : 0);
      points.push(...way[i - 1]!, ...way[i]!);
    }
  }
  return { lines: Uint32Array.from(lines), rapid: Uint8Array.from(rapid), points: Float32Array.from(points) };
}

/** The deepest end of what a line does, in the part's own coordinates: the end farthest against `up`. Null where it moves nothing. */
export function placeOfLine({ lines, points }: MotionPack, line: number, up: Vec3): Vec3 | null {
  let best: Vec3 | null = null;
  for (let i = 0; i < lines.length; i++) {
    if (lines[i] !== line) continue;
    const end: Vec3 = [points[6 * i + 3]!, points[6 * i + 4]!, points[6 * i + 5]!];
    if (!best || dot(end, up) < dot(best, up) - 1e-4) best = end;
  }
  return best;
}

/** Rapid and feed pieces of some lines, as flat pairs of points; of all lines where no range is given. */
export function piecesOf(
  { lines, rapid, points }: MotionPack,
  ranges: readonly (readonly [first: number, last: number])[] | null,
): { rapid: Float32Array; feed: Float32Array } {
  const picked: number[] = [];
  for (let i = 0; i < lines.length; i++)
    if (!ranges || ranges.some(([a, b]) => lines[i]! >= a && lines[i]! <= b)) picked.push(i);
  const flat = (kind: number): Float32Array => {
    const own = picked.filter((i) => rapid[i] === kind);
    const out = new Float32Array(6 * own.length);
    own.forEach((i, k) => out.set(points.subarray(6 * i, 6 * i + 6), 6 * k));
    return out;
  };
  return { rapid: flat(1), feed: flat(0) };
}
