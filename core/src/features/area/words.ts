import { piecePoints } from '../curves.ts';
import type { Vec3 } from '../../geometry/vec.ts';
import type { BorderPiece } from './schema.ts';

/** Why nothing asks for an area to be made where the stock has it already. */
export const IN_PREPARED_STOCK =
  'Prepared stock has it already. Choose a method for it, or give the stock as it really is, to have it milled.';

/** Lines in space along an area's borders. */
export const borderCurves = (f: { axis: Vec3; borders: BorderPiece[][] }): Vec3[][] =>
  f.borders.map((ring) => ring.flatMap((b) => piecePoints(b.piece, f.axis)));
