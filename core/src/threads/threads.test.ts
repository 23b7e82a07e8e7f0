import { describe, expect, it } from 'vitest';
import { threadCandidates } from './candidates.ts';
import { minorLimits6H, TAPERED_PIPE, THREADS } from './standards.ts';
import {
  drillDepthForTap,
  engagementPercent,
  formingHole,
  fundamentalHeight,
  minorDiameter,
  pitchDiameter,
  taperedPipe,
  tapDepth,
  whitworth,
} from './thread.ts';
import type { StackStep } from '../features/hole/schema.ts';

const hole = (diameter: number): StackStep[] => [{ shape: 'cylinder', diameter, length: 20 }];
const names = (stack: StackStep[], units: 'mm' | 'inch' = 'mm') =>
  threadCandidates(stack, units).map((c) => c.designation);

describe('thread formulas (handbook numbers)', () => {
  it('M10×1.5', () => {
    expect(pitchDiameter(10, 1.5)).toBeCloseTo(9.0257, 4);
    expect(minorDiameter(10, 1.5)).toBeCloseTo(8.3762, 4);
    expect(engagementPercent(10, 1.5, 8.5)).toBeCloseTo(76.98, 2);
    expect(fundamentalHeight(1.5)).toBeCloseTo(1.299, 3);
  });

  it('7/16-14', () => {
    expect(pitchDiameter(7 / 16, 1 / 14)).toBeCloseTo(0.3911, 4);
    expect(minorDiameter(7 / 16, 1 / 14)).toBeCloseTo(0.3602, 4);
  });

  it('tapered pipe E0 and E1, every size of the table', () => {
    const expected: Record<string, [number, number]> = {
      '1/8': [0.36351, 0.3736],
      '1/4': [0.47739, 0.49163],
      '3/8': [0.61201, 0.62701],
      '1/2': [0.75843, 0.77843],
      '3/4': [0.96768, 0.98887],
      '1': [1.21363, 1.23863],
    };
    for (const p of TAPERED_PIPE) {
      const { e0, e1 } = taperedPipe(p.d, 1 / p.tpi, p.l1);
      expect(e0, p.size).toBeCloseTo(expected[p.size]![0], 4);
      expect(e1, p.size).toBeCloseTo(expected[p.size]![1], 4);
    }
  });

  it('55° pipe threads lose the depth once and twice', () => {
    const g = whitworth(20.955, 25.4 / 14);
    expect(g.pitchDiameter).toBeCloseTo(19.793, 3);
    expect(g.minorDiameter).toBeCloseTo(18.6315, 3);
  });

  it('forming hole at 65 %', () => expect(formingHole(6, 1)).toBeCloseTo(5.558, 6));

  it('tapping M8×1.25 with 16 of full thread and a plug tap', () => {
    expect(tapDepth(16, 1.25, 'plug')).toBe(21);
    expect(drillDepthForTap(21, 1.25)).toBe(22.25);
    expect(tapDepth(16, 1.25, 'bottoming')).toBe(17.875);
  });

  it('6H limits of the minor diameter hold the tap drill', () => {
    const { min, max } = minorLimits6H(10, 1.5);
    expect(min).toBeCloseTo(8.376, 3);
    // The printed table rounds the tolerance to 0.300; the formula gives 0.3055.
    expect(max).toBeCloseTo(8.6817, 3);
    for (const t of THREADS) {
      if (t.form !== 'metric' || !t.coarse) continue;
      const limits = minorLimits6H(t.majorDiameter, t.pitch);
      expect(t.tapDrill, t.designation).toBeGreaterThan(limits.min - 0.06);
      expect(t.tapDrill, t.designation).toBeLessThan(limits.max + 0.02);
    }
  });
});

describe('thread candidates', () => {
  it('offers coarse before fine, the nearest first', () => {
    expect(names(hole(6.8))[0]).toBe('M8x1.25');
    expect(names(hole(5))[0]).toBe('M6x1');
    expect(names(hole(8.5))[0]).toBe('M10x1.5');
  });

  it('names the basis', () => {
    expect(threadCandidates(hole(minorDiameter(10, 1.5)), 'mm')[0]).toEqual({
      designation: 'M10x1.5',
      basis: 'minor diameter',
    });
    expect(threadCandidates(hole(8.5), 'mm')[0]).toEqual({
      designation: 'M10x1.5',
      basis: 'tap drill diameter',
    });
  });

  it('prefers the unit system of the file', () => {
    expect(names(hole(0.201 * 25.4), 'inch')[0]).toBe('1/4-20 UNC');
    expect(names(hole(0.201 * 25.4), 'mm')[0]).toBe('M6x1');
  });

  it('takes a nominal size only under a wider chamfer', () => {
    const chamfered: StackStep[] = [
      { shape: 'cone', startDiameter: 9, endDiameter: 8, angle: 90, length: 0.5 },
      ...hole(8),
    ];
    expect(threadCandidates(chamfered, 'mm')).toContainEqual({
      designation: 'M8x1.25',
      basis: 'major diameter',
    });
    expect(names(hole(8))).not.toContain('M8x1.25');
  });

  it('offers nothing for a large plain bore', () => expect(names(hole(60))).toEqual([]));

  it('reads a 1:16 taper as pipe', () => {
    const mouth = 0.62701 * 25.4;
    const taper: StackStep[] = [
      {
        shape: 'cone',
        startDiameter: mouth,
        endDiameter: mouth - 12 / 16,
        angle: (360 / Math.PI) * Math.atan(1 / 32),
        length: 12,
      },
    ];
    expect(threadCandidates(taper, 'mm')[0]).toEqual({ designation: '3/8-18 NPT', basis: 'taper' });
  });
});
