import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LIBRARY } from '../testing/fixtures.ts';
import { rimAt, tipForRim } from './cone.ts';
import { widestHeight } from './kinds/back-chamfer-cutter.ts';
import { TOOL_KINDS, toolKind } from './kinds/registry.ts';
import { toolProfile } from './profile.ts';
import type { Tool, ToolKind } from './schema.ts';
import { shapeFaults } from './shape.ts';
import { usualTool } from './usual.ts';

const say = (mm: number): string => `${Math.round(mm * 1000) / 1000} mm`;
const M12 = { designation: 'M12x1.75', hand: 'right', pitch: 1.75, majorDiameter: 12 } as const;
const usual = (kind: ToolKind, diameter = 10): Tool => {
  const tool = usualTool({ kind, ...(kind === 'tap' ? { thread: M12 } : { diameter }) }, LIBRARY);
  if (!tool) throw new Error(`no usual ${kind}`);
  return tool;
};
const faults = (tool: Tool): string[] => shapeFaults(tool, say).map((f) => f.field);

describe('every kind of tool', () => {
  it.each(TOOL_KINDS.map((k) => k.kind))('%s: its usual shape is sound, whatever its size', (kind) => {
    fc.assert(
      fc.property(fc.integer({ min: 10, max: 400 }), (tenths) => {
        expect(shapeFaults(usual(kind, tenths / 10), say)).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });

  it.each(TOOL_KINDS.map((k) => k.kind))(
    '%s: its outline rises from the tip to its widest and up',
    (kind) => {
      const tool = usual(kind);
      const profile = toolProfile(tool, null);
      for (let i = 1; i < profile.length; i++)
        expect(profile[i]!.z).toBeGreaterThanOrEqual(profile[i - 1]!.z - 1e-9);
      const widest = Math.max(...profile.filter((p) => p.part === 'cutting').map((p) => p.r));
      expect(widest).toBeCloseTo(tool.diameter / 2, 3);
      if (tool.neckDiameter !== undefined) expect(profile.some((p) => p.part === 'neck')).toBe(true);
    },
  );
});

describe('a wrong shape is refused, and the number named', () => {
  it.each([
    ['a neck wider than its cutter', 'end-mill', { neckDiameter: 11, neckLength: 60 }, 'neckDiameter'],
    ['flutes longer than the tool', 'drill', { fluteLength: 200 }, 'fluteLength'],
    ['standing out farther than it is long', 'drill', { stickOut: 500 }, 'stickOut'],
    ['a neck that ends within the flutes', 'end-mill', { neckDiameter: 9, neckLength: 3 }, 'neckLength'],
    ['a length without a neck', 'end-mill', { neckLength: 60 }, 'neckDiameter'],
    ['a tip as wide as the tool', 'chamfer-mill', { tipDiameter: 10 }, 'tipDiameter'],
    ['no neck at all', 't-cutter', { neckDiameter: undefined, neckLength: undefined }, 'neckDiameter'],
    ['a corner wider than the mill', 'end-mill', { cornerRadius: 6 }, 'cornerRadius'],
    ['a number of another kind', 'reamer', { profileRadius: 2 }, 'profileRadius'],
    ['a radius too wide for its pilot', 'corner-rounding-cutter', { profileRadius: 4 }, 'profileRadius'],
    ['cones higher than the head', 'back-chamfer-cutter', { fluteLength: 1 }, 'fluteLength'],
    ['teeth that meet at their top', 'dovetail-cutter', { fluteLength: 9, neckLength: 12 }, 'fluteLength'],
    ['a pilot as thick as the body', 'centre-drill', { pilotDiameter: 10 }, 'pilotDiameter'],
    ['more ball than there is', 'lollipop', { fluteLength: 10 }, 'fluteLength'],
    ['a thread mill without a pitch', 'thread-mill', { threadForm: undefined }, 'threadForm'],
    ['a tap without a thread', 'tap', { thread: undefined }, 'thread'],
  ] as const)('%s', (_, kind, change, field) => {
    const tool = { ...usual(kind), ...change } as Tool;
    expect(faults(tool)).toContain(field);
  });
});

describe('outlines of cutters with curves and cones', () => {
  it('keep within 0.01 mm of a ball and of a rounding', () => {
    const ball = { ...usual('end-mill', 20), cornerRadius: 10 };
    const points = toolKind('end-mill').end(ball);
    for (let i = 1; i < points.length; i++) {
      const [p, q] = [points[i - 1]!, points[i]!];
      const middle = Math.hypot((p.r + q.r) / 2, (p.z + q.z) / 2 - 10);
      expect(10 - middle).toBeLessThan(0.01);
      expect(Math.hypot(q.r, q.z - 10)).toBeCloseTo(10, 9);
    }
    const rounding = { ...usual('corner-rounding-cutter'), profileRadius: 2, tipDiameter: 5, diameter: 10 };
    for (const p of toolKind('corner-rounding-cutter').end(rounding).slice(0, -1))
      expect(Math.hypot(p.r - 4.5, p.z)).toBeCloseTo(2, 9);
  });

  it('a back chamfer cutter narrows upward from its widest place at its angle', () => {
    const tool: Tool = {
      ...usual('back-chamfer-cutter'),
      diameter: 8,
      neckDiameter: 5,
      tipDiameter: 6,
      fluteLength: 3,
    };
    expect(widestHeight(tool)).toBeCloseTo(1.5, 9);
    expect(
      toolKind('back-chamfer-cutter')
        .end(tool)
        .map((p) => [Math.round(1e6 * p.z) / 1e6, p.r]),
    ).toEqual([
      [0, 3],
      [1, 4],
      [1.5, 4],
      [3, 2.5],
    ]);
  });

  it('tip and rim are inverse for every kind with a cone, and a centre drill counts its pilot', () => {
    const cones = TOOL_KINDS.filter((k) => k.cone).map((k) => usual(k.kind));
    expect(cones.length).toBe(4);
    fc.assert(
      fc.property(fc.constantFrom(...cones), fc.double({ min: 4, max: 9, noNaN: true }), (tool, rim) => {
        expect(rimAt(tool, tipForRim(tool, rim))).toBeCloseTo(rim, 9);
      }),
    );
    const centre: Tool = { ...usual('centre-drill'), pilotDiameter: 4, pilotLength: 5, pointAngleDeg: 60 };
    // Point of 4 at 120°, its length, then a cone of 60° from 4 to 8.
    expect(tipForRim(centre, 8)).toBeCloseTo(2 / Math.tan(Math.PI / 3) + 5 + 2 / Math.tan(Math.PI / 6), 9);
  });
});
