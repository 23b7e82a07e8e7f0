import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { distance2, segmentPoint, type Segment, type Vec2 } from '../geometry/path.ts';
import { drawnPieces } from './dxf-entities.ts';
import { readGroups } from './dxf-groups.ts';
import { FIT, fitArcs } from './fit-arcs.ts';
import { readDxf } from './read-dxf.ts';

type Groups = (string | number)[];
const file = (entities: Groups, blocks: Groups = []): string =>
  [
    ...[0, 'SECTION', 2, 'HEADER', 9, '$INSUNITS', 70, 4, 0, 'ENDSEC'],
    ...(blocks.length > 0 ? [0, 'SECTION', 2, 'BLOCKS', ...blocks, 0, 'ENDSEC'] : []),
    ...[0, 'SECTION', 2, 'ENTITIES', ...entities, 0, 'ENDSEC', 0, 'EOF', ''],
  ].join('\n');
const drawn = (entities: Groups, blocks: Groups = []) => drawnPieces(readGroups(file(entities, blocks)), 1);
const segments = (entities: Groups, blocks: Groups = []): Segment[] =>
  drawn(entities, blocks).pieces.flatMap((p) => p.segments);
const arcs = (list: Segment[]) => list.flatMap((s) => (s.kind === 'arc' ? [s] : []));
const near = (p: Vec2, q: Vec2) =>
  expect(distance2(p, q), `${p.join()} against ${q.join()}`).toBeLessThan(1e-9);

const CIRCLE: Groups = [0, 'CIRCLE', 8, 'A', 10, 30, 20, 12, 40, 5];
const BEHIND: Groups = [210, 0, 220, 0, 230, -1];

describe('entities seen from behind (extrusion -Z)', () => {
  it('stand mirrored in X: circles, arcs, polylines', () => {
    near(arcs(segments([...CIRCLE, ...BEHIND]))[0]!.centre, [-30, 12]);
    const arc = arcs(segments([0, 'ARC', 8, 'A', 10, 10, 20, 0, 40, 5, 50, 0, 51, 90, ...BEHIND]))[0]!;
    near(arc.centre, [-10, 0]);
    near(arc.from, [-15, 0]);
    near(arc.to, [-10, 5]);
    expect(arc.turn).toBeCloseTo(-Math.PI / 2, 9);
    near(segmentPoint(arc, 0.5), [-10 - 5 * Math.SQRT1_2, 5 * Math.SQRT1_2]);
    const bulge = segments([
      0,
      'LWPOLYLINE',
      8,
      'A',
      90,
      2,
      70,
      0,
      ...BEHIND,
      10,
      0,
      20,
      0,
      42,
      1,
      10,
      10,
      20,
      0,
    ]);
    near(bulge[0]!.to, [-10, 0]);
    near(segmentPoint(bulge[0]!, 0.5), [-5, -5]);
  });
  it('lines and splines do not: their points are in the drawing’s own coordinates', () =>
    near(segments([0, 'LINE', 8, 'A', 10, 1, 20, 2, 11, 7, 21, 2, ...BEHIND])[0]!.to, [7, 2]));
  it('on a tilted plane are left out and said', () =>
    expect([...drawn([...CIRCLE, 210, 0.7, 220, 0, 230, 0.7]).left.keys()]).toEqual([
      'CIRCLE on a tilted plane',
    ]));
});

describe('blocks', () => {
  const block: Groups = [
    0,
    'BLOCK',
    2,
    'HOLE',
    10,
    1,
    20,
    0,
    0,
    'CIRCLE',
    8,
    0,
    10,
    4,
    20,
    0,
    40,
    2,
    0,
    'ENDBLK',
  ];
  const put = (...groups: Groups): Groups => [0, 'INSERT', 8, 'DRILL', 2, 'HOLE', 10, 100, 20, 50, ...groups];

  it('are put in place, turned and scaled about their base point', () => {
    near(arcs(segments(put(), block))[0]!.centre, [103, 50]);
    const turned = arcs(segments(put(41, 2, 42, 2, 50, 90), block))[0]!;
    near(turned.centre, [100, 56]);
    expect(turned.radius).toBeCloseTo(4, 9);
  });
  it('stand in rows and columns, on the layer on which they are put', () => {
    const { pieces } = drawn(put(70, 3, 71, 2, 44, 10, 45, 20), block);
    expect(pieces.map((p) => p.layer)).toEqual(Array(6).fill('DRILL'));
    near(arcs(pieces[5]!.segments)[0]!.centre, [123, 70]);
  });
  it('mirrored and stretched ones keep their shape', () => {
    near(arcs(segments(put(41, -1), block))[0]!.centre, [97, 50]);
    const flat = segments(put(41, 2), block);
    for (const s of flat) {
      const [x, y] = segmentPoint(s, 0.5);
      expect(Math.abs(Math.hypot((x - 106) / 4, (y - 50) / 2) - 1)).toBeLessThan(2 * FIT);
    }
  });
  it('in blocks, and in themselves, end', () => {
    const nested: Groups = [
      0,
      'BLOCK',
      2,
      'OUT',
      10,
      0,
      20,
      0,
      0,
      'INSERT',
      8,
      0,
      2,
      'HOLE',
      10,
      5,
      20,
      0,
      0,
      'ENDBLK',
    ];
    near(
      arcs(segments([0, 'INSERT', 8, 'A', 2, 'OUT', 10, 1, 20, 1], [...block, ...nested]))[0]!.centre,
      [9, 1],
    );
    const endless: Groups = [
      0,
      'BLOCK',
      2,
      'E',
      10,
      0,
      20,
      0,
      0,
      'INSERT',
      8,
      0,
      2,
      'E',
      10,
      1,
      20,
      0,
      0,
      'ENDBLK',
    ];
    expect([...drawn([0, 'INSERT', 8, 'A', 2, 'E', 10, 0, 20, 0], endless).left.keys()]).toEqual([
      'block too deep in blocks',
    ]);
    expect([...drawn([0, 'INSERT', 8, 'A', 2, 'X', 10, 0, 20, 0]).left.keys()]).toEqual([
      'INSERT of a missing block',
    ]);
  });
});

describe('curves', () => {
  it('an ellipse lies on itself, and a round one is a circle', () => {
    const ellipse = segments([
      0,
      'ELLIPSE',
      8,
      'A',
      10,
      5,
      20,
      5,
      11,
      20,
      21,
      0,
      40,
      0.5,
      41,
      0,
      42,
      2 * Math.PI,
    ]);
    for (const s of ellipse)
      for (const t of [0.2, 0.5, 0.9]) {
        const [x, y] = segmentPoint(s, t);
        expect(Math.abs(Math.hypot((x - 5) / 20, (y - 5) / 10) - 1)).toBeLessThan(FIT / 5);
      }
    const ring = arcs(
      segments([0, 'ELLIPSE', 8, 'A', 10, 5, 20, 5, 11, 20, 21, 0, 40, 1, 41, 0, 42, 2 * Math.PI]),
    );
    expect(ring).toHaveLength(1);
    expect(ring[0]!.radius).toBeCloseTo(20, 6);
  });

  it('a rational spline that is a circle is read as that circle', () => {
    const w = Math.SQRT1_2;
    const poles = [
      [10, 0],
      [10, 10],
      [0, 10],
      [-10, 10],
      [-10, 0],
      [-10, -10],
      [0, -10],
      [10, -10],
      [10, 0],
    ];
    const groups: Groups = [0, 'SPLINE', 8, 'A', 70, 12, 71, 2];
    for (const k of [0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4]) groups.push(40, k);
    poles.forEach(([x, y], i) => groups.push(10, x!, 20, y!, 41, i % 2 ? w : 1));
    const { outlines } = readDxf(file(groups), 'spline');
    expect(outlines).toHaveLength(1);
    for (const s of outlines[0]!.segments)
      expect(s).toMatchObject({ kind: 'arc', radius: expect.closeTo(10, 6) as number });
  });

  it('arcs fitted to any smooth curve stay within the tolerance of it', () => {
    const number = fc.double({ min: -20, max: 20, noNaN: true });
    fc.assert(
      fc.property(fc.array(fc.tuple(number, number), { minLength: 4, maxLength: 4 }), (p) => {
        const bezier = (t: number): Vec2 => {
          const b = [(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t ** 3];
          return [0, 1].map((k) => b.reduce((sum, v, i) => sum + v * p[i]![k]!, 0)) as Vec2;
        };
        const fitted = fitArcs(bezier, 0, 1);
        const samples = Array.from({ length: 4001 }, (_, i) => bezier(i / 4000));
        for (const s of fitted) {
          const q = segmentPoint(s, 0.37);
          expect(Math.min(...samples.map((x) => distance2(x, q)))).toBeLessThan(0.05);
        }
        for (let i = 1; i < fitted.length; i++)
          expect(distance2(fitted[i]!.from, fitted[i - 1]!.to)).toBeLessThan(1e-6);
      }),
      { numRuns: 60 },
    );
  });
});

describe('damaged drawings', () => {
  it('end wherever they are cut, and never run on', () => {
    const whole = file(
      [
        0,
        'POLYLINE',
        8,
        'A',
        70,
        1,
        0,
        'VERTEX',
        10,
        0,
        20,
        0,
        0,
        'VERTEX',
        10,
        9,
        20,
        0,
        0,
        'VERTEX',
        10,
        9,
        20,
        9,
        0,
        'SEQEND',
        ...CIRCLE,
      ],
      [0, 'BLOCK', 2, 'B', 10, 0, 20, 0, ...CIRCLE, 0, 'ENDBLK'],
    );
    for (let n = 0; n < whole.length; n += 3) {
      try {
        readDxf(whole.slice(0, n), 'cut');
      } catch (e) {
        expect((e as Error).name).toBe('Error');
        expect((e as Error).message).toMatch(/DXF/);
      }
    }
  });
  it('angles of any size are brought round at once', () => {
    const [arc] = arcs(segments([0, 'ARC', 8, 'A', 10, 0, 20, 0, 40, 5, 50, -1e20, 51, 1e10]));
    expect(Math.abs(arc!.turn)).toBeLessThanOrEqual(2 * Math.PI);
  });
  it('say where they cannot be read', () => {
    expect(() => readDxf('0\nSECTION\nhello\nENTITIES\n0\nEOF\n', 'x')).toThrow(
      /"hello" stands where a group code should \(pair 2\)/,
    );
    expect(() => readDxf('\0binary', 'x')).toThrow(/binary/);
  });
});

describe('numbers that no part has', () => {
  const good: Groups = [...CIRCLE, 0, 'CIRCLE', 8, 'A', 10, 0, 20, 0, 40, 100];

  it.each([4e40, 1e308, 2e7])('a circle of radius %d is left out and named, the others stay', (radius) => {
    const drawing = readDxf(file([...good, 0, 'CIRCLE', 8, 'B', 10, 0, 20, 0, 40, radius]), 'd');
    expect(drawing.outlines.map((o) => o.layer)).toEqual(['A', 'A']);
    expect(drawing.notes.some((n) => n.message.includes('out-of-range CIRCLE'))).toBe(true);
  });

  it.each([
    [-1e20, 'ARC'],
    [1e10, 'ARC'],
    [1e308, 'ARC'],
  ])('an arc to %d° ends, one way or the other', (angle) => {
    const arc: Groups = [0, 'ARC', 8, 'B', 10, 0, 20, 0, 40, 5, 50, 0, 51, angle];
    const { outlines } = readDxf(file([...good, ...arc]), 'd');
    expect(outlines.length).toBeGreaterThanOrEqual(2);
  });
});
