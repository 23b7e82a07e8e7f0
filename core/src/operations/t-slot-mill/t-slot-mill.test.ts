import { describe, expect, it } from 'vitest';
import { made, usual } from '../../testing/fixtures.ts';
import { grooveRow, movesOf, tSlot } from '../../testing/grooves.ts';

const cutter = (diameter: number, part = {}) =>
  usual('t-cutter', 90, diameter, { fluteLength: 6, neckDiameter: 8, neckLength: 24, ...part });

describe('the head of a T-slot', () => {
  it('is cut after its throat, straight in and out past the open end, never up or down and never on an arc inside', () => {
    const row = grooveRow(tSlot());
    expect(row.operations.map((o) => o.kind)).toEqual(['slot-mill', 't-slot-mill']);
    const o = made(row, 't-slot-mill');
    expect(o.tool.diameter).toBe(18);
    const moves = movesOf(o);
    expect(moves.every((m) => m.kind === 'line')).toBe(true);
    // The open end lies at X −50 of the zero in the part's middle, the cutter's edge past it.
    const outside = o.work[0]!.x;
    expect(outside).toBeLessThan(-50 - 9);
    let at = [outside, o.work[0]!.y, o.work[0]!.r];
    for (const m of moves) {
      if (m.to[2] !== at[2]) expect([at[0], m.to[0]].every((x) => x! <= -50 - 9)).toBe(true);
      at = [...m.to];
    }
    // Neck and mouth: half of 8 and what it goes aside stay within half of 12.
    const aside = Math.max(...moves.filter((m) => m.feed !== 'lead').map((m) => Math.abs(m.to[1])));
    expect(aside).toBeCloseTo((21 - 18) / 2, 6);
    expect(aside + 4).toBeLessThan(6);
  });

  it('lies between ceiling and floor, in levels that overlap, from the top, the bottom or the middle', () => {
    const tips = (order: string) => [
      ...new Set(
        movesOf(
          made(
            grooveRow(tSlot({ headHeight: 14 }), {
              typed: { 't-slot-mill': { order, faceStock: 0, finishStock: 0 } },
            }),
            't-slot-mill',
          ),
        ).map((m) => m.to[2]),
      ),
    ];
    const down = tips('downward');
    expect(down[0]).toBeCloseTo(-9 - 6, 9);
    expect(down.at(-1)).toBeCloseTo(-9 - 14, 9);
    expect(tips('upward')).toEqual([...down].reverse());
    expect(tips('from the middle')[0]).toBeCloseTo(-19, 9);
  });

  it('says to which face of the cutter its depth is', () => {
    const depth = (reference: string) =>
      made(grooveRow(tSlot(), { typed: { 't-slot-mill': { reference } } }), 't-slot-mill').parameters.find(
        (p) => p.key === 'depth',
      )?.value;
    expect(depth('lower face')).toBe(17);
    expect(depth('upper face')).toBe(11);
  });

  it('is refused to a neck without room, a cutter that is too high, and a slot without an open end', () => {
    const reason = (tools: ReturnType<typeof cutter>[], part = {}) => {
      const row = grooveRow(tSlot(part), { tools: [usual('end-mill', 50, 12), ...tools] });
      return row.reasons.join(' ');
    };
    expect(reason([cutter(16, { neckDiameter: 9 })])).toMatch(/neck .* stands 2\.5 mm beside the middle/);
    expect(reason([cutter(18, { fluteLength: 9 })])).toMatch(/9 mm high, and the head 8 mm/);
    expect(
      reason([cutter(18)], {
        openEnds: 0,
        ends: [
          { open: false, beyond: 0 },
          { open: false, beyond: 0 },
        ],
      }),
    ).toMatch(/no open end/);
  });
});
