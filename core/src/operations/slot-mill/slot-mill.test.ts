import { describe, expect, it } from 'vitest';
import { endMill, made } from '../../testing/fixtures.ts';
import { grooveRow, movesOf, ringGroove, slot } from '../../testing/grooves.ts';

const mill = (diameter: number, part = {}) => ({ ...endMill(70, diameter), rampAngleDeg: 5, ...part });
const valueOf = (o: ReturnType<typeof made>, key: string) => o.parameters.find((p) => p.key === key)?.value;

describe('a slot as wide as its cutter', () => {
  it('is ramped back and forth, so much a pass, with a flat last one', () => {
    const o = made(
      grooveRow(slot(), { typed: { 'slot-mill': { perPass: 0.8, startAbove: 0.4 } } }),
      'slot-mill',
    );
    expect(o.tool.diameter).toBe(8);
    expect(valueOf(o, 'ramp')).toBe('0.88°');
    const moves = movesOf(o);
    expect(moves.every((m) => m.kind === 'line')).toBe(true);
    const z = moves.map((m) => m.to[2]);
    expect(z.at(-1)).toBe(-6);
    expect(z.at(-2)).toBe(-6);
    expect(new Set(moves.slice(1).map((m) => Math.abs(m.to[0] - 0)))).toEqual(new Set([26 - 0, 26]));
  });

  it('is gone into from outside where an end is open, straight at each level', () => {
    const one = made(grooveRow(slot({}, 1)), 'slot-mill');
    expect(one.work[0]!.x).toBeGreaterThan(30 + 4);
    const cutting = movesOf(one).filter((m) => m.feed === 'cut');
    expect(new Set(cutting.map((m) => m.to[2]))).toEqual(new Set([-3, -6]));
    expect(movesOf(one).some((m) => m.feed === 'ramp')).toBe(false);
  });

  it('goes through an exit by the typed way, and to a typed floor', () => {
    const through = (typed: object) =>
      made(
        grooveRow(slot({ bottom: 'open', depth: 12 }), { typed: { 'slot-mill': { ...typed } } }),
        'slot-mill',
      );
    expect(through({}).work[0]!.z).toBeCloseTo(-12.5, 9);
    expect(through({ breakThrough: 1 }).work[0]!.z).toBeCloseTo(-13, 9);
    const floor = made(grooveRow(slot(), { typed: { 'slot-mill': { depth: 5 } } }), 'slot-mill');
    expect(floor.work[0]!.z).toBe(-5);
  });
});

describe('a slot wider than its cutter', () => {
  const wide = (typed: Record<string, number | string> = {}, part = {}) =>
    grooveRow(slot({ width: 14, ...part }), { typed: { 'slot-mill': typed } });

  it('is roughed in layers, then both walls are gone round once', () => {
    const o = made(wide(), 'slot-mill');
    expect(o.tool.diameter).toBe(12);
    const finish = movesOf(o).filter((m) => m.feed === 'finish');
    expect(finish.length).toBeGreaterThan(4);
    // Seen from the zero in the part's middle the slot lies along X; the wall's way lies (14 − 12) / 2 beside it.
    expect(Math.max(...finish.map((m) => Math.abs(m.to[1])))).toBeCloseTo(1, 9);
    const rough = movesOf(o).filter((m) => m.feed === 'cut');
    expect(Math.max(...rough.map((m) => Math.abs(m.to[1])))).toBeCloseTo(0.8, 9);
    expect(finish.filter((m) => m.kind === 'arc').every((m) => m.kind === 'arc' && !m.clockwise)).toBe(true);
  });

  it('is cut against the feed, gone round again, and left with stock, where that is asked for', () => {
    const against = movesOf(made(wide({ cutting: 'conventional' }), 'slot-mill')).filter(
      (m) => m.feed === 'finish',
    );
    expect(against.filter((m) => m.kind === 'arc').every((m) => m.kind === 'arc' && m.clockwise)).toBe(true);
    const once = movesOf(made(wide(), 'slot-mill')).filter((m) => m.feed === 'finish').length;
    const twice = movesOf(made(wide({ springPasses: 1 }), 'slot-mill')).filter(
      (m) => m.feed === 'finish',
    ).length;
    expect(twice).toBeGreaterThan(1.5 * once);
    expect(wide({ finishStock: 2 }).remarks.map((r) => r.rule)).toContain('no-room-for-stock');
  });

  it('is cleared in circles where it is deep, or where that is asked for', () => {
    const circles = (row: ReturnType<typeof wide>) =>
      movesOf(made(row, 'slot-mill')).filter((m) => m.kind === 'arc' && m.turns === 1 && m.feed === 'cut')
        .length;
    expect(circles(wide())).toBe(0);
    expect(circles(wide({ rough: 'circles' }))).toBeGreaterThan(20);
    expect(circles(grooveRow(slot({ width: 10.5, depth: 18 })))).toBeGreaterThan(20);
  });
});

describe('what keeps a slot from being milled', () => {
  it('is said: no cutter, too deep, a corner that is not the floor’s, no way for a ramp', () => {
    expect(grooveRow(slot({ width: 1.2 }), { tools: [mill(8)] }).reasons[0]).toMatch(/No end mill/);
    expect(grooveRow(slot({ depth: 29 }), { tools: [mill(8, { fluteLength: 12 })] }).reasons[0]).toMatch(
      /reaches 29 mm deep/,
    );
    expect(grooveRow(slot({ floorRadius: 1 }), { tools: [mill(8)] }).reasons[0]).toMatch(/R1 mm/);
    expect(grooveRow(slot({ floorRadius: 1 }), { tools: [mill(8, { cornerRadius: 1 })] }).state).toBe(
      'planned',
    );
    const short = grooveRow(slot({ length: 8.1 }), { tools: [mill(8)] });
    expect(short.reasons[0]).toMatch(/way to ramp down along/);
  });

  it('is the way down: by a hole that is drilled before, straight where that is as wide as the cutter', () => {
    const row = grooveRow(slot({ width: 10, length: 30, depth: 8 }), {
      method: 'slot-by-hole',
      typed: { 'slot-mill': { cutter: 'narrower' } },
    });
    const [hole, cut] = row.operations;
    expect([hole!.kind, cut!.kind]).toEqual(['entry-hole', 'slot-mill']);
    // Narrower than the slot by a margin, its tip above the floor by another.
    expect(hole!.tool.diameter).toBeLessThanOrEqual(9.4);
    expect(hole!.work[0]!.z).toBeCloseTo(-8 + 0.3, 9);
    const plunge = movesOf(cut!).filter((m) => m.feed === 'plunge');
    expect(plunge.length).toBeGreaterThan(0);
    // No deeper than the drill's own point leaves it open.
    for (const m of plunge) expect(m.to[2]).toBeGreaterThan(hole!.work[0]!.z + 1);
    expect(grooveRow(slot({}, 1), { method: 'slot-by-hole' }).operations.map((o) => o.kind)).toEqual([
      'slot-mill',
    ]);
  });
});

describe('a ring groove', () => {
  const groove = (
    typed: Record<string, number | string> = {},
    width = 6,
    tools?: Parameters<typeof grooveRow>[1],
  ) => grooveRow(ringGroove(15, width, 3), { typed: { 'groove-mill': typed }, ...tools });

  it('takes its cutter by its width, and winds down along its middle from above the top', () => {
    const o = made(groove({ startAbove: 0.3 }), 'groove-mill');
    expect(o.tool.diameter).toBe(6);
    const moves = movesOf(o);
    expect(moves[0]!.to[2]).toBeCloseTo(0.3, 9);
    expect(moves.slice(1).every((m) => m.kind === 'arc' && m.turns === 1)).toBe(true);
    expect(moves.at(-1)!.to[2]).toBe(-3);
    expect(moves.at(-2)!.to[2]).toBe(-3);
  });

  it('is finished along both walls by a narrower one', () => {
    const o = made(groove({}, 7), 'groove-mill');
    expect(o.tool.diameter).toBe(6);
    const rounds = movesOf(o).flatMap((m) =>
      m.kind === 'arc' && m.feed === 'finish' && m.turns === 0
        ? [Math.hypot(m.to[0] - m.centre[0], m.to[1] - m.centre[1])]
        : [],
    );
    expect(rounds.some((r) => Math.abs(r - 15.5) < 1e-6)).toBe(true);
    expect(rounds.some((r) => Math.abs(r - 14.5) < 1e-6)).toBe(true);
  });

  it('has its walls in the control where that is asked for, with the number that the operator must know', () => {
    const row = groove({ cutter: 'narrower', compensation: 'in the control' });
    const o = made(row, 'groove-mill');
    const motion = o.work[0]!.motion;
    expect(motion.kind === 'path' && motion.passes.map((p) => p.control)).toEqual([
      undefined,
      'left',
      'left',
    ]);
    expect(o.remarks.find((r) => r.rule === 'radius-in-control')?.onSheet).toMatch(/^D\d+ = /);
  });
});
