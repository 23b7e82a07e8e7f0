import type { BrepSurface, NurbsSurface } from '../brep/geometry.ts';
import { length, reject, sub } from '../geometry/vec.ts';
import { isFlat, type Curves } from './curves.ts';
import { UnknownStep, type Entities, type Fields } from './fields.ts';
import { bezierKnots, flatKnots, quasiUniformKnots, uniformKnots } from './knots.ts';
import type { Places } from './placement.ts';
import type { Units } from './units.ts';

const DEEPEST = 12;
/** A circle whose middle is nearer to a line is turned about its own middle there, mm. */
const THROUGH = 1e-6;
const SPLINES = ['B_SPLINE_SURFACE_WITH_KNOTS', 'QUASI_UNIFORM_SURFACE', 'UNIFORM_SURFACE', 'BEZIER_SURFACE'];

/** Reads surfaces (ISO 10303-42), in mm and radians. */
export class Surfaces {
  private readonly read = new Map<number, BrepSurface>();

  constructor(
    readonly entities: Entities,
    readonly places: Places,
    readonly curves: Curves,
    readonly units: Units,
  ) {}

  /** Throws `UnknownStep` for what is no surface that is known here. */
  surface(id: number, depth = 0): BrepSurface {
    const before = this.read.get(id);
    if (before) return before;
    if (depth > DEEPEST) throw this.entities.error(id, 'this surface lies on itself');
    const surface = this.make(id, depth);
    this.read.set(id, surface);
    return surface;
  }

  private make(id: number, depth: number): BrepSurface {
    const spline = this.spline(id);
    if (spline) return { kind: 'nurbs', nurbs: spline };
    for (const type of this.entities.types(id)) {
      const make = READERS[type];
      if (make) return make(this.entities.need(id, type), this, depth);
    }
    throw this.entities.other(id, 'a surface');
  }

  private spline(id: number): NurbsSurface | null {
    const { entities, places } = this;
    const type = entities.types(id).find((t) => SPLINES.includes(t));
    if (type === undefined) return null;
    const own = entities.need(id, type);
    const shared = entities.part(id, 'B_SPLINE_SURFACE');
    const [base, at] = shared ? [shared, 0] : [own, 1];
    const [degreeU, degreeV] = [base.integer(at), base.integer(at + 1)];
    const poles = base.refGrid(at + 2).map((row) => row.map((p) => places.point(p)));
    const [nu, nv] = [poles.length, poles[0]?.length ?? 0];
    if (
      degreeU < 1 ||
      degreeV < 1 ||
      nu < degreeU + 1 ||
      nv < degreeV + 1 ||
      poles.some((r) => r.length !== nv)
    )
      throw base.error(`a spline surface of degrees ${degreeU} and ${degreeV} with ${nu} by ${nv} points`);
    const rational = entities.part(id, 'RATIONAL_B_SPLINE_SURFACE');
    const weights = rational?.numberGrid(0) ?? null;
    if (weights && (weights.length !== nu || weights.some((r) => r.length !== nv || r.some((w) => !(w > 0)))))
      throw base.error('its weights do not fit its points');
    const first = shared ? 0 : 8;
    return {
      degreeU,
      degreeV,
      poles,
      weights: weights && isFlat(weights.flat()) ? null : weights,
      knotsU: this.knots(own, first, 0, degreeU, nu),
      knotsV: this.knots(own, first, 1, degreeV, nv),
    };
  }

  private knots(own: Fields, at: number, way: 0 | 1, degree: number, poles: number): number[] {
    if (own.type === 'B_SPLINE_SURFACE_WITH_KNOTS')
      return flatKnots(own, own.integers(at + way), own.numbers(at + 2 + way), degree, poles);
    if (own.type === 'UNIFORM_SURFACE') return uniformKnots(degree, poles);
    return own.type === 'BEZIER_SURFACE' ? bezierKnots(own, degree, poles) : quasiUniformKnots(degree, poles);
  }
}

type ReadSurface = (f: Fields, s: Surfaces, depth: number) => BrepSurface;

/** Where a face ends is said by its loops: what its surface is trimmed to adds nothing, unless it turns its normal round. */
const trimmed: ReadSurface = (f, s, depth) => {
  if (f.type === 'RECTANGULAR_TRIMMED_SURFACE' && f.flag(6) !== f.flag(7))
    throw new UnknownStep('a trimmed surface that is turned round', f.id);
  return s.surface(f.ref(1), depth + 1);
};

const READERS: Readonly<Record<string, ReadSurface>> = {
  PLANE: (f, s) => ({ kind: 'plane', at: s.places.placement(f.ref(1)) }),
  CYLINDRICAL_SURFACE: (f, s) => ({
    kind: 'cylinder',
    at: s.places.placement(f.ref(1)),
    radius: s.curves.size(f, 2),
  }),
  CONICAL_SURFACE: (f, s) => {
    const [radius, semiAngle] = [f.number(2) * s.units.mm, f.number(3) * s.units.radians];
    if (!(radius >= 0)) throw f.error(`a cone with a radius of ${f.number(2)}`);
    if (!(Math.abs(semiAngle) > 1e-9 && Math.abs(semiAngle) < Math.PI / 2 - 1e-9))
      throw f.error(`a cone whose side leans by ${f.number(3)}`);
    return { kind: 'cone', at: s.places.placement(f.ref(1)), radius, semiAngle };
  },
  SPHERICAL_SURFACE: (f, s) => ({
    kind: 'sphere',
    at: s.places.placement(f.ref(1)),
    radius: s.curves.size(f, 2),
  }),
  TOROIDAL_SURFACE: torus,
  DEGENERATE_TOROIDAL_SURFACE: torus,
  SURFACE_OF_LINEAR_EXTRUSION: (f, s) => ({
    kind: 'extrusion',
    ...s.curves.swept(f.ref(1)),
    direction: s.places.vector(f.ref(2)),
  }),
  SURFACE_OF_REVOLUTION: (f, s) => {
    const swept = s.curves.swept(f.ref(1));
    const about = s.places.axis(f.ref(2));
    const { basis, range } = swept;
    // The standard lets no curve cross the line that it is turned about.
    if (
      range === undefined &&
      (basis.kind === 'circle' || basis.kind === 'ellipse') &&
      length(reject(sub(basis.at.origin, about.origin), about.axis)) < THROUGH
    )
      throw new UnknownStep('a whole circle turned about a line through its middle', f.id);
    return { kind: 'revolution', ...swept, ...about };
  },
  OFFSET_SURFACE: (f, s, depth) => ({
    kind: 'offset',
    basis: s.surface(f.ref(1), depth + 1),
    distance: f.number(2) * s.units.mm,
  }),
  RECTANGULAR_TRIMMED_SURFACE: trimmed,
  CURVE_BOUNDED_SURFACE: trimmed,
};

function torus(f: Fields, s: Surfaces): BrepSurface {
  return {
    kind: 'torus',
    at: s.places.placement(f.ref(1)),
    major: s.curves.size(f, 2),
    minor: s.curves.size(f, 3),
  };
}
