import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pointLength } from '../cutting/depths.ts';
import { drill, LIBRARY, tap, TOOLS } from '../testing/fixtures.ts';
import { discsOf, toolProfile } from './profile.ts';

const holder = LIBRARY.holders[0]!;

describe('toolProfile', () => {
  it('runs from the point through flutes and shank to the holder’s top', () => {
    const t = { ...drill(1, 8.5, 60), shankDiameter: 10, stickOut: 90 };
    expect(toolProfile(t, holder)).toEqual([
      { z: 0, r: 0, part: 'cutting' },
      { z: pointLength(8.5, 118), r: 4.25, part: 'cutting' },
      { z: 60, r: 4.25, part: 'cutting' },
      { z: 60, r: 5, part: 'shank' },
      { z: 90, r: 5, part: 'shank' },
      { z: 90, r: 20, part: 'holder' },
      { z: 140, r: 20, part: 'holder' },
    ]);
  });
  it('gives a tap its lead and a flat tool its corner', () => {
    expect(toolProfile(tap(1, 'M8x1.25', 8, 1.25), null)[1]).toMatchObject({ z: 5, r: 4 });
    expect(
      toolProfile(
        TOOLS.find((t) => t.kind === 'counterbore')!,
        null,
      )[0],
    ).toEqual({ z: 0, r: 5.5, part: 'cutting' });
  });
  it('never folds: heights only rise, and discs only widen', () => {
    fc.assert(
      fc.property(fc.constantFrom(...TOOLS), fc.integer({ min: 5, max: 200 }), (tool, stickOut) => {
        const profile = toolProfile({ ...tool, stickOut }, holder);
        for (let i = 1; i < profile.length; i++)
          expect(profile[i]!.z).toBeGreaterThanOrEqual(profile[i - 1]!.z);
        const discs = discsOf(profile);
        for (let i = 1; i < discs.length; i++) {
          expect(discs[i]!.r).toBeGreaterThan(discs[i - 1]!.r);
          expect(discs[i]!.z).toBeGreaterThanOrEqual(discs[i - 1]!.z);
        }
        expect(discs.at(-1)!.r).toBe(Math.max(...profile.map((p) => p.r)));
      }),
    );
  });
});
