import { describe, expect, it } from 'vitest';
import type { FamilyName } from '@yellow-pin/core/features/family';
import { viewsOf } from './shapes.ts';

type Shaped = Parameters<typeof viewsOf>[0];
const base = {
  id: 'x',
  solid: 0,
  faces: [],
  reachableFrom: [],
  axis: [0, 0, 1] as [number, number, number],
  at: [0, 0, 0] as [number, number, number],
};
const up = base.at;
const edge = {
  loop: 'closed' as const,
  length: 60,
  side: 'outside' as const,
  edges: [],
  roomBeside: null,
  roomBelow: null,
};
const ring = [
  {
    kind: 'arc' as const,
    from: [15, 0, 0] as typeof up,
    to: [15, 0, 0] as typeof up,
    centre: [0, 0, 0] as typeof up,
    radius: 15,
    turn: 2 * Math.PI,
  },
];

const side = (from: typeof up, to: typeof up) => ({
  piece: { kind: 'line' as const, from, to },
  isWall: true,
});
const square = [
  side([10, -5, 0], [30, -5, 0]),
  side([30, -5, 0], [30, 5, 0]),
  side([30, 5, 0], [10, 5, 0]),
  side([10, 5, 0], [10, -5, 0]),
];
const round = {
  kind: 'arc' as const,
  from: [21, 0, 0] as typeof up,
  to: [21, 0, 0] as typeof up,
  centre: [20, 0, 0] as typeof up,
  radius: 1,
  turn: -2 * Math.PI,
};
const island = [{ piece: round, isWall: true }];

const ONE: { [N in Exclude<FamilyName, 'hole'>]: Extract<Shaped, { family: N }> } = {
  pocket: {
    ...base,
    family: 'pocket',
    bottom: 'flat',
    depth: 7,
    cornerRadius: 0,
    floorRadius: 0,
    length: 20,
    width: 10,
    islands: 1,
    borders: [square, island],
  },
  step: {
    ...base,
    family: 'step',
    depth: 7,
    walls: 3,
    cornerRadius: 0,
    floorRadius: 0,
    borders: [square],
  },
  face: { ...base, family: 'face', level: 0, length: 20, width: 10, borders: [square] },
  outline: { ...base, family: 'outline', length: 60, height: 9, cornerRadius: null, borders: [square] },
  boss: {
    ...base,
    family: 'boss',
    entry: up,
    diameter: 24,
    height: 20,
    chamfer: { length: 1, diameter: 22 },
    bottom: 'shoulder',
  },
  slot: {
    ...base,
    family: 'slot',
    kind: 'closed',
    width: 8,
    length: 40,
    depth: 6,
    bottom: 'flat',
    centre: up,
    direction: [1, 0, 0],
  },
  't-slot': {
    ...base,
    family: 't-slot',
    direction: [1, 0, 0],
    mouthWidth: 12,
    mouthDepth: 9,
    headWidth: 21,
    headHeight: 8,
    length: 100,
    openEnds: 1,
  },
  dovetail: {
    ...base,
    family: 'dovetail',
    direction: [1, 0, 0],
    mouthWidth: 18,
    bottomWidth: 26,
    depth: 7,
    angle: 60,
    length: 60,
    openEnds: 2,
  },
  'face-groove': {
    ...base,
    family: 'face-groove',
    shape: 'ring',
    width: 4,
    depth: 3,
    centrelineLength: 94,
    centreline: ring,
  },
  channel: {
    ...base,
    family: 'channel',
    width: 4,
    depth: 3,
    centrelineLength: 30,
    openEnds: 2,
    bottom: 'flat',
    centreline: [{ kind: 'line', from: [0, 0, 0], to: [30, 10, 0] }],
  },
  'bore-groove': {
    ...base,
    family: 'bore-groove',
    centre: up,
    boreDiameter: 25,
    grooveDiameter: 28,
    width: 1.85,
    holeId: 'H1',
  },
  'wall-groove': {
    ...base,
    family: 'wall-groove',
    width: 5,
    depth: 4,
    loop: 'open',
    length: 120,
    side: 'outside',
    edges: [],
  },
  chamfer: { ...base, ...edge, family: 'chamfer', kind: 'straight', width: 1.5, angle: 30 },
  'rounded-edge': { ...base, ...edge, family: 'rounded-edge', kind: 'straight', radius: 2 },
  'sharp-edge': { ...base, ...edge, family: 'sharp-edge' },
  'rising-edge': {
    ...base,
    family: 'rising-edge',
    loop: 'open',
    length: 10,
    rise: 2,
    at: [0, 0, 0],
    edges: [0],
    run: [
      { at: [0, 0, 0], up: [0, 0, 1], out: [0, 1, 0] },
      { at: [10, 0, -2], up: [0, 0, 1], out: [0, 1, 0] },
    ],
    beside: [],
  },
};

describe('drawings of features', () => {
  it.each(Object.values(ONE).map((f) => [f.family, f] as const))(
    '%s: every view is drawn inside its own box, from its own sizes',
    (_, f) => {
      for (const v of viewsOf(f)) {
        expect(`${v.metal}${v.cut}${v.centre}`).not.toMatch(/NaN|Infinity|undefined/);
        expect(Math.min(v.box.w, v.box.h)).toBeGreaterThan(0);
        for (const d of v.dimensions) {
          for (const [x, y] of [d.from, d.to]) {
            expect(x).toBeGreaterThanOrEqual(v.box.x - 1e-6);
            expect(x).toBeLessThanOrEqual(v.box.x + v.box.w + 1e-6);
            expect(y).toBeGreaterThanOrEqual(v.box.y - 1e-6);
            expect(y).toBeLessThanOrEqual(v.box.y + v.box.h + 1e-6);
          }
          // What is written is what is drawn.
          if (typeof d.text === 'number')
            expect(Math.hypot(d.to[0] - d.from[0], d.to[1] - d.from[1])).toBeCloseTo(d.text, 6);
        }
      }
    },
  );
  it('a ring is drawn as a whole circle', () =>
    expect(viewsOf(ONE['face-groove'])[1]!.centre.match(/A15 15/g)).toHaveLength(2));
});
