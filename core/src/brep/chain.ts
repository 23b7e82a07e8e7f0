import { scale, type Vec3 } from '../geometry/vec.ts';
import { at } from '../lists.ts';
import { splineRange, type BrepCurve, type CurvePiece, type Nurbs, type Placement } from './geometry.ts';

/** Several stretches run one after another: its parameter counts them, each of them as one. */
export type Chain = Extract<BrepCurve, { kind: 'chain' }>;

/** The piece in which a parameter of a chain lies, and the parameter of that piece's own curve. A closed one goes on where it began. */
export function pieceAt({ pieces, closed }: Chain, u: number): { curve: BrepCurve; u: number } {
  const n = pieces.length;
  const round = closed ? u - n * Math.floor(u / n) : u;
  const i = Math.max(0, Math.min(n - 1, Math.floor(round)));
  const { curve, first, last } = at(pieces, i);
  return { curve, u: first + (round - i) * (last - first) };
}

/** Less of a piece than this share is none: rounding. */
const NOTHING = 1e-9;

/** What a stretch of a chain is made of, piece by piece. */
export function piecesOf(chain: Chain, first: number, last: number): CurvePiece[] {
  const out: CurvePiece[] = [];
  for (let from = first; from < last - NOTHING;) {
    // A place that is a joint but for rounding is the joint.
    const i = Math.floor(from + NOTHING);
    const to = Math.min(i + 1, last);
    const start = pieceAt(chain, Math.max(from, i));
    const { first: a, last: b } = at(chain.pieces, i % chain.pieces.length);
    if (to - from > NOTHING) out.push({ curve: start.curve, first: start.u, last: a + (to - i) * (b - a) });
    from = to;
  }
  return out;
}

/** A curve run the other way. */
export interface Reversed {
  curve: BrepCurve;
  /** The parameter on it of the place that has parameter `u` on the other. */
  parameter(u: number): number;
}

/** The same curve run the other way; null for an offset one, which lies on a side of its way. */
export function reversed(c: BrepCurve): Reversed | null {
  const negated = (curve: BrepCurve): Reversed => ({ curve, parameter: (u) => -u });
  switch (c.kind) {
    case 'line':
      return negated({ ...c, direction: scale(c.direction, -1) });
    case 'circle':
    case 'ellipse':
    case 'parabola':
    case 'hyperbola':
      return negated({ ...c, at: turnedOver(c.at) });
    case 'nurbs': {
      const { nurbs } = c;
      const [from, to] = splineRange(nurbs);
      const parameter = (u: number): number => from + to - u;
      return { curve: { kind: 'nurbs', nurbs: reversedSpline(nurbs, parameter) }, parameter };
    }
    case 'offset':
      return null;
    case 'chain': {
      const pieces = c.pieces.map(reversedPiece);
      if (!pieces.every((p) => p !== null)) return null;
      return { curve: { ...c, pieces: pieces.reverse() }, parameter: (u) => c.pieces.length - u };
    }
  }
}

export function reversedPiece({ curve, first, last }: CurvePiece): CurvePiece | null {
  const back = reversed(curve);
  return back && { curve: back.curve, first: back.parameter(last), last: back.parameter(first) };
}

const turnedOver = ({ origin, x, y, z }: Placement): Placement => {
  const against = (v: Vec3): Vec3 => scale(v, -1);
  return { origin, x, y: against(y), z: against(z) };
};

const reversedSpline = (n: Nurbs<Vec3>, parameter: (u: number) => number): Nurbs<Vec3> => ({
  degree: n.degree,
  poles: [...n.poles].reverse(),
  weights: n.weights && [...n.weights].reverse(),
  knots: n.knots.map(parameter).reverse(),
});
