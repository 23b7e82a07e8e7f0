import { piecesOf, reversed, reversedPiece } from '../brep/chain.ts';
import { curvePoint } from '../brep/evaluate.ts';
import { wholeRange, type BrepCurve, type CurvePiece, type Nurbs, type Swept } from '../brep/geometry.ts';
import { distance, type Vec3 } from '../geometry/vec.ts';
import { Ref, Typed } from '../part21/value.ts';
import { edgeRange, isOnCurve } from './edge-range.ts';
import { UnknownStep, type Entities, type Fields } from './fields.ts';
import { bezierKnots, flatKnots, quasiUniformKnots, uniformKnots } from './knots.ts';
import type { Places } from './placement.ts';
import type { Units } from './units.ts';

/** A curve of a curve goes no deeper. */
const DEEPEST = 12;

/** Reads curves (ISO 10303-42), in mm. */
export class Curves {
  private readonly read = new Map<number, BrepCurve>();

  constructor(
    private readonly entities: Entities,
    private readonly places: Places,
    private readonly units: Pick<Units, 'mm' | 'radians'>,
  ) {}

  /** Throws `UnknownStep` for what is no curve in space that is known here. */
  curve(id: number, depth = 0): BrepCurve {
    const before = this.read.get(id);
    if (before) return before;
    if (depth > DEEPEST) throw this.entities.error(id, 'this curve lies on itself');
    const curve = this.make(id, depth);
    this.read.set(id, curve);
    return curve;
  }

  private make(id: number, depth: number): BrepCurve {
    const spline = this.spline(id);
    if (spline) return { kind: 'nurbs', nurbs: spline };
    for (const type of this.entities.types(id)) {
      const make = READERS[type];
      if (make) return make(this.entities.need(id, type), this, depth);
    }
    throw this.entities.other(id, 'a curve');
  }

  /** What a surface is swept from: a curve, and the stretch of it where it is trimmed, toward larger parameters. */
  swept(id: number, depth = 0): Swept {
    const basis = this.curve(id, depth);
    const f = this.entities.part(id, 'TRIMMED_CURVE');
    if (!f) return { basis };
    const [from, to] = [this.trim(f, 2), this.trim(f, 3)];
    const way = f.flag(4) ? { curve: basis, parameter: (u: number) => u } : reversed(basis);
    if (!way) throw new UnknownStep(`a ${basis.kind} curve that is run backwards`, id);
    if (typeof from === 'number' && typeof to === 'number') {
      const isAngle = basis.kind === 'circle' || basis.kind === 'ellipse';
      if (!isAngle && basis.kind !== 'nurbs' && basis.kind !== 'line')
        throw new UnknownStep(`a ${basis.kind} trimmed by its parameter`, id);
      const own = (u: number): number => way.parameter(isAngle ? u * this.units.radians : u);
      const [a, b] = [own(from), own(to)];
      return { basis: way.curve, range: [a, isAngle && b <= a ? b + 2 * Math.PI : b] };
    }
    if (typeof from === 'number' || typeof to === 'number')
      throw new UnknownStep('a curve trimmed by a point and by its parameter', id);
    const range = edgeRange(way.curve, from, to, distance(from, to) < 1e-6);
    if (!range || !isOnCurve(range)) throw f.error('the points that it is trimmed at do not lie on it');
    return { basis: way.curve, range: [range.first, range.last] };
  }

  /** A segment of a composite curve as it is run in it. */
  segment(id: number, depth: number): CurvePiece {
    const f = this.entities.need(id, 'COMPOSITE_CURVE_SEGMENT');
    const { basis, range = wholeRange(basis) } = this.swept(f.ref(2), depth + 1);
    if (!range) throw new UnknownStep(`a ${basis.kind} without ends in a composite curve`, id);
    const piece = { curve: basis, first: range[0], last: range[1] };
    if (!(piece.last > piece.first)) throw f.error('a segment of a composite curve without length');
    const run = f.flag(1) ? piece : reversedPiece(piece);
    if (!run) throw new UnknownStep(`a ${basis.kind} curve that is run backwards`, id);
    return run;
  }

  /** Where a curve is trimmed: a point if one is given, else its parameter. */
  private trim(f: Fields, i: number): Vec3 | number {
    const list = f.list(i);
    const point = list.find((v) => v instanceof Ref);
    if (point instanceof Ref) return this.point(point.id);
    const [parameter] = list;
    const value = parameter instanceof Typed ? parameter.args[0] : parameter;
    if (typeof value !== 'number') throw f.error('it is trimmed neither at a point nor at a parameter');
    return value;
  }

  place(id: number) {
    return this.places.placement(id);
  }

  point(id: number): Vec3 {
    return this.places.point(id);
  }

  vector(id: number): Vec3 {
    return this.places.vector(id);
  }

  /** A length that must be one, mm. */
  size(f: Fields, i: number): number {
    const r = f.number(i) * this.units.mm;
    if (!(r > 0)) throw f.error(`${f.type} has a size of ${f.number(i)}`);
    return r;
  }

  /** All forms of B-spline: with knots, uniform, Bézier, rational. */
  private spline(id: number): Nurbs<Vec3> | null {
    const { entities } = this;
    const known = ['B_SPLINE_CURVE_WITH_KNOTS', 'QUASI_UNIFORM_CURVE', 'UNIFORM_CURVE', 'BEZIER_CURVE'];
    const type = entities.types(id).find((t) => known.includes(t));
    if (type === undefined) return null;
    const own = entities.need(id, type);
    // Alone it has the name before all parameters; as part of a complex one its supertype has the poles.
    const shared = entities.part(id, 'B_SPLINE_CURVE');
    const [base, at] = shared ? [shared, 0] : [own, 1];
    const degree = base.integer(at);
    const poles = base.refs(at + 1).map((p) => this.places.point(p));
    if (degree < 1 || degree > 40 || poles.length < degree + 1)
      throw base.error(`a spline of degree ${degree} with ${poles.length} points`);
    const rational = entities.part(id, 'RATIONAL_B_SPLINE_CURVE');
    const weights = rational?.numbers(0) ?? null;
    if (weights && (weights.length !== poles.length || weights.some((w) => !(w > 0))))
      throw base.error('its weights do not fit its points');
    return {
      degree,
      poles,
      weights: weights && isFlat(weights) ? null : weights,
      knots: this.knots(own, shared ? 0 : 6, degree, poles.length),
    };
  }

  private knots(own: Fields, at: number, degree: number, poles: number): number[] {
    if (own.type === 'B_SPLINE_CURVE_WITH_KNOTS')
      return flatKnots(own, own.integers(at), own.numbers(at + 1), degree, poles);
    if (own.type === 'UNIFORM_CURVE') return uniformKnots(degree, poles);
    return own.type === 'BEZIER_CURVE' ? bezierKnots(own, degree, poles) : quasiUniformKnots(degree, poles);
  }
}

/** Weights that are all alike weigh nothing. */
export const isFlat = (weights: readonly number[]): boolean =>
  weights.every((w) => Math.abs(w - (weights[0] ?? 1)) < 1e-12);

/** Joints of a composite curve are closer than this, mm. */
const JOINT = 1e-3;
/** More pieces than this, those of curves within curves counted, no edge has: the file wants to exhaust the reader. */
const MOST_PIECES = 10_000;

function composite(f: Fields, c: Curves, depth: number): BrepCurve {
  const pieces: CurvePiece[] = [];
  for (const id of f.refs(1)) {
    const run = c.segment(id, depth);
    pieces.push(...(run.curve.kind === 'chain' ? piecesOf(run.curve, run.first, run.last) : [run]));
    if (pieces.length > MOST_PIECES) throw f.error(`a composite curve of more than ${MOST_PIECES} pieces`);
  }
  const place = (p: CurvePiece | undefined, end: 'first' | 'last'): Vec3 => {
    if (!p) throw f.error('a composite curve of no segments');
    return curvePoint(p.curve, p[end]);
  };
  pieces.forEach((p, i) => {
    if (i > 0 && distance(place(pieces[i - 1], 'last'), place(p, 'first')) > JOINT)
      throw f.error(`its segment ${i + 1} does not begin where the one before it ends`);
  });
  const closed = distance(place(pieces[0], 'first'), place(pieces.at(-1), 'last')) < JOINT;
  return { kind: 'chain', pieces, closed };
}

type ReadCurve = (f: Fields, c: Curves, depth: number) => BrepCurve;

/** Curves that lie on surfaces have their form in space first. */
const inSpace: ReadCurve = (f, c, depth) => c.curve(f.ref(1), depth + 1);

const READERS: Readonly<Record<string, ReadCurve>> = {
  LINE: (f, c) => ({ kind: 'line', origin: c.point(f.ref(1)), direction: c.vector(f.ref(2)) }),
  CIRCLE: (f, c) => ({ kind: 'circle', at: c.place(f.ref(1)), radius: c.size(f, 2) }),
  ELLIPSE: (f, c) => ({ kind: 'ellipse', at: c.place(f.ref(1)), major: c.size(f, 2), minor: c.size(f, 3) }),
  PARABOLA: (f, c) => ({ kind: 'parabola', at: c.place(f.ref(1)), focal: c.size(f, 2) }),
  HYPERBOLA: (f, c) => ({
    kind: 'hyperbola',
    at: c.place(f.ref(1)),
    major: c.size(f, 2),
    minor: c.size(f, 3),
  }),
  POLYLINE: (f, c) => {
    const poles = f.refs(1).map((p) => c.point(p));
    if (poles.length < 2) throw f.error('a polyline of one point');
    return {
      kind: 'nurbs',
      nurbs: { degree: 1, poles, weights: null, knots: quasiUniformKnots(1, poles.length) },
    };
  },
  // Where an edge ends is said by its vertices: what its curve is trimmed to adds nothing.
  COMPOSITE_CURVE: composite,
  COMPOSITE_CURVE_ON_SURFACE: composite,
  BOUNDARY_CURVE: composite,
  OUTER_BOUNDARY_CURVE: composite,
  TRIMMED_CURVE: (f, c, depth) => c.curve(f.ref(1), depth + 1),
  SURFACE_CURVE: inSpace,
  SEAM_CURVE: inSpace,
  INTERSECTION_CURVE: inSpace,
  BOUNDED_SURFACE_CURVE: inSpace,
};
