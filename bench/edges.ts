import type { EdgeShape } from '@yellow-pin/core/features/edge/shape';
import type { Segment, Vec2 } from '@yellow-pin/core/geometry/path';
import { placesAlong, reachAlong } from '@yellow-pin/core/motion/edges/reach';
import { stretches } from '@yellow-pin/core/operations/grooves/reach';
import { wayBeside } from '@yellow-pin/core/operations/edges/way';
import { grown, type Line } from './growth.ts';

/** Pieces of an edge. */
const PIECES = [200, 400, 800] as const;
const OFFSET = 1.4;
const WIDTH = 0.5;

/** An edge of n lines and arcs that goes in and out, about as long for every n. */
function wavy(n: number): Segment[] {
  const at = (i: number): Vec2 => {
    const a = (2 * Math.PI * i) / n;
    const r = i % 2 === 0 ? 90 : 89.8;
    return [r * Math.cos(a), r * Math.sin(a)];
  };
  return Array.from({ length: n }, (_, i): Segment => ({ kind: 'line', from: at(i), to: at((i + 1) % n) }));
}

/** How long it takes to find a way beside an edge and what of that it reaches, and how that grows with the edge's pieces. */
export const edgeLines = (): Promise<Line[]> =>
  grown(
    'an edge broken: its pieces',
    0.3,
    (n) => {
      const shape: EdgeShape = {
        path: wavy(n),
        closed: true,
        side: 'outside',
        top: 0,
        profile: { kind: 'sharp' },
        lean: 0,
        rolled: [],
        isBehind: false,
      };
      return () => {
        const way = wayBeside(shape, OFFSET, { isClimb: true, isRolled: true });
        if (!way) throw new Error('no way was found');
        const radius = OFFSET + WIDTH;
        const own = stretches(way).map(([from, to]) => ({ from, to, radii: [radius, radius] as const }));
        const reach = reachAlong(placesAlong(shape.path), own);
        if (!reach.every((r) => r < WIDTH + 0.01)) throw new Error('it is cut too wide');
      };
    },
    { sizes: PIECES },
  );
