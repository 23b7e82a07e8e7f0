import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { curvePoint, sampleCurve } from '../brep/evaluate.ts';
import { exactStretch } from '../brep/exact-curve.ts';
import { distance, dot, length, type Vec3 } from '../geometry/vec.ts';
import { at as entryAt } from '../lists.ts';
import { Part21Error } from '../part21/error.ts';
import { Part21File } from '../part21/file.ts';
import { Curves } from './curves.ts';
import { edgeRange } from './edge-range.ts';
import { Entities, UnknownStep } from './fields.ts';
import { bezierKnots, flatKnots, quasiUniformKnots, uniformKnots } from './knots.ts';
import { Places } from './placement.ts';
import { Surfaces } from './surfaces.ts';
import { lengthUnitName, unitsOf } from './units.ts';

const HEADER = `HEADER;FILE_DESCRIPTION((''),'2;1');FILE_NAME('','',(''),(''),'','','');FILE_SCHEMA(('S'));ENDSEC;`;
const entitiesOf = (data: string): Entities =>
  new Entities(
    new Part21File(
      new TextEncoder().encode(`ISO-10303-21;${HEADER}DATA;\n${data}\nENDSEC;END-ISO-10303-21;`),
    ),
  );
const said = (work: () => unknown): string => {
  try {
    work();
  } catch (error) {
    if (error instanceof Part21Error || error instanceof UnknownStep) return error.message;
    throw error;
  }
  return 'nothing';
};
const real = (x: number): string => (Number.isInteger(x) ? `${x}.` : String(x).replace('e', 'E'));

describe('parameters', () => {
  const f = entitiesOf(
    `#1=A(1.5,(1,2.5),#2,.T.,'x',$,LENGTH_MEASURE(3.),((1.,2.),(3.)),(#2,#3));#2=B();#3=C();`,
  );
  const a = f.need(1, 'A');

  test('are read as what they are', () => {
    expect(a.number(0)).toBe(1.5);
    expect(a.numbers(1)).toEqual([1, 2.5]);
    expect(a.ref(2)).toBe(2);
    expect(a.flag(3)).toBe(true);
    expect(a.text(4)).toBe('x');
    expect(a.refOrNone(5)).toBeNull();
    expect(a.number(6)).toBe(3);
    expect(a.numberGrid(7)).toEqual([[1, 2], [3]]);
    expect(a.refs(8)).toEqual([2, 3]);
  });

  test('that are something else are named with entity, line and what stands there', () => {
    const message = said(() => a.ref(0));
    expect(message).toContain('#1');
    expect(message).toContain('line 2');
    expect(message).toContain('parameter 1 of A is 1.5 in place of an entity');
    expect(said(() => a.number(5))).toContain('is $ in place of a number');
    expect(said(() => a.integer(0))).toContain('a whole number');
    expect(said(() => a.ref(9))).toContain('A has 9 parameters; one more was expected');
    expect(said(() => f.need(2, 'A'))).toContain('A was expected in place of B');
  });

  test('of an entity that is known as another sort are damage, of one that is not known are not', () => {
    const g = entitiesOf(`#1=PLANE('',#2);#2=SOME_LATER_CURVE('');`);
    expect(g.other(1, 'a curve')).toBeInstanceOf(Part21Error);
    expect(g.other(2, 'a curve')).toBeInstanceOf(UnknownStep);
  });
});

describe('units', () => {
  const context = (units: string, more: string) =>
    entitiesOf(`#1=(GEOMETRIC_REPRESENTATION_CONTEXT(3)GLOBAL_UNIT_ASSIGNED_CONTEXT((${units}))REPRESENTATION_CONTEXT('',''));
#2=(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.));
#3=(NAMED_UNIT(*)PLANE_ANGLE_UNIT()SI_UNIT($,.RADIAN.));
${more}`);
  const INCH = `#4=(CONVERSION_BASED_UNIT('INCH',#5)LENGTH_UNIT()NAMED_UNIT(#9));
#5=LENGTH_MEASURE_WITH_UNIT(LENGTH_MEASURE(25.4),#2);#9=DIMENSIONAL_EXPONENTS(1.,0.,0.,0.,0.,0.,0.);`;

  test('of the SI with its prefixes', () => {
    expect(unitsOf(context('#2,#3', ''), 1)).toEqual({ mm: 1, radians: 1 });
    const metre = context('#4,#3', '#4=(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT($,.METRE.));');
    expect(unitsOf(metre, 1).mm).toBe(1000);
    const micro = context('#4', '#4=(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MICRO.,.METRE.));');
    expect(unitsOf(micro, 1).mm).toBeCloseTo(0.001, 12);
  });

  test('made from others: inches, feet from inches, degrees', () => {
    const inch = context('#4,#3', INCH);
    expect(unitsOf(inch, 1).mm).toBeCloseTo(25.4, 9);
    expect(lengthUnitName(inch, 1)).toBe('INCH');
    const foot = context(
      '#6,#8',
      `${INCH}#6=(CONVERSION_BASED_UNIT('FOOT',#7)LENGTH_UNIT()NAMED_UNIT(#9));
#7=LENGTH_MEASURE_WITH_UNIT(LENGTH_MEASURE(12.),#4);
#8=(CONVERSION_BASED_UNIT('DEGREE',#10)NAMED_UNIT(#9)PLANE_ANGLE_UNIT());
#10=PLANE_ANGLE_MEASURE_WITH_UNIT(PLANE_ANGLE_MEASURE(0.017453292519943295),#3);`,
    );
    expect(unitsOf(foot, 1).mm).toBeCloseTo(304.8, 9);
    expect(unitsOf(foot, 1).radians).toBeCloseTo(Math.PI / 180, 15);
  });

  test('that are declared and not used are of no account', () => {
    const both = context('#2,#3', INCH);
    expect(unitsOf(both, 1).mm).toBe(1);
    expect(lengthUnitName(both, 1)).toBe('');
  });

  test('made from themselves, or of nothing, are damage', () => {
    const own = context(
      '#4',
      `#4=(CONVERSION_BASED_UNIT('X',#5)LENGTH_UNIT()NAMED_UNIT($));#5=LENGTH_MEASURE_WITH_UNIT(LENGTH_MEASURE(2.),#4);`,
    );
    expect(said(() => unitsOf(own, 1))).toContain('made from itself');
    const none = context('#4', INCH.replace('25.4', '0.'));
    expect(said(() => unitsOf(none, 1))).toContain('a unit of 0 is none');
    const odd = context('#4', '#4=(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MEGGA.,.METRE.));');
    expect(said(() => unitsOf(odd, 1))).toContain('MEGGA is no prefix');
  });
});

describe('placements', () => {
  const direction = fc
    .tuple(...[0, 1, 2].map(() => fc.integer({ min: -9, max: 9 })))
    .map((d) => d as unknown as Vec3)
    .filter((d) => length(d) > 0);
  const of = (z: Vec3 | null, x: Vec3 | null, mm = 1) =>
    new Places(
      entitiesOf(`#1=AXIS2_PLACEMENT_3D('',#2,${z ? '#3' : '$'},${x ? '#4' : '$'});#2=CARTESIAN_POINT('',(1.,2.,3.));
${z ? `#3=DIRECTION('',(${z.map(real).join()}));` : ''}${x ? `#4=DIRECTION('',(${x.map(real).join()}));` : ''}`),
      mm,
    ).placement(1);

  test('are right-handed, of unit length and square, with Z as it is given', () => {
    fc.assert(
      fc.property(direction, fc.option(direction), (z, x) => {
        fc.pre(x === null || Math.abs(dot(z, x)) < 0.999 * length(z) * length(x));
        const p = of(z, x);
        for (const [a, b] of [
          [p.x, p.y],
          [p.y, p.z],
          [p.z, p.x],
        ] as const) {
          expect(dot(a, b)).toBeCloseTo(0, 9);
          expect(length(a)).toBeCloseTo(1, 9);
        }
        expect(dot(p.z, z)).toBeCloseTo(length(z), 9);
        if (x) expect(dot(p.x, x)).toBeGreaterThan(0);
      }),
    );
  });

  test('that leave directions out have Z up and X along X, and lengths in the file’s unit', () => {
    expect(of(null, null, 25.4)).toEqual({
      origin: [25.4, 50.8, 76.19999999999999],
      z: [0, 0, 1],
      x: [1, 0, 0],
      y: [0, 1, 0],
    });
    // Along X itself another helper is needed.
    expect(of([1, 0, 0], null).x).toEqual([0, 1, 0]);
  });

  test('without direction are damage', () => {
    expect(said(() => of([0, 0, 0], null))).toContain('a direction without length');
    expect(said(() => of([0, 0, 2], [0, 0, 1]))).toContain('both directions of a placement are one');
  });
});

describe('knots', () => {
  const f = entitiesOf('#1=A();').need(1, 'A');
  const spline = fc
    .integer({ min: 1, max: 5 })
    .chain((degree) => fc.tuple(fc.constant(degree), fc.integer({ min: degree + 1, max: 14 })));

  test('of every form are as many as points and degree ask for, and do not fall', () => {
    fc.assert(
      fc.property(spline, ([degree, poles]) => {
        const forms = [uniformKnots(degree, poles), quasiUniformKnots(degree, poles)];
        if ((poles - 1) % degree === 0) forms.push(bezierKnots(f, degree, poles));
        for (const knots of forms) {
          expect(knots).toHaveLength(poles + degree + 1);
          expect(knots.every((k, i) => i === 0 || k >= knots[i - 1]!)).toBe(true);
        }
      }),
    );
  });

  test('are written out as often as they stand', () => {
    expect(flatKnots(f, [3, 1, 3], [0, 0.5, 1], 2, 4)).toEqual([0, 0, 0, 0.5, 1, 1, 1]);
    expect(bezierKnots(f, 2, 5)).toEqual([0, 0, 0, 1, 1, 2, 2, 2]);
  });

  test('that do not fit are damage', () => {
    expect(said(() => flatKnots(f, [3, 3], [0, 0.5, 1], 2, 4))).toContain('3 knots with 2 multiplicities');
    expect(said(() => flatKnots(f, [3, 3], [1, 0], 2, 3))).toContain('do not rise');
    expect(said(() => flatKnots(f, [4, 3], [0, 1], 2, 4))).toContain('stand too often');
    expect(said(() => flatKnots(f, [3, 3], [0, 1], 2, 4))).toContain('7 were expected');
    expect(said(() => bezierKnots(f, 2, 4))).toContain('no Bézier pieces');
  });
});

describe('curves and surfaces', () => {
  const at = `#2=AXIS2_PLACEMENT_3D('',#3,$,$);#3=CARTESIAN_POINT('',(0.,0.,0.));#4=CARTESIAN_POINT('',(1.,0.,0.));
#5=CARTESIAN_POINT('',(1.,1.,0.));`;
  const curve = (data: string, mm = 1) => {
    const entities = entitiesOf(`${at}${data}`);
    return new Curves(entities, new Places(entities, mm), { mm, radians: 1 }).curve(1);
  };
  const surface = (data: string, mm = 1) => {
    const entities = entitiesOf(`${at}${data}`);
    const places = new Places(entities, mm);
    return new Surfaces(entities, places, new Curves(entities, places, { mm, radians: 1 }), {
      mm,
      radians: 1,
    }).surface(1);
  };

  test('have their sizes in mm', () => {
    expect(curve(`#1=CIRCLE('',#2,0.5);`, 25.4)).toMatchObject({ kind: 'circle', radius: 12.7 });
    expect(surface(`#1=CYLINDRICAL_SURFACE('',#2,2.);`, 25.4)).toMatchObject({ radius: 50.8 });
    expect(surface(`#1=TOROIDAL_SURFACE('',#2,9.,2.);`)).toMatchObject({ major: 9, minor: 2 });
  });

  test('a quarter of a circle as a rational spline is round', () => {
    const c = curve(
      `#1=(BOUNDED_CURVE()B_SPLINE_CURVE(2,(#4,#5,#6),.UNSPECIFIED.,.F.,.F.)B_SPLINE_CURVE_WITH_KNOTS((3,3),(0.,1.),.UNSPECIFIED.)
CURVE()GEOMETRIC_REPRESENTATION_ITEM()RATIONAL_B_SPLINE_CURVE((1.,0.7071067811865476,1.))REPRESENTATION_ITEM(''));#6=CARTESIAN_POINT('',(0.,1.,0.));`,
    );
    for (const u of [0, 0.2, 0.5, 0.9, 1]) expect(length(curvePoint(c, u))).toBeCloseTo(1, 12);
  });

  test('a polyline goes through its points, a trimmed curve is its basis', () => {
    const c = curve(`#1=POLYLINE('',(#3,#4,#5));`);
    expect(distance(curvePoint(c, 1), [1, 0, 0])).toBeLessThan(1e-12);
    expect(distance(curvePoint(c, 2), [1, 1, 0])).toBeLessThan(1e-12);
    const trimmed = curve(
      `#1=TRIMMED_CURVE('',#6,(#3),(#4),.T.,.CARTESIAN.);#6=LINE('',#3,#7);#7=VECTOR('',#8,1.);#8=DIRECTION('',(1.,0.,0.));`,
    );
    expect(trimmed).toMatchObject({ kind: 'line', direction: [1, 0, 0] });
  });

  describe('a composite curve', () => {
    // From (0, 0) to (4, 0), round a quarter circle of 2 about (4, 2) to (6, 2), and up to (6, 5).
    const data = `#1=COMPOSITE_CURVE('',(#10,#11,#12),.F.);
#10=COMPOSITE_CURVE_SEGMENT(.CONTINUOUS.,.T.,#20);#11=COMPOSITE_CURVE_SEGMENT(.CONTINUOUS.,.T.,#21);
#12=COMPOSITE_CURVE_SEGMENT(.DISCONTINUOUS.,.F.,#22);
#20=POLYLINE('',(#30,#31));#30=CARTESIAN_POINT('',(0.,0.,0.));#31=CARTESIAN_POINT('',(4.,0.,0.));
#21=TRIMMED_CURVE('',#40,(#31),(#32),.T.,.CARTESIAN.);#32=CARTESIAN_POINT('',(6.,2.,0.));
#40=CIRCLE('',#41,2.);#41=AXIS2_PLACEMENT_3D('',#42,$,$);#42=CARTESIAN_POINT('',(4.,2.,0.));
#22=POLYLINE('',(#33,#32));#33=CARTESIAN_POINT('',(6.,5.,0.));`;
    const read = () => {
      const c = curve(data);
      if (c.kind !== 'chain') throw new Error(`read as a ${c.kind}`);
      return c;
    };

    test('runs through its segments, in the sense of each', () => {
      const expected: Vec3[] = [
        [0, 0, 0],
        [2, 0, 0],
        [4, 0, 0],
        [4 + Math.SQRT2, 2 - Math.SQRT2, 0],
        [6, 2, 0],
        [6, 3.5, 0],
        [6, 5, 0],
      ];
      expected.forEach((p, i) => expect(distance(curvePoint(read(), i / 2), p)).toBeLessThan(1e-9));
      expect(read().closed).toBe(false);
    });

    test('has its joints among the samples of an edge, and an edge on one of its segments is that line or arc', () => {
      const whole = edgeRange(read(), [1, 0, 0], [6, 4, 0], false)!;
      expect(whole.off).toBeLessThan(1e-9);
      const samples = sampleCurve(read(), whole.first, whole.last);
      for (const joint of [
        [1, 0, 0],
        [4, 0, 0],
        [6, 2, 0],
        [6, 4, 0],
      ] as Vec3[])
        expect(Math.min(...samples.map((p) => distance(p, joint)))).toBeLessThan(1e-9);
      expect(exactStretch({ curve: read(), ...whole }).curve.kind).toBe('chain');
      const arc = edgeRange(read(), [4, 0, 0], [6, 2, 0], false)!;
      expect(exactStretch({ curve: read(), ...arc }).curve).toMatchObject({ kind: 'circle', radius: 2 });
      const line = edgeRange(read(), [6, 2, 0], [6, 5, 0], false)!;
      expect(exactStretch({ curve: read(), ...line }).curve.kind).toBe('line');
    });

    test('that comes back to where it began is gone round from any of its places', () => {
      const square = curve(`#1=COMPOSITE_CURVE('',(#10,#11),.F.);
#10=COMPOSITE_CURVE_SEGMENT(.CONTINUOUS.,.T.,#20);#11=COMPOSITE_CURVE_SEGMENT(.CONTINUOUS.,.T.,#21);
#20=POLYLINE('',(#30,#31,#32));#21=POLYLINE('',(#32,#33,#30));#30=CARTESIAN_POINT('',(0.,0.,0.));
#31=CARTESIAN_POINT('',(4.,0.,0.));#32=CARTESIAN_POINT('',(4.,3.,0.));#33=CARTESIAN_POINT('',(0.,3.,0.));`);
      const round = edgeRange(square, [4, 1, 0], [4, 1, 0], true)!;
      const samples = sampleCurve(square, round.first, round.last);
      const way = samples.reduce((sum, p, i) => (i > 0 ? sum + distance(p, entryAt(samples, i - 1)) : 0), 0);
      expect(way).toBeCloseTo(14, 9);
      const over = edgeRange(square, [0, 1, 0], [1, 0, 0], false)!;
      expect(distance(curvePoint(square, over.last), [1, 0, 0])).toBeLessThan(1e-9);
      expect(sampleCurve(square, over.first, over.last).some((p) => distance(p, [0, 0, 0]) < 1e-9)).toBe(
        true,
      );
    });

    test('with a gap, without ends or within itself is said', () => {
      const gap = data.replace('(#30,#31)', '(#30,#34)') + `#34=CARTESIAN_POINT('',(3.,0.,0.));`;
      expect(said(() => curve(gap))).toContain('segment 2 does not begin where the one before it ends');
      expect(said(() => curve(data.replace('(6.,2.,0.)', '(5.,2.,0.)')))).toContain('do not lie on it');
      expect(said(() => curve(data.replace('.T.,#21', '.T.,#1')))).toContain('on itself');
      const endless =
        data.replace('.T.,#21', '.T.,#50') +
        `#50=LINE('',#31,#51);#51=VECTOR('',#52,1.);#52=DIRECTION('',(1.,0.,0.));`;
      expect(said(() => curve(endless))).toContain('without ends');
      const still =
        data
          .replace(
            '(#31),(#32),.T.,.CARTESIAN.',
            '(PARAMETER_VALUE(1.)),(PARAMETER_VALUE(1.)),.T.,.PARAMETER.',
          )
          .replace('#40=CIRCLE', '#60=CIRCLE')
          .replace("TRIMMED_CURVE('',#40", "TRIMMED_CURVE('',#61") +
        `#61=LINE('',#31,#62);#62=VECTOR('',#63,1.);#63=DIRECTION('',(1.,0.,0.));`;
      expect(said(() => curve(still))).toContain('without length');
      expect(said(() => surface(data))).toContain('a surface was expected in place of COMPOSITE_CURVE');
    });
  });

  test('a swept curve keeps to where it is trimmed, by points or by its parameter', () => {
    const turned = (trims: string, more = '') =>
      surface(`#1=SURFACE_OF_REVOLUTION('',#10,#11);#11=AXIS1_PLACEMENT('',#3,#12);#12=DIRECTION('',(0.,1.,0.));
#13=CIRCLE('',#2,1.);#10=TRIMMED_CURVE('',#13,${trims});#20=CARTESIAN_POINT('',(0.,1.,0.));
#21=CARTESIAN_POINT('',(0.,-1.,0.));${more}`);
    const range = (s: ReturnType<typeof surface>) => ('range' in s ? s.range! : [NaN, NaN]);
    const half = Math.PI / 2;
    for (const trims of [
      '(#21),(#20),.T.,.CARTESIAN.',
      `(PARAMETER_VALUE(${-half})),(PARAMETER_VALUE(${half})),.T.,.PARAMETER.`,
      `(#21,PARAMETER_VALUE(9.)),(#20,PARAMETER_VALUE(9.)),.T.,.CARTESIAN.`,
    ]) {
      expect(range(turned(trims))[0]).toBeCloseTo(-half, 9);
      expect(range(turned(trims))[1]).toBeCloseTo(half, 9);
    }
    expect(range(turned('(#20),(#21),.T.,.CARTESIAN.'))[1]).toBeCloseTo(3 * half, 9);
    // Run backwards it is the half on the side of larger X again, from its upper end to its lower one.
    for (const trims of [
      '(#20),(#21),.F.,.CARTESIAN.',
      `(PARAMETER_VALUE(${half})),(PARAMETER_VALUE(${-half})),.F.,.PARAMETER.`,
    ]) {
      const back = turned(trims);
      if (!('basis' in back) || back.kind !== 'revolution') throw new Error('no turned surface');
      const ends = range(back);
      const along = [0, 0.5, 1].map((t) => curvePoint(back.basis, ends[0]! + t * (ends[1]! - ends[0]!)));
      const expected: Vec3[] = [
        [0, 1, 0],
        [1, 0, 0],
        [0, -1, 0],
      ];
      along.forEach((p, i) => expect(distance(p, entryAt(expected, i))).toBeLessThan(1e-9));
    }
    const off = `#22=CARTESIAN_POINT('',(0.,2.,0.));`;
    expect(said(() => turned('(#21),(#22),.T.,.CARTESIAN.', off))).toContain('do not lie on it');
  });

  test('a whole circle turned about its own middle is left to another reader', () => {
    const whole = `#1=SURFACE_OF_REVOLUTION('',#13,#11);#11=AXIS1_PLACEMENT('',#3,#12);#12=DIRECTION('',(0.,1.,0.));
#13=CIRCLE('',#2,1.);`;
    expect(said(() => surface(whole))).toContain('a line through its middle');
  });

  test('of no size, on themselves, or with weights that do not fit are damage', () => {
    expect(said(() => curve(`#1=CIRCLE('',#2,0.);`))).toContain('CIRCLE has a size of 0');
    expect(said(() => surface(`#1=SPHERICAL_SURFACE('',#2,-3.);`))).toContain('-3');
    expect(said(() => curve(`#1=TRIMMED_CURVE('',#1,(#3),(#4),.T.,.CARTESIAN.);`))).toContain('on itself');
    const odd = `#1=(BOUNDED_CURVE()B_SPLINE_CURVE(1,(#3,#4),.UNSPECIFIED.,.F.,.F.)B_SPLINE_CURVE_WITH_KNOTS((2,2),(0.,1.),.UNSPECIFIED.)
CURVE()GEOMETRIC_REPRESENTATION_ITEM()RATIONAL_B_SPLINE_CURVE((1.,0.))REPRESENTATION_ITEM(''));`;
    expect(said(() => curve(odd))).toContain('weights do not fit');
    expect(said(() => curve(`#1=PLANE('',#2);`))).toContain('a curve was expected in place of PLANE');
  });
});
