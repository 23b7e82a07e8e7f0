import { describe, expect, it } from 'vitest';
import { pocket, roundedBorder, topFace } from '../../testing/areas.ts';
import { grooveRow, movesOf } from '../../testing/grooves.ts';
import { featureSizes } from '../../features/sets.ts';
import { deriveJob } from '../../job/derive.ts';
import { BOUNDS, endMill, LIBRARY, made, plan } from '../../testing/fixtures.ts';

const own = (...list: ReturnType<typeof endMill>[]) => list.map((t) => ({ ...t, rampAngleDeg: 5 }));
const clear = (
  feature = pocket(),
  typed: Record<string, number | string> = {},
  tools: Parameters<typeof grooveRow>[1] = {},
) => grooveRow(feature, { method: 'pocket', typed: { 'area-mill': typed }, ...tools });

describe('tools for several pockets', () => {
  it('are those that stand in the magazine, though one out of the drawer would do for all', () => {
    const [wide, small] = [
      pocket({ cornerRadius: 6, borders: [roundedBorder([10, 10, 45, 40], 6, -9)] }),
      pocket({ id: 'P2', cornerRadius: 5, borders: [roundedBorder([55, 10, 90, 40], 5, -9)] }),
    ];
    const p = plan();
    for (const s of featureSizes([wide, small])) p.sizes[s.key] = { method: 'pocket', overrides: {} };
    const tools = [...own(endMill(1, 12), endMill(2, 8)), ...own({ ...endMill(3, 10), number: null })];
    const job = deriveJob({
      features: [wide, small],
      bounds: BOUNDS,
      plan: p,
      library: { ...LIBRARY, tools },
    });
    const taken = job.rows.flatMap((r) => r.operations.map((o) => o.tool.diameter));
    expect(taken.sort()).toEqual([12, 8]);
  });
});

describe('a pocket is cleared', () => {
  it('by the widest cutter that its smallest corner lets in', () => {
    const row = clear();
    expect(row.reasons).toEqual([]);
    const { tool, work } = made(row, 'area-mill');
    expect(tool.diameter).toBe(12);
    expect(work[0]).toMatchObject({ z: -9, entryZ: 0, metalZ: 0 });
    expect(made(clear(pocket({ cornerRadius: 4 })), 'area-mill').tool.diameter).toBe(8);
  });

  it('in layers of what is typed, the last on the floor, its walls once more for each spring pass', () => {
    const layers = (typed: Record<string, number>): number[] => [
      ...new Set(
        movesOf(made(clear(pocket(), typed), 'area-mill')).flatMap((m) =>
          m.feed === 'cut' ? [m.to[2]] : [],
        ),
      ),
    ];
    expect(layers({ perPass: 3 })).toEqual([-3, -6, -9]);
    expect(layers({ perPass: 9 })).toEqual([-9]);
    const finish = (typed: Record<string, number>): number =>
      movesOf(made(clear(pocket(), typed), 'area-mill')).filter((m) => m.feed === 'finish').length;
    expect(finish({ finishStock: 0 })).toBe(0);
    expect(finish({ springPasses: 1 })).toBeGreaterThan(finish({}));
  });

  it('first by a wide cutter where its corners let in a narrow one only, which clears these alone', () => {
    const large = pocket({
      cornerRadius: 3,
      length: 90,
      width: 70,
      borders: [roundedBorder([5, 5, 95, 75], 3, -9)],
    });
    const row = clear(large);
    expect(row.reasons).toEqual([]);
    const [wide, narrow] = [made(row, 'area-mill'), made(row, 'corner-mill')];
    expect(wide.tool.diameter).toBeGreaterThan(1.5 * narrow.tool.diameter);
    expect(narrow.tool.diameter).toBeLessThanOrEqual(6);
    // What the wide one leaves in a corner is within its radius of both walls.
    for (const { to } of movesOf(narrow)) {
      const [x, y] = [Math.abs(to[0]) - 45, Math.abs(to[1]) - 35];
      expect(Math.min(x, y)).toBeGreaterThan(-2.2 * wide.tool.diameter);
      expect(Math.max(x, y)).toBeGreaterThan(-wide.tool.diameter / 2);
    }
    // They end where the wide one ended, whatever is typed for that.
    const shallow = clear(large, { depth: 6.5 });
    expect(made(shallow, 'corner-mill').work[0]!.z).toBe(-6.5);
    // Whoever wants one cutter for all of it says so.
    const one = clear(large, { corners: 'this cutter' });
    expect(one.operations.map((o) => [o.kind, o.tool.diameter])).toEqual([['area-mill', 6]]);
  });

  it('by one cutter where a second would save no time', () => {
    const small = pocket({ cornerRadius: 4, borders: [roundedBorder([40, 35, 66, 52], 4, -9)] });
    expect(clear(small).operations.map((o) => o.kind)).toEqual(['area-mill']);
  });

  it('down a way no steeper than the cutter may', () => {
    let at = [0, 0, Infinity];
    for (const m of movesOf(made(clear(), 'area-mill'))) {
      const way = m.kind === 'line' ? Math.hypot(m.to[0] - at[0]!, m.to[1] - at[1]!) : Infinity;
      if (m.feed === 'ramp' && m.kind === 'line')
        expect(at[2]! - m.to[2]).toBeLessThanOrEqual(way * Math.tan((5.01 * Math.PI) / 180));
      at = [...m.to];
    }
  });

  it('deeper where that is typed, and further than the exit where it goes through', () => {
    expect(made(clear(pocket(), { depth: 7.5 }), 'area-mill').work[0]!.z).toBe(-7.5);
    const through = pocket({ bottom: 'open', at: [50, 40, 0] });
    expect(made(clear(through, { breakThrough: 0.8 }), 'area-mill').work[0]!.z).toBeCloseTo(-9.8, 9);
  });

  it('as deep a layer as is typed, up to the whole flute', () => {
    const row = clear(pocket(), { perPass: 9 }, { tools: own(endMill(70, 10, 9.2)) });
    const cuts = movesOf(made(row, 'area-mill')).filter((m) => m.feed === 'cut');
    expect(new Set(cuts.map((m) => m.to[2]))).toEqual(new Set([-9]));
  });

  it('a layer that is deeper than the flutes is an error, before any code', () => {
    const row = clear(pocket(), { perPass: 50 });
    expect(row.remarks.map((r) => r.rule)).toContain('pass-too-deep');
  });

  it('a sharp corner is said, and cut with a small cutter', () => {
    const row = clear(pocket({ cornerRadius: 0 }));
    expect(made(row, 'area-mill').tool.diameter).toBeLessThanOrEqual(10);
    expect(row.remarks.map((r) => r.rule)).toContain('sharp-corner');
  });

  it('not at all where no cutter is narrow enough, or none reaches: with the reason', () => {
    const wide = clear(pocket({ cornerRadius: 3 }), {}, { tools: own(endMill(70, 12)) });
    expect(wide.operations).toEqual([]);
    expect(wide.reasons.join()).toMatch(/up to ⌀6/);
    const short = clear(pocket(), {}, { tools: own(endMill(70, 10, 6)) });
    expect(short.reasons.join()).toMatch(/6 mm of flute|the longest has 6 mm/);
  });
});

describe('a face is milled', () => {
  it('by the widest cutter, from edge to edge', () => {
    const row = grooveRow(topFace(), { method: 'face', tools: own(endMill(70, 20), endMill(71, 8)) });
    expect(row.reasons).toEqual([]);
    const operation = made(row, 'face-mill');
    expect(operation.tool.diameter).toBe(20);
    const xs = movesOf(operation).map((m) => m.to[0]);
    // The made-up part is 100 long, its zero in the middle.
    expect(Math.max(...xs) - operation.tool.diameter / 2).toBeGreaterThan(50);
    expect(Math.min(...xs) + operation.tool.diameter / 2).toBeLessThan(-50);
  });
});
