import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { peckCount, pointLength, rimDiameter, spotDepth, tipDepthForFullDiameter } from './depths.ts';
import {
  drillFeed,
  millFeed,
  speedAndFeed,
  spindleSpeed,
  spindleSpeedInch,
  tapFeed,
  type Material,
} from './material.ts';
import type { Tool } from '../tools/schema.ts';

describe('drill points and depths (handbook numbers)', () => {
  it('point length', () => {
    expect(pointLength(8.5, 118)).toBeCloseTo(2.5537, 4);
    expect(pointLength(8.5, 140)).toBeCloseTo(1.5469, 4);
    expect(pointLength(5, 135)).toBeCloseTo(1.0355, 4);
  });

  it('through a plate 18 thick', () =>
    expect(-tipDepthForFullDiameter(18 + 0.8, 8.5, 118)).toBeCloseTo(-21.3537, 4));

  it('spot for a rim of 9.2', () => {
    expect(spotDepth(9.2, 90)).toBeCloseTo(4.6, 4);
    expect(spotDepth(9.2, 120)).toBeCloseTo(2.6558, 4);
    expect(spotDepth(9.2, 142)).toBeCloseTo(1.5839, 4);
  });

  it('countersink of a 12.4 head, sharp and with a tip flat', () => {
    expect(spotDepth(12.4, 90)).toBeCloseTo(6.2, 4);
    expect(spotDepth(12.4, 90, 0.2)).toBeCloseTo(6.1, 4);
  });

  it('rim and depth undo each other', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 40, noNaN: true }),
        fc.double({ min: 60, max: 150, noNaN: true }),
        fc.double({ min: 0, max: 0.4, noNaN: true }),
        (rim, angle, tip) => {
          expect(rimDiameter(spotDepth(rim, angle, tip), angle, tip)).toBeCloseTo(rim, 9);
        },
      ),
    );
  });

  it('full diameter depth adds the point', () =>
    expect(tipDepthForFullDiameter(10, 8.5, 118)).toBeCloseTo(12.5537, 4));

  it('counts pecks so that n of them reach the depth and n - 1 do not', () => {
    expect(peckCount(10, 5)).toBe(2);
    expect(peckCount(10.001, 5)).toBe(3);
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 300, noNaN: true }),
        fc.double({ min: 0.1, max: 20, noNaN: true }),
        (depth, q) => {
          const n = peckCount(depth, q);
          expect(n * q).toBeGreaterThanOrEqual(depth - 1e-6);
          expect((n - 1) * q).toBeLessThan(depth);
        },
      ),
    );
  });
});

describe('speeds and feeds (handbook numbers)', () => {
  it('spindle speed', () => {
    expect(spindleSpeed(90, 8.5)).toBeCloseTo(3370.3, 1);
    expect(spindleSpeed(60, 3.3)).toBeCloseTo(5787.5, 1);
    expect(spindleSpeedInch(300, 0.5)).toBeCloseTo(2291.8, 1);
  });

  it('tap feed is pitch times speed', () => {
    expect(tapFeed(450, 1.5)).toBe(675);
    expect(tapFeed(450, 1.5) / 25.4).toBeCloseTo(26.5748, 4);
    expect(tapFeed(300, 1 / 14)).toBeCloseTo(21.4286, 4);
  });

  it('mill and drill feed', () => {
    expect(millFeed(3000, 4, 0.05)).toBeCloseTo(600);
    expect(drillFeed(3000, 0.1)).toBeCloseTo(300);
  });
});

const material: Material = {
  id: 'm',
  name: 'test metal',
  cutting: [
    { kinds: ['spot-drill'], vc: 60, carbideFactor: 2, feedShare: 0.01, maxFeedPerTurn: 1 },
    { kinds: ['drill'], vc: 60, carbideFactor: 2, feedShare: 0.02, maxFeedPerTurn: 1 },
    { kinds: ['tap'], vc: 15, carbideFactor: 1, feedShare: 0, maxFeedPerTurn: 1 },
    { kinds: ['end-mill'], vc: 60, carbideFactor: 2, feedShare: 0.01, maxFeedPerTurn: 0.1 },
    { kinds: ['end-mill'], below: 6, vc: 40, carbideFactor: 2, feedShare: 0.008, maxFeedPerTurn: 0.1 },
  ],
  pecking: { chipBreakFrom: 3, fullRetractFrom: 5 },
  deepHoles: [{ overDiameters: 5, speedFactor: 0.8, feedFactor: 0.5 }],
};

const tool = (part: Partial<Tool>): Tool => ({
  id: 't',
  number: 1,
  kind: 'drill',
  description: 'drill',
  diameter: 10,
  sizeName: '10',
  pointAngleDeg: 118,
  tipDiameter: 0,
  fluteLength: 80,
  overallLength: 120,
  shankDiameter: 10,
  stickOut: 90,
  holderId: 'h',
  cutterMaterial: 'hss',
  ...part,
});
const tap = (pitch: number) =>
  tool({
    kind: 'tap',
    thread: { designation: 'M10', pitch, majorDiameter: 10, hand: 'right', lead: 'plug', style: 'cutting' },
  });
const wide = { maxSpeed: 1e6, maxFeed: 1e6 };

describe('speedAndFeed', () => {
  it('takes the drill from the table, carbide faster', () => {
    const hss = speedAndFeed(tool({}), material, wide, 10);
    expect(hss.speed).toBe(Math.round(spindleSpeed(60, 10)));
    expect(speedAndFeed(tool({ cutterMaterial: 'carbide' }), material, wide, 10).speed).toBeCloseTo(
      2 * hss.speed,
      -1,
    );
  });

  it('is slower in a deep hole', () => {
    const deep = speedAndFeed(tool({}), material, wide, 60);
    expect(deep.speed / speedAndFeed(tool({}), material, wide, 20).speed).toBeCloseTo(0.8, 2);
  });

  it('lets the feed follow a clamped speed', () => {
    const held = speedAndFeed(tool({}), material, { maxSpeed: 500, maxFeed: 1e6 }, 10);
    expect(held).toMatchObject({ speed: 500, clamped: 'speed' });
    expect(held.feed).toBeCloseTo(500 * 0.2, 6);
  });

  it('keeps a tap at pitch × speed whatever the limits', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 3000 }),
        fc.integer({ min: 20, max: 3000 }),
        fc.constantFrom(0.5, 0.8, 1, 1.25, 1.5, 25.4 / 20),
        (maxSpeed, maxFeed, pitch) => {
          const { speed, feed } = speedAndFeed(tap(pitch), material, { maxSpeed, maxFeed }, 10);
          expect(feed).toBeCloseTo(speed * pitch, 9);
          expect(speed).toBeLessThanOrEqual(maxSpeed);
          expect(feed).toBeLessThanOrEqual(maxFeed + 1e-9);
        },
      ),
    );
  });

  it('says which data is missing', () => {
    const rest = material.cutting.filter((r) => !r.kinds.includes('drill'));
    expect(() => speedAndFeed(tool({}), { ...material, cutting: rest }, wide, 10)).toThrow(
      /no cutting data for drill ⌀10/,
    );
  });

  it('feeds a mill by the tooth, by the narrowest range that has its diameter', () => {
    const mill = (diameter: number, teeth: number): Tool => tool({ kind: 'end-mill', diameter, teeth });
    const { speed, feed } = speedAndFeed(mill(8, 4), material, wide, 8);
    expect(speed).toBe(Math.round(spindleSpeed(60, 8)));
    expect(feed).toBeCloseTo(millFeed(speed, 4, 0.08), 9);
    const thin = speedAndFeed(mill(5, 3), material, wide, 5);
    expect(thin.speed).toBe(Math.round(spindleSpeed(40, 5)));
    expect(thin.feed).toBeCloseTo(millFeed(thin.speed, 3, 0.04), 9);
  });
});
