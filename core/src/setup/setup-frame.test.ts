import fc from 'fast-check';
import { describe, expect, it, test } from 'vitest';
import { fromFrame, toFrame } from '../geometry/frame.ts';
import { cross, distance, dot, length, normalize, type Vec3 } from '../geometry/vec.ts';
import { at } from '../lists.ts';
import type { Bounds } from '../model/solid-model.ts';
import { attitudeFrom, copySetup, newSetup, turnOver, type Setup } from './setup.ts';
import {
  barDiameter,
  boxFromBounds,
  boxFromPoints,
  holdingInWords,
  setupFrame,
  setupFrames,
  stockInWords,
  zeroInWords,
} from './setup-frame.ts';

/** A part that lies off the file's origin. */
const PART: Bounds = { min: [10, 20, -5], max: [110, 80, 25] };
const setup = (change: Partial<Setup> = {}): Setup => ({ ...newSetup('s1', 'top up', '+Z'), ...change });
const stock = (change: Partial<Setup['stock']>): Setup['stock'] => ({ ...setup().stock, ...change });
const box = (x: -1 | 0 | 1, y: -1 | 0 | 1, z: -1 | 0 | 1, of: 'stock' | 'part' = 'stock'): Setup['zero'] => ({
  kind: 'box',
  of,
  x,
  y,
  z,
  offset: [0, 0, 0],
});
const say = (mm: number): string => String(+mm.toFixed(3));

describe('program zero', () => {
  test('stands at the middle of the top of prepared stock, which is the part', () => {
    const f = setupFrame(setup(), PART);
    expect(f.frame.origin).toEqual([60, 50, 25]);
    expect(f.part).toEqual({ min: [-50, -30, -30], max: [50, 30, 0] });
    expect(f.stock).toEqual(f.part);
    expect(f.top).toBe(0);
    expect(f.body.standsProud).toBe(false);
  });

  test('of stock with allowances is the stock’s, of the part the part’s', () => {
    const block = stock({ kind: 'block', xLow: 1, xHigh: 3, yLow: 2, yHigh: 2, zLow: 4, zHigh: 1.5 });
    const ofStock = setupFrame(setup({ stock: block, zero: box(-1, -1, 1) }), PART);
    expect(ofStock.frame.origin).toEqual([9, 18, 26.5]);
    expect(ofStock.part.max[2]).toBeCloseTo(-1.5, 12);
    expect(ofStock.stock).toEqual({ min: [0, 0, -35.5], max: [104, 64, 0] });
    const ofPart = setupFrame(setup({ stock: block, zero: box(1, 1, -1, 'part') }), PART);
    expect(ofPart.frame.origin).toEqual([110, 80, -5]);
    expect(ofPart.body.standsProud).toBe(true);
  });

  test('is moved along the setup’s own axes', () => {
    const { zero } = setup();
    const f = setupFrame(
      setup({ attitude: { up: [0, 0, 1], x: [0, 1, 0] }, zero: { ...zero, offset: [5, 0, -2] } }),
      PART,
    );
    // Its X is the file's Y.
    expect(distance(f.frame.origin, [60, 55, 23])).toBeLessThan(1e-12);
  });

  test('at a point is where the file has that point, however the part stands', () => {
    for (const up of ['+Z', '-Z', '+X', '-X', '+Y', '-Y'] as const) {
      const zero: Setup['zero'] = { kind: 'point', point: [30, 40, 25], name: 'A1', offset: [0, 0, 0] };
      const f = setupFrame({ ...newSetup('s', 's', up), zero }, PART);
      expect(distance(f.frame.origin, [30, 40, 25])).toBeLessThan(1e-12);
      expect(distance(toFrame(f.frame, [30, 40, 25]), [0, 0, 0])).toBeLessThan(1e-12);
    }
  });

  const direction = fc
    .tuple(...([0, 1, 2] as const).map(() => fc.double({ min: -1, max: 1, noNaN: true })))
    .filter((v) => length(v as Vec3) > 0.1)
    .map((v) => normalize(v as Vec3));

  test('and axes are right-handed, and the box of the part holds all of it', () => {
    fc.assert(
      fc.property(direction, direction, (up, hint) => {
        const attitude = attitudeFrom(up, hint);
        fc.pre(attitude !== null);
        const { frame, part } = setupFrame(setup({ attitude: attitude! }), PART);
        expect(dot(cross(frame.x, frame.y), frame.z)).toBeCloseTo(1, 9);
        for (let i = 0; i < 8; i++) {
          const corner: Vec3 = [
            i & 1 ? PART.max[0] : PART.min[0],
            i & 2 ? PART.max[1] : PART.min[1],
            i & 4 ? PART.max[2] : PART.min[2],
          ];
          const p = toFrame(frame, corner);
          p.forEach((v, k) => {
            expect(v).toBeGreaterThan(at(part.min, k) - 1e-9);
            expect(v).toBeLessThan(at(part.max, k) + 1e-9);
          });
          expect(distance(fromFrame(frame, p), corner)).toBeLessThan(1e-9);
        }
      }),
    );
  });
});

describe('the box of a part along tilted axes', () => {
  const tilted = {
    origin: [0, 0, 0] as Vec3,
    x: [0.8, 0, -0.6] as Vec3,
    y: [0, 1, 0] as Vec3,
    z: [0.6, 0, 0.8] as Vec3,
  };
  // A ball's points reach less far along tilted axes than the corners of its box.
  const points = Array.from({ length: 400 }, (_, i): Vec3 => {
    const z = 1 - (2 * i + 1) / 400;
    const a = 2.399963 * i;
    return [10 * Math.sqrt(1 - z * z) * Math.cos(a), 10 * Math.sqrt(1 - z * z) * Math.sin(a), 10 * z];
  });
  const ball: Bounds = { min: [-10, -10, -10], max: [10, 10, 10] };

  test('is that of its points, and from its box alone too large', () => {
    const fromPoints = boxFromPoints(ball, points.flat())(tilted);
    const fromBox = boxFromBounds(ball)(tilted);
    expect(fromPoints.max[2]).toBeCloseTo(10, 0);
    expect(fromBox.max[2]).toBeCloseTo(14, 9);
  });

  test('along the file’s own axes it is the box itself, bulges between points and all', () => {
    const square = boxFromPoints(ball, [0, 0, 0, 1, 1, 1])({ ...tilted, x: [1, 0, 0], z: [0, 0, 1] });
    expect(square).toEqual(ball);
  });
});

describe('stock', () => {
  test('a round bar lies along an axis through the middle of the part, with its allowance at the ends', () => {
    const bar = stock({ kind: 'round-bar', diameter: 80, barAxis: 'x', xLow: 2, xHigh: 3 });
    const f = setupFrame(setup({ stock: bar, zero: box(-1, 0, 0, 'part') }), PART);
    expect(f.body).toMatchObject({ shape: 'cylinder', along: 'x', radius: 40, standsProud: true });
    expect(f.stock).toEqual({ min: [-2, -40, -40], max: [103, 40, 40] });
    expect(stockInWords(setup({ stock: bar }), f, say)).toBe('bar 80 across, 105 x 80 x 80');
    expect(barDiameter(PART, 'x')).toBeCloseTo(Math.hypot(60, 30), 12);
  });

  test('an outline stands out all round by its margin', () => {
    const f = setupFrame(setup({ stock: stock({ kind: 'outline', margin: 4, zHigh: 1 }) }), PART);
    expect(f.body.shape).toBe('outline');
    expect(f.stock).toEqual({ min: [-54, -34, -31], max: [54, 34, 0] });
  });

  test('another part’s solid is where that lies', () => {
    const solid = { jobId: 'j', name: 'casting', bounds: { min: [0, 10, -8], max: [120, 90, 40] } as Bounds };
    const s = setup({ stock: stock({ kind: 'solid', solid }), zero: box(0, 0, 1, 'part') });
    const f = setupFrame(s, PART);
    expect(f.stock).toEqual({ min: [-60, -40, -33], max: [60, 40, 15] });
    expect(f.top).toBe(15);
    expect(stockInWords(s, f, say)).toBe('solid casting, 120 x 80 x 48');
  });

  test('left over is that of the setup before, turned over with the part', () => {
    const first = setup({ stock: stock({ kind: 'block', zLow: 4, zHigh: 1 }) });
    const second = copySetup(first, 's2', turnOver(first.attitude, 'x'));
    const [a, b] = setupFrames([first, second], PART);
    expect(b?.body.shape).toBe('box');
    // What was below by 4 is above now.
    expect(b!.stock.max[2] - b!.part.max[2]).toBeCloseTo(4, 12);
    expect(b!.part.min[2] - b!.stock.min[2]).toBeCloseTo(1, 12);
    expect(a!.stock.max[2] - a!.part.max[2]).toBeCloseTo(1, 12);
    expect(stockInWords(second, b!, say)).toBe('as the setup before leaves it, 100 x 60 x 35');
  });

  test('a bar that is left over lies along another axis where the part was turned, and is its box where along none', () => {
    const first = setup({ stock: stock({ kind: 'round-bar', diameter: 90, barAxis: 'z' }) });
    const onItsSide = copySetup(first, 's2', { up: [1, 0, 0], x: [0, 0, 1] });
    const askew = copySetup(first, 's3', { up: [0.6, 0, 0.8], x: [0.8, 0, -0.6] });
    const frames = setupFrames([first, onItsSide], PART);
    expect(frames[1]?.body).toMatchObject({ shape: 'cylinder', along: 'x', radius: 45 });
    expect(setupFrames([first, askew], PART)[1]?.body.shape).toBe('box');
  });

  test('left over of nothing is the block that its allowances say', () => {
    const f = setupFrame(setup({ stock: stock({ kind: 'left-over', zHigh: 2 }) }), PART);
    expect(f.stock.max[2] - f.part.max[2]).toBe(2);
  });
});

describe('what holds the part', () => {
  const vise = { sides: 'front-back' as const, jawHeight: 40, grip: 10, jawWidth: 150 };

  test('jaws stand against the stock as high as they grip, and tools keep out of them', () => {
    const f = setupFrame(setup({ holding: { vise, keepOuts: [] } }), PART);
    const [front, back] = f.keepOuts;
    expect(front).toMatchObject({ name: 'front jaw', min: [-75, -55, -60], max: [75, -30, -20] });
    expect(back).toMatchObject({ name: 'back jaw', min: [-75, 30, -60], max: [75, 55, -20] });
    const side = setupFrame(
      setup({ holding: { vise: { ...vise, sides: 'left-right' }, keepOuts: [] } }),
      PART,
    );
    expect(side.keepOuts.map((k) => k.name)).toEqual(['left jaw', 'right jaw']);
    expect(at(side.keepOuts, 0).max[0]).toBe(-50);
  });

  test('a clamp keeps its corners in order, and what stands highest is the top', () => {
    const clamp = {
      id: 'c1',
      name: 'clamp 1',
      kind: 'clamp' as const,
      min: [40, 30, 45] as Vec3,
      max: [10, 20, 25] as Vec3,
    };
    const f = setupFrame(setup({ holding: { vise: null, keepOuts: [clamp] } }), PART);
    expect(f.keepOuts).toEqual([{ name: 'clamp 1', min: [-50, -30, 0], max: [-20, -20, 20] }]);
    expect(f.top).toBe(20);
  });

  it('is said in words', () => {
    const clamp = {
      id: 'c',
      name: 'c',
      kind: 'clamp' as const,
      min: [0, 0, 0] as Vec3,
      max: [1, 1, 1] as Vec3,
    };
    const words = (keepOuts: Setup['holding']['keepOuts'], held: Setup['holding']['vise'] = null): string =>
      holdingInWords(setup({ holding: { vise: held, keepOuts } }), say);
    expect(words([])).toBe('not said');
    expect(words([clamp], vise)).toBe('vise, front and back jaw, grip 10; 1 clamp');
    expect(words([clamp, clamp, { ...clamp, kind: 'keep-out' }])).toBe('2 clamps; 1 keep-out box');
  });
});

test.each([
  [box(0, 0, 1), 'centre, top of stock'],
  [box(-1, -1, 1, 'part'), 'left front corner, top of part'],
  [box(1, 0, -1), 'right face, centre of width, bottom of stock'],
  [box(0, 1, 0), 'back face, centre of length, mid-height of stock'],
  [
    { ...box(0, 0, 1), offset: [0, -2.5, 1] } as Setup['zero'],
    'centre, top of stock; 2.5 toward -Y, 1 toward +Z',
  ],
  [
    { kind: 'point', point: [0, 0, 0], name: 'centre of A1', offset: [0, 0, 0] } as Setup['zero'],
    'centre of A1',
  ],
])('a zero in words', (zero, words) => {
  expect(zeroInWords({ zero })).toBe(words);
});
