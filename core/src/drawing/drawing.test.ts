import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { distance2, segmentPoint } from '../geometry/path.ts';
import { recognise } from '../features/recognise.ts';
import { isOptional } from '../features/registry.ts';
import { meshModel, meshVolume } from '../model/mesh.ts';
import { bulged, DxfError, readDxf } from './read-dxf.ts';
import { modelFromDrawing, sizeOfOutline, startingDepths } from './to-model.ts';
import type { DrawingDepths } from './depths.ts';

const dxf = (units: number, ...entities: (string | number)[][]): string =>
  [
    '0',
    'SECTION',
    '2',
    'HEADER',
    '9',
    '$INSUNITS',
    '70',
    String(units),
    '0',
    'ENDSEC',
    '0',
    'SECTION',
    '2',
    'ENTITIES',
    ...entities.flat().map(String),
    '0',
    'ENDSEC',
    '0',
    'EOF',
    '',
  ].join('\n');
const circle = (layer: string, x: number, y: number, r: number) => [
  0,
  'CIRCLE',
  8,
  layer,
  10,
  x,
  20,
  y,
  30,
  0,
  40,
  r,
];
const line = (layer: string, x1: number, y1: number, x2: number, y2: number) => [
  0,
  'LINE',
  8,
  layer,
  10,
  x1,
  20,
  y1,
  30,
  0,
  11,
  x2,
  21,
  y2,
  31,
  0,
];
const arc = (layer: string, x: number, y: number, r: number, a: number, b: number) => [
  0,
  'ARC',
  8,
  layer,
  10,
  x,
  20,
  y,
  30,
  0,
  40,
  r,
  50,
  a,
  51,
  b,
];
const plate = [
  line('P', 0, 0, 100, 0),
  line('P', 100, 60, 100, 0),
  line('P', 100, 60, 0, 60),
  line('P', 0, 60, 0, 0),
];
const slot = [
  line('S', 20, 26, 40, 26),
  arc('S', 40, 30, 4, 270, 90),
  line('S', 40, 34, 20, 34),
  arc('S', 20, 30, 4, 90, 270),
];

const shaped = (text: string, change: (d: DrawingDepths) => void = () => undefined) => {
  const drawing = readDxf(text, 'plate');
  const depths = startingDepths(drawing);
  change(depths);
  const model = modelFromDrawing(drawing, depths);
  const { features, notes } = recognise(model);
  return { model, notes, features: features.filter((f) => !isOptional(f)) };
};

describe('a drawing', () => {
  it('becomes a plate with holes and slots, cut through until a depth is typed', () => {
    const text = dxf(4, ...plate, circle('H', 70, 20, 3.3), circle('H', 70, 40, 3.3), ...slot);
    const { features, model } = shaped(text);
    expect(model.bounds).toEqual({ min: [0, 0, -10], max: [100, 60, 0] });
    expect(features.map((f) => f.family)).toEqual(['hole', 'hole', 'slot']);
    expect(features[0]).toMatchObject({
      kind: 'through',
      depth: 10,
      entry: [70, 20, 0],
      stack: [{ shape: 'cylinder', diameter: 6.6, length: 10 }],
    });
    expect(features[2]).toMatchObject({
      kind: 'closed',
      bottom: 'open',
      width: 8,
      length: 28,
      centre: [30, 30, 0],
      direction: [1, 0, 0],
    });
    const volume = 10 * (6000 - 2 * Math.PI * 3.3 ** 2 - 160 - Math.PI * 16);
    expect(Math.abs(meshVolume(meshModel(model)) - volume) / volume).toBeLessThan(5e-4);
  });
  it('takes depths per layer and per size, and a thickness', () => {
    const text = dxf(4, ...plate, circle('H', 70, 20, 3.3), circle('H', 70, 40, 5), ...slot);
    const { features } = shaped(text, (d) => {
      d.thickness = 16;
      d.layers['H']!.depth = 9;
      d.layers['S']!.depth = 4;
      d.sizes['H|circle|10.00'] = 12;
    });
    expect(features.map((f) => ('depth' in f ? [f.family, f.depth] : []))).toEqual([
      ['hole', 9],
      ['hole', 12],
      ['slot', 4],
    ]);
  });
  it('reads two outlines of one layer as a groove round an island', () => {
    const assumed = shaped(dxf(4, ...plate, circle('G', 50, 30, 20), circle('G', 50, 30, 16)));
    expect(assumed.features).toEqual([expect.objectContaining({ family: 'face-groove', depth: 2 })]);
    expect(assumed.notes.map((n) => n.code)).toContain('depth-assumed');
    const { features } = shaped(
      dxf(4, ...plate, circle('G', 50, 30, 20), circle('G', 50, 30, 16)),
      (d) => (d.layers['G']!.depth = 3),
    );
    expect(features).toEqual([
      expect.objectContaining({
        family: 'face-groove',
        shape: 'ring',
        width: 4,
        depth: 3,
        innerDiameter: 32,
        outerDiameter: 40,
      }),
    ]);
  });
  it('reads a deeper circle inside a shallower as a counterbore', () => {
    const { features } = shaped(
      dxf(4, ...plate, circle('C', 50, 30, 5.5), circle('H', 50, 30, 3.3)),
      (d) => (d.layers['C']!.depth = 6),
    );
    expect(features).toEqual([
      expect.objectContaining({ family: 'hole', kind: 'through', role: 'counterbored' }),
    ]);
  });
  it('is in inches where it says so, and says when it does not say', () => {
    const inch = readDxf(dxf(1, circle('P', 0, 0, 2)), 'x');
    expect(inch.sourceUnits).toBe('inch');
    expect(inch.outlines[0]!.segments[0]).toMatchObject({ radius: 50.8 });
    expect(readDxf(dxf(0, circle('P', 0, 0, 2)), 'x').notes.map((n) => n.code)).toEqual(['units-assumed']);
  });
  it('names what it leaves out: open outlines, other entities, layers that are ignored, what lies outside', () => {
    const text = dxf(
      4,
      ...plate,
      line('C', -10, 30, 110, 30),
      [0, 'POINT', 8, 'C', 10, 1, 20, 1, 30, 0],
      circle('X', 300, 0, 5),
    );
    const { notes } = shaped(text);
    expect(notes.map((n) => n.code)).toEqual(
      expect.arrayContaining(['open-outline', 'entity-left', 'outside-outline']),
    );
    expect(shaped(text, (d) => (d.layers['X']!.use = 'ignore')).notes.map((n) => n.code)).not.toContain(
      'outside-outline',
    );
  });
  it('counts lines drawn twice once', () =>
    expect(readDxf(dxf(4, ...plate, ...plate), 'x').outlines).toHaveLength(1));
  it('is refused in words when it is none', () => {
    for (const text of ['', 'shopping list', dxf(4), dxf(4, line('P', 0, 0, 5, 5))])
      expect(() => readDxf(text, 'x')).toThrow(DxfError);
  });
  it('knows the sizes of its outlines', () => {
    const { outlines } = readDxf(dxf(4, ...plate, circle('H', 70, 20, 3.3)), 'x');
    expect(outlines.map((o) => sizeOfOutline(o).name).sort()).toEqual(['outline 100 x 60', '⌀6.6']);
  });
});

describe('bulges', () => {
  it('a bulge of 1 is a half turn, of tan(22.5°) a quarter', () => {
    expect(bulged([0, 0], [10, 0], 1)).toMatchObject({ kind: 'arc', radius: 5, turn: Math.PI });
    const quarter = bulged([0, 0], [10, 10], Math.tan(Math.PI / 8));
    expect(quarter.kind === 'arc' && quarter.radius).toBeCloseTo(10, 9);
  });
  it('pass through both ends and stand off the chord by bulge × half of it', () => {
    const n = fc.double({ min: -100, max: 100, noNaN: true });
    fc.assert(
      fc.property(n, n, n, n, fc.double({ min: -3, max: 3, noNaN: true }), (x, y, u, v, bulge) => {
        fc.pre(Math.hypot(u - x, v - y) > 0.1 && Math.abs(bulge) > 0.01);
        const s = bulged([x, y], [u, v], bulge);
        const chord = Math.hypot(u - x, v - y);
        expect(distance2(segmentPoint(s, 0), [x, y])).toBeLessThan(1e-6 * chord * 1e3);
        expect(distance2(segmentPoint(s, 1), [u, v])).toBeLessThan(1e-6 * chord * 1e3);
        const m = segmentPoint(s, 0.5);
        // A positive bulge lies to the right of the chord.
        const off = ((m[0] - x) * (v - y) - (m[1] - y) * (u - x)) / chord;
        expect(off).toBeCloseTo((bulge * chord) / 2, 6);
      }),
    );
  });
});
