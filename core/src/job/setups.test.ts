import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cross, distance, dot, normalize, type Vec3 } from '../geometry/vec.ts';
import { fromFrame, toFrame } from '../geometry/frame.ts';
import { LIBRARY, BOUNDS, hole, plan } from '../testing/fixtures.ts';
import { chooseDirections, setupsFor } from '../setup/choose-setups.ts';
import { newPlan, planSchema } from '../plan/plan.ts';
import { produceJob } from './produce.ts';
import {
  attitudeFor,
  attitudeFrom,
  copySetup,
  newSetup,
  quarterTurn,
  SIDES,
  sideDirection,
  turnOver,
  upFromPoints,
  type Setup,
  type Zero,
} from '../setup/setup.ts';
import { barDiameter, boxFromPoints, setupFrame, setupFrames, zeroInWords } from '../setup/setup-frame.ts';

const bounds = { min: [10, 20, 30] as Vec3, max: [110, 80, 70] as Vec3 };
const box = (part: Partial<Extract<Zero, { kind: 'box' }>>): Zero => ({
  kind: 'box',
  of: 'stock',
  x: 0,
  y: 0,
  z: 1,
  offset: [0, 0, 0],
  ...part,
});
const setup = (part: Partial<Setup> = {}): Setup => ({ ...newSetup('s1', 'n', '+Z'), ...part });
const direction = fc
  .tuple(
    fc.double({ min: -1, max: 1, noNaN: true }),
    fc.double({ min: -1, max: 1, noNaN: true }),
    fc.double({ min: -1, max: 1, noNaN: true }),
  )
  .filter((v) => Math.hypot(...v) > 0.1);

describe('attitudes', () => {
  it.each(SIDES)('%s is up, right-handed, zero on top of the stock', (side) => {
    const { frame, stock, part } = setupFrame(newSetup('s', 'n', side), bounds);
    expect(frame.z).toEqual(sideDirection(side));
    expect(dot(cross(frame.x, frame.y), frame.z)).toBeCloseTo(1);
    expect(stock.max[2]).toBeCloseTo(0);
    expect(part.min[0] + part.max[0]).toBeCloseTo(0);
    expect(part.max.map((v, i) => v - part.min[i]!).sort((a, b) => a - b)).toEqual([40, 60, 100]);
  });
  it('four quarter turns and two turns over come back', () => {
    fc.assert(
      fc.property(direction, direction, (up, x) => {
        const a = attitudeFrom(up as Vec3, x as Vec3);
        fc.pre(a !== null);
        let b = a!;
        for (let i = 0; i < 4; i++) b = quarterTurn(b);
        expect(distance(b.x, a!.x)).toBeLessThan(1e-9);
        for (const about of ['x', 'y'] as const)
          expect(distance(turnOver(turnOver(a!, about), about).x, a!.x)).toBeLessThan(1e-9);
      }),
    );
  });
  it('a quarter turn brings what lay along X along Y', () => {
    const before = setupFrame(setup(), bounds).frame;
    const after = setupFrame(setup({ attitude: quarterTurn(setup().attitude) }), bounds).frame;
    expect(distance(after.y, before.x)).toBeLessThan(1e-9);
  });
  it('takes X from an edge and up from three points, and refuses what says nothing', () => {
    expect(distance(attitudeFrom([0, 0, 2], [3, 4, 5])!.x, [0.6, 0.8, 0])).toBeLessThan(1e-9);
    expect(attitudeFrom([0, 0, 1], [0, 0, 7])).toBeNull();
    expect(
      upFromPoints(
        [
          [0, 0, 5],
          [10, 0, 5],
          [0, 10, 5],
        ],
        [0, 0, -1],
      ),
    ).toEqual([0, 0, -1]);
    expect(
      upFromPoints(
        [
          [0, 0, 0],
          [1, 0, 0],
          [2, 0, 0],
        ],
        [0, 0, 1],
      ),
    ).toBeNull();
  });
});

describe('zero', () => {
  it('is at any of the 27 points of the stock, moved by its offset', () => {
    for (const x of [-1, 0, 1] as const)
      for (const y of [-1, 0, 1] as const)
        for (const z of [-1, 0, 1] as const) {
          const s = setup({
            zero: box({ x, y, z, offset: [1, 2, 3] }),
            stock: { ...setup().stock, kind: 'block', xLow: 2, xHigh: 4, zHigh: 3 },
          });
          const { frame, stock } = setupFrame(s, bounds);
          const expected = [
            [8, 61, 114],
            [20, 50, 80],
            [30, 51.5, 73],
          ].map((p, i) => p[[x, y, z][i]! + 1]! + [1, 2, 3][i]!);
          expect(frame.origin).toEqual(expected);
          expect(toFrame(frame, [8, 20, 30])).toEqual(stock.min.map((v) => v + 0));
        }
  });
  it('is on a picked point', () => {
    const { frame } = setupFrame(
      setup({
        attitude: attitudeFor([1, 0, 0]),
        zero: { kind: 'point', point: [50, 40, 70], name: 'centre of A1', offset: [0, 0, 5] },
      }),
      bounds,
    );
    expect(frame.origin).toEqual([55, 40, 70]);
  });
  it('is said in words', () => {
    expect(zeroInWords({ zero: box({ of: 'part' }) })).toBe('centre, top of part');
    expect(zeroInWords({ zero: box({ x: -1, y: -1 }) })).toBe('left front corner, top of stock');
    expect(zeroInWords({ zero: box({ x: 1, z: -1 }) })).toBe('right face, centre of width, bottom of stock');
    expect(zeroInWords({ zero: box({ y: -1, offset: [0, 2.5, 0] }) })).toBe(
      'front face, centre of length, top of stock; 2.5 toward +Y',
    );
    expect(
      zeroInWords({ zero: { kind: 'point', point: [0, 0, 0], name: 'centre of A1', offset: [-1, 0, 0] } }),
    ).toBe('centre of A1; 1 toward -X');
  });
});

describe('stock', () => {
  const stockOf = (part: Partial<Setup['stock']>, before: Setup | null = null) => {
    const s = setup({
      stock: { ...setup().stock, ...part },
      zero: { kind: 'point', point: [0, 0, 0], name: 'origin', offset: [0, 0, 0] },
    });
    return setupFrame(s, bounds, before && setupFrame(before, bounds)).body;
  };
  it('is a bar that goes round the part', () => {
    const d = barDiameter(bounds, 'x');
    expect(d).toBeCloseTo(Math.hypot(60, 40), 9);
    const bar = stockOf({ kind: 'round-bar', barAxis: 'x', diameter: d, xHigh: 5 });
    expect(bar.box.min).toEqual([10, 50 - d / 2, 50 - d / 2]);
    expect(bar.box.max[0]).toBe(115);
    expect(bar).toMatchObject({ shape: 'cylinder', along: 'x', standsProud: true });
  });
  it('is the outline with a margin, or another solid', () => {
    expect(stockOf({ kind: 'outline', margin: 3, zHigh: 2 }).box).toEqual({
      min: [7, 17, 30],
      max: [113, 83, 72],
    });
    expect(
      stockOf({
        kind: 'solid',
        solid: { jobId: 'j', name: 'casting', bounds: { min: [0, 0, 0], max: [120, 90, 80] } },
      }).box.max,
    ).toEqual([120, 90, 80]);
  });
  it('is what the setup before leaves, seen from this one', () => {
    const first = setup({ stock: { ...setup().stock, kind: 'block', xHigh: 5, zHigh: 3 } });
    const second = { ...copySetup(first, 's2', turnOver(first.attitude, 'x')), zero: box({ x: -1, y: -1 }) };
    const [a, b] = setupFrames([first, second], bounds);
    expect(second).toMatchObject({ workOffset: 'G55', name: 'bottom up', stock: { kind: 'left-over' } });
    expect(b!.stock.max.map((v, i) => v - b!.stock.min[i]!)).toEqual([105, 60, 43]);
    expect(b!.body.standsProud).toBe(true);
    // The same corner of the same block.
    expect(
      distance(
        fromFrame(a!.frame, a!.stock.min),
        fromFrame(b!.frame, [b!.stock.min[0], b!.stock.max[1], b!.stock.max[2]]),
      ),
    ).toBeLessThan(1e-9);
  });
  it('boxes a tilted part by its points', () => {
    const attitude = attitudeFrom(normalize([0, 1, 1]), [1, 0, 0])!;
    const line = [0, 0, 0, 0, 10, 10];
    const { part } = setupFrame(
      setup({ attitude }),
      boxFromPoints({ min: [0, 0, 0], max: [0, 10, 10] }, line),
    );
    expect(part.max[2] - part.min[2]).toBeCloseTo(Math.hypot(10, 10), 9);
    expect(part.max[1] - part.min[1]).toBeCloseTo(0, 9);
  });
});

describe('chosen setups', () => {
  const side = (d: Vec3) => hole({ axis: d, reachableFrom: [d] });
  it('cover every reachable feature with the most rewarding first', () => {
    const both = hole({
      kind: 'through',
      axis: [0, 1, 0],
      reachableFrom: [
        [0, 1, 0],
        [0, -1, 0],
      ],
    });
    expect(chooseDirections([side([0, 1, 0]), side([0, 1, 0]), side([1, 0, 0]), both])).toEqual([
      [0, 1, 0],
      [1, 0, 0],
    ]);
    expect(
      setupsFor([
        [0, 1, 0],
        [1, 0, 0],
      ]).map((s) => [s.name, s.workOffset]),
    ).toEqual([
      ['back up', 'G54'],
      ['right up', 'G55'],
    ]);
  });
  it('follow a part that stands askew', () => {
    const d = normalize([1, 1, 1]);
    const [up] = chooseDirections([side(d)]);
    expect(up).toEqual(d);
    expect(setupsFor([d])[0]!.name).toBe('tilted');
    expect(setupsFor([d, [0, 0, 1], normalize([1, 1, -1])]).map((s) => s.name)).toEqual([
      'tilted 1',
      'top up',
      'tilted 2',
    ]);
  });
  it('never give two programs one file, whatever they are called', () => {
    const p = plan();
    p.setups = [newSetup('s1', 'same', '+Z'), { ...newSetup('s2', 'same', '+X', 'G55') }];
    const { programs } = produceJob({
      features: [side([0, 0, 1]), side([1, 0, 0])],
      bounds: BOUNDS,
      plan: p,
      library: LIBRARY,
      name: 'part',
    });
    expect(programs.map((x) => x.fileName)).toEqual(['part-same.nc', 'part-same-2.nc']);
  });
  it('are the top where there is nothing to reach', () =>
    expect(chooseDirections([hole({ reachableFrom: [] })])).toEqual([[0, 0, 1]]));
});

describe('the plan document', () => {
  it('passes its own schema and refuses nonsense', () => {
    const p = newPlan('mm', 'm', 'x');
    expect(planSchema.parse(JSON.parse(JSON.stringify(p)))).toEqual(p);
    const first = p.setups[0]!;
    for (const wrong of [
      { ...p, setups: [] },
      { ...p, units: 'ell' },
      { ...p, format: 'yellow-pin/plan@4' },
      { ...p, setups: [{ ...first, clearance: -1 }] },
      { ...p, setups: [{ ...first, attitude: { up: [0, 0, 1], x: [0, 0, 1] } }] },
      { ...p, setups: [{ ...first, attitude: { up: [0, 0, 2], x: [1, 0, 0] } }] },
    ]) {
      expect(planSchema.safeParse(wrong).success).toBe(false);
    }
  });
  it('reads plans of before', () => {
    const old = {
      format: 'yellow-pin/plan@1',
      units: 'mm',
      materialId: 'm',
      machineId: 'x',
      solid: null,
      setups: [
        {
          id: 's1',
          name: 'left up',
          up: '-X',
          zero: { of: 'part', x: 1, y: 0, z: 1 },
          stock: { state: 'block', xLow: 1, xHigh: 0, yLow: 0, yHigh: 0, zLow: 0, zHigh: 2 },
          workOffset: 'G54',
          clearance: 25,
          retract: 2,
        },
      ],
      sizes: {},
      toolOrder: [],
      codeOptions: {},
    };
    const read = planSchema.parse(old);
    expect(read.setups[0]).toMatchObject({
      attitude: attitudeFor([-1, 0, 0]),
      zero: { kind: 'box', of: 'part', x: 1, offset: [0, 0, 0] },
      stock: { kind: 'block', xLow: 1, zHigh: 2 },
      holding: { vise: null },
    });
  });
});
