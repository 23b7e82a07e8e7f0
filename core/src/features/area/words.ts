import { piecePoints } from '../curves.ts';
import { distance, type Vec3 } from '../../geometry/vec.ts';
import type { CurvePiece } from '../base.ts';
import { sizePart } from '../sizes.ts';
import type { BorderPiece } from './schema.ts';

/** Why nothing asks for an area to be made where the stock has it already. */
export const IN_PREPARED_STOCK =
  'Prepared stock has it already. Choose a method for it, or give the stock as it really is, to have it milled.';

/** Lines in space along an area's borders. */
export const borderCurves = (f: { axis: Vec3; borders: BorderPiece[][] }): Vec3[][] =>
  f.borders.map((ring) => ring.flatMap((b) => piecePoints(b.piece, f.axis)));

const lengthOf = (p: CurvePiece): number =>
  p.kind === 'line' ? distance(p.from, p.to) : p.radius * Math.abs(p.turn);

/** An area's border as part of a size key: areas of one size are cut by one cutter, so that shape and foot count beside the box. */
export const borderPart = (f: { borders: BorderPiece[][]; floorRadius: number }): string => {
  const pieces = f.borders.flat().map((b) => b.piece);
  const length = pieces.reduce((sum, p) => sum + lengthOf(p), 0);
  return `${pieces.length}/${sizePart(length)}/${sizePart(f.floorRadius)}`;
};
