import { describe, expect, it } from 'vitest';
import { threadCandidates } from './candidates.ts';
import { minorLimits } from './minor-limits.ts';
import { NAMED_THREADS } from './more.ts';
import { flankAngle, taperedLength, threadSizes } from './shape.ts';
import { metricThread, TAPERED_PIPE, THREADS } from './standards.ts';
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
      '1/16': [0.27118, 0.28118],
      '1/8': [0.36351, 0.3736],
      '1/4': [0.47739, 0.49163],
      '3/8': [0.61201, 0.62701],
      '1/2': [0.75843, 0.77843],
      '3/4': [0.96768, 0.98887],
      '1': [1.21363, 1.23863],
      '1 1/4': [1.55713, 1.58338],
      '1 1/2': [1.79609, 1.82234],
      '2': [2.26902, 2.29627],
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

  it('limits of the minor diameter hold the tap drill (6H)', () => {
    const of = (name: string, toleranceClass?: string) => {
      const found = NAMED_THREADS.find((t) => t.designation === name)!;
      return minorLimits(toleranceClass ? { ...found, toleranceClass } : found);
    };
    expect(of('M10x1.5')!.min).toBeCloseTo(8.376, 3);
    // The printed table rounds the tolerance to 0.300; the formula gives 0.3055.
    expect(of('M10x1.5')!.max).toBeCloseTo(8.6817, 3);
    for (const t of THREADS) {
      if (t.form !== 'metric' || !t.coarse) continue;
      const limits = minorLimits(t)!;
      expect(t.tapDrill, t.designation).toBeGreaterThan(limits.min - 0.06);
      expect(t.tapDrill, t.designation).toBeLessThan(limits.max + 0.02);
    }
    // ISO 965-1: grade 5 has 0.8 of it, grade 7 1.25, G lies higher.
    const { min, max } = of('M10x1.5')!;
    expect(of('M10x1.5', '5H')!.max - min).toBeCloseTo(0.8 * (max - min), 6);
    expect(of('M10x1.5', '7H')!.max - min).toBeCloseTo(1.25 * (max - min), 6);
    expect(of('M10x1.5', '6G')!.min - min).toBeCloseTo(0.0315, 6);
    expect(of('M10x1.5', '6g')).toBeNull();
  });

  it.each([
    ['1/4-20 UNC', '2B', 0.196, 0.207],
    ['1/2-13 UNC', '2B', 0.417, 0.434],
    ['10-32 UNF', '2B', 0.156, 0.164],
    ['4-40 UNC', '2B', 0.085, 0.094],
    ['1/4-20 UNC', '3B', 0.1959, 0.2067],
    ['1/2-13 UNC', '3B', 0.4167, 0.4284],
  ])('limits of %s %s as ASME B1.1 prints them', (name, toleranceClass, min, max) => {
    const limits = minorLimits({ ...NAMED_THREADS.find((t) => t.designation === name)!, toleranceClass })!;
    const places = String(min).length - 2;
    expect((limits.min / 25.4).toFixed(places)).toBe(min.toFixed(places));
    expect((limits.max / 25.4).toFixed(places)).toBe(max.toFixed(places));
  });

  it('limits of G 1/4 as ISO 228-1 prints them; a taper has none', () => {
    const of = (name: string) => minorLimits(NAMED_THREADS.find((t) => t.designation === name)!);
    expect(of('G 1/4')!.min).toBeCloseTo(11.445, 2);
    expect(of('G 1/4')!.max).toBeCloseTo(11.89, 2);
    expect(of('Rc 1/4')).toBeNull();
    expect(of('1/4-18 NPT')).toBeNull();
  });
});

describe('sizes of a thread along its axis', () => {
  const named = (name: string) => NAMED_THREADS.find((t) => t.designation === name)!;

  it('are the standards’ own where it begins', () => {
    const npt = threadSizes(named('3/8-18 NPT'));
    expect(npt.pitch / 25.4).toBeCloseTo(0.62701, 5);
    expect((npt.major - npt.minor) / 25.4).toBeCloseTo(1.6 / 18, 5);
    expect(threadSizes(named('3/8-18 NPT'), 'outside').pitch / 25.4).toBeCloseTo(0.61201, 5);
    // ISO 7-1: Rc 1/2 has 20.955, 19.793 and 18.631 at its gauge plane.
    const rc = threadSizes(named('Rc 1/2'));
    expect(rc.major).toBeCloseTo(20.955, 3);
    expect(rc.pitch).toBeCloseTo(19.793, 2);
    expect(rc.minor).toBeCloseTo(18.631, 2);
    expect(threadSizes(metricThread(10, 1.5)).minor).toBeCloseTo(8.3762, 4);
  });

  it('fall by 1/16 of the way inside, and grow outside', () => {
    for (const t of NAMED_THREADS) {
      const step = t.form === 'pipe-tapered' ? 1 : 0;
      expect(threadSizes(t).pitch - threadSizes(t, 'inside', 16).pitch).toBeCloseTo(step, 9);
      expect(threadSizes(t, 'outside', 16).pitch - threadSizes(t, 'outside').pitch).toBeCloseTo(step, 9);
    }
  });

  it('have an angle, and a tapered one a length, whichever of the tables it is from', () => {
    expect(flankAngle(named('G 1/2'))).toBe(55);
    expect(flankAngle(named('Rc 1/2'))).toBe(55);
    expect(flankAngle(named('1/2-14 NPT'))).toBe(60);
    expect(flankAngle(named('M8x1.25'))).toBe(60);
    expect(taperedLength(named('3/8-18 NPT'))! / 25.4).toBeCloseTo(0.4078, 6);
    expect(taperedLength(named('1 1/4-11.5 NPTF'))! / 25.4).toBeCloseTo(0.7068, 6);
    for (const t of NAMED_THREADS.filter((n) => n.form === 'pipe-tapered'))
      expect(taperedLength(t), t.designation).toBeGreaterThan(3.5 * t.pitch);
    expect(taperedLength({ ...named('Rc 1/2'), designation: 'Rc 5/8' })).toBeNull();
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
