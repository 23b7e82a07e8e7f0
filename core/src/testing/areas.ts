import type { Feature } from '../features/family.ts';
import type { BorderPiece } from '../features/area/schema.ts';
import type { Vec3 } from '../geometry/vec.ts';

type Of<F extends Feature['family']> = Extract<Feature, { family: F }>;
const UP: [number, number, number] = [0, 0, 1];
const base = { solid: 0, faces: [], reachableFrom: [UP], axis: UP };

/** A closed border with corners of a radius, counter-clockwise at a level. */
export function roundedBorder(
  [x0, y0, x1, y1]: readonly [number, number, number, number],
  r: number,
  z: number,
  isWall: (side: number) => boolean = () => true,
): BorderPiece[] {
  const at = (x: number, y: number): Vec3 => [x, y, z];
  const corners = [
    { from: at(x1 - r, y0), to: at(x1, y0 + r), centre: at(x1 - r, y0 + r) },
    { from: at(x1, y1 - r), to: at(x1 - r, y1), centre: at(x1 - r, y1 - r) },
    { from: at(x0 + r, y1), to: at(x0, y1 - r), centre: at(x0 + r, y1 - r) },
    { from: at(x0, y0 + r), to: at(x0 + r, y0), centre: at(x0 + r, y0 + r) },
  ];
  const starts = [at(x0 + r, y0), at(x1, y0 + r), at(x1 - r, y1), at(x0, y1 - r)];
  return corners.flatMap((c, i): BorderPiece[] => [
    { piece: { kind: 'line', from: starts[i]!, to: c.from }, isWall: isWall(i) },
    ...(r > 0
      ? [{ piece: { kind: 'arc' as const, ...c, radius: r, turn: Math.PI / 2 }, isWall: isWall(i) }]
      : []),
  ]);
}

/** A pocket of 60 by 40 in the middle of the made-up part, 9 deep, its corners R6. */
export const pocket = (part: Partial<Of<'pocket'>> = {}): Of<'pocket'> => ({
  ...base,
  id: 'P1',
  family: 'pocket',
  bottom: 'flat',
  depth: 9,
  cornerRadius: 6,
  floorRadius: 0,
  length: 60,
  width: 40,
  islands: 0,
  at: [50, 40, -9],
  borders: [roundedBorder([20, 20, 80, 60], part.cornerRadius ?? 6, -9)],
  ...part,
});

/** The part's top. */
export const topFace = (part: Partial<Of<'face'>> = {}): Of<'face'> => ({
  ...base,
  id: 'F1',
  family: 'face',
  level: 0,
  length: 100,
  width: 80,
  at: [50, 40, 0],
  borders: [roundedBorder([0, 0, 100, 80], 0, 0, () => false)],
  ...part,
});
