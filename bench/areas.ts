import { grown, regionOf, type Region } from '@yellow-pin/core/geometry/region';
import type { Segment, Vec2 } from '@yellow-pin/core/geometry/path';
import { clearClosed } from '@yellow-pin/core/motion/areas/clear';
import { clearInFronts } from '@yellow-pin/core/motion/areas/fronts';
import type { Pass } from '@yellow-pin/core/motion/work';
import { grown as timed, type Line } from './growth.ts';

/** Pieces of a pocket's border. */
const PIECES = [200, 400, 800] as const;

/** A pocket whose wall goes in and out in n lines and arcs, about as large for every n. */
function wavy(n: number): Segment[] {
  const teeth = n / 2;
  const radius = 90;
  const at = (i: number): Vec2 => {
    const a = (2 * Math.PI * i) / n;
    return [radius * Math.cos(a), radius * Math.sin(a)];
  };
  return Array.from({ length: n }, (_, i): Segment => {
    const [from, to] = [at(i), at((i + 1) % n)];
    if (i % 2 === 0) return { kind: 'line', from, to };
    const turn = (2 * Math.PI) / (2 * teeth);
    return { kind: 'arc', from, to, centre: [0, 0], radius, turn };
  });
}

const CUT = {
  diameter: 10,
  stepover: 4.5,
  r: 2,
  top: 0,
  floor: -12,
  perLayer: 5,
  ramp: 3,
  above: 0.5,
  isClimb: true,
};

/** How long it takes to plan the clearing of a pocket, and how that grows with the pieces of its border. */
export const areaLines = async (): Promise<Line[]> => [
  ...(await cleared('a pocket cleared: lines and arcs of its wall', 0.4, (room) =>
    clearClosed({ ...CUT, room }),
  )),
  ...(await cleared('the same in narrow steps', 1, (room) =>
    clearInFronts({ ...CUT, room, stepover: 1, perLayer: 12 }),
  )),
];

const cleared = (name: string, limit: number, clear: (room: Region) => Pass[] | null): Promise<Line[]> =>
  timed(
    name,
    limit,
    (n) => {
      const area = regionOf([wavy(n)]);
      return () => {
        const passes = clear(grown(area, -5.2));
        if (!passes || passes.length === 0) throw new Error('nothing was cleared');
      };
    },
    { sizes: PIECES },
  );
