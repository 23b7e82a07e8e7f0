import { reachOf } from './find.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LIBRARY } from '../testing/fixtures.ts';
import { THREADS } from '../threads/standards.ts';
import { sizedTools, type ToolNeed } from './find.ts';
import { jobberFlute } from './kinds/drill.ts';
import { TOOL_KINDS } from './kinds/registry.ts';
import { toolSchema } from './schema.ts';
import { freeNumber, usualHolder, usualTool } from './usual.ts';

const say = String;

describe('a tool of usual proportions', () => {
  it('is a jobber drill by the standard lengths', () => {
    expect([1, 3.3, 5, 6.8, 8.5, 10.2, 20].map(jobberFlute)).toEqual([12, 36, 52, 69, 75, 87, 140]);
    expect(jobberFlute(25)).toBe(175);
    const tool = usualTool({ kind: 'drill', diameter: 6.8 }, LIBRARY)!;
    expect(tool).toMatchObject({
      description: 'drill \u23006.8',
      fluteLength: 69,
      pointAngleDeg: 118,
      stickOut: 74,
    });
  });
  it('is longer than usual where the hole is deeper', () => {
    expect(usualTool({ kind: 'drill', diameter: 5, reach: 80 }, LIBRARY)!.fluteLength).toBe(85);
  });
  it('is the next spot drill of the series that is wide enough', () => {
    const tool = usualTool({ kind: 'spot-drill', minDiameter: 8.1, angleDeg: 90 }, LIBRARY)!;
    expect(tool).toMatchObject({ diameter: 10, description: 'spot drill \u230010 90°' });
  });
  it('is a tap with the first lead that will do', () => {
    const thread = { designation: 'M8x1.25', hand: 'right', pitch: 1.25, majorDiameter: 8 } as const;
    const tool = usualTool({ kind: 'tap', thread: { ...thread, leads: ['bottoming'] } }, LIBRARY)!;
    expect(tool.description).toBe('tap M8x1.25 bottoming');
    expect(tool.thread).toMatchObject({ pitch: 1.25, lead: 'bottoming', style: 'cutting' });
  });
  it('is none where no size is named', () => {
    expect(usualTool({ kind: 'drill' }, LIBRARY)).toBeNull();
    expect(usualTool({ kind: 'tap', thread: { designation: 'X', hand: 'right' } }, LIBRARY)).toBeNull();
  });
  it('answers the need it was made for, on a free number and under a free name', () => {
    const sizes = {
      diameter: fc.double({ min: 0.5, max: 40, noNaN: true }),
      reach: fc.integer({ min: 1, max: 400 }),
    };
    const plain = fc.record({
      kind: fc.constantFrom(...TOOL_KINDS.map((k) => k.kind).filter((k) => k !== 'tap')),
      ...sizes,
    });
    const wide = fc.record({
      kind: fc.constantFrom('spot-drill' as const, 'countersink' as const),
      minDiameter: sizes.diameter,
      angleDeg: fc.constantFrom(60, 82, 90, 120),
    });
    const tap = fc.record({
      kind: fc.constant('tap' as const),
      thread: fc
        .constantFrom(...THREADS)
        .map((t) => ({ ...t, hand: 'left' as const, leads: ['bottoming', 'plug'] })),
    });
    fc.assert(
      fc.property(fc.oneof(plain, wide, tap) as fc.Arbitrary<ToolNeed>, (need) => {
        const tool = usualTool(need, LIBRARY)!;
        expect(toolSchema.safeParse(tool).success).toBe(true);
        expect(LIBRARY.tools.some((t) => t.id === tool.id || t.number === tool.number)).toBe(false);
        const found = sizedTools([tool], need, say);
        expect('tools' in found).toBe(true);
        expect(reachOf(tool)).toBeGreaterThanOrEqual(need.reach ?? 0);
      }),
    );
  });
  it('stands in the holder of the tool nearest to it', () => {
    const [first] = LIBRARY.tools.filter((t) => t.kind === 'drill');
    expect(usualHolder(LIBRARY, 'drill', first!.diameter)).toBe(first!.holderId);
    expect(usualHolder({ tools: [], holders: [] }, 'drill', 3)).toBe('');
  });
  it('takes the lowest number that is free', () => {
    const numbered = (ns: (number | null)[]) => ns.map((number) => ({ ...LIBRARY.tools[0]!, number }));
    expect(freeNumber(numbered([1, 2, 4, null]))).toBe(3);
    expect(freeNumber([])).toBe(1);
  });
});
