import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { counterbored, drill, endMill, hole, made, rowOf } from '../../testing/fixtures.ts';
import type { Tool } from '../../tools/schema.ts';
import { ringRadii } from './rings.ts';

const size = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('rings', () => {
  it('end at the wall, take half the cutter sideways at most, and leave no core', () => {
    fc.assert(
      fc.property(size(4, 20), size(1.2, 8), size(0, 1), (cutter, times, open) => {
        const diameter = cutter * times;
        const opened = open * 0.9 * diameter;
        const radii = ringRadii(diameter, cutter, opened);
        expect(radii.at(-1)).toBeCloseTo((diameter - cutter) / 2, 9);
        // What the first ring leaves inside it is open already, or nothing.
        expect(radii[0]! - cutter / 2).toBeLessThanOrEqual(Math.max(0, opened / 2) + 1e-9);
        radii.slice(1).forEach((r, i) => {
          expect(r - radii[i]!).toBeGreaterThan(0);
          expect(r - radii[i]!).toBeLessThanOrEqual(0.5 * cutter + 1e-9);
        });
      }),
    );
  });
});

describe('a helical bore', () => {
  const plain = (diameter: number, through = false) =>
    hole({
      kind: through ? 'through' : 'blind',
      bottom: through ? { shape: 'open' } : { shape: 'flat' },
      depth: 20,
      stack: [{ shape: 'cylinder', diameter, length: 20 }],
    });
  const mills: Tool[] = [endMill(50, 8), endMill(51, 12), endMill(52, 16)];
  const bored = (diameter: number, typed = {}, through = false) =>
    rowOf(plain(diameter, through), { more: mills, typed: { 'helical-bore': typed } });
  const bore = (...args: Parameters<typeof bored>) => made(bored(...args), 'helical-bore');

  it('is what a hole is made by that no drill of the list makes, with the widest cutter that has room', () => {
    const row = bored(30);
    expect(row).toMatchObject({ state: 'planned', method: { id: 'milled' } });
    expect(made(row, 'helical-bore').tool.diameter).toBe(16);
    expect(bore(15).tool.diameter).toBe(12);
  });

  it('stops at a floor, and goes through an exit by the typed way', () => {
    expect(bore(30).work[0]!.z).toBeCloseTo(-20, 9);
    expect(bore(30, {}, true).work[0]!.z).toBeCloseTo(-20.5, 9);
    expect(bore(30, { breakThrough: 1.2 }, true).work[0]!.z).toBeCloseTo(-21.2, 9);
    expect(bore(30, { depth: 19 }).work[0]!.z).toBeCloseTo(-19, 9);
  });

  it('says so where the typed helix is steeper than the cutter can', () => {
    expect(bored(30).remarks.filter((r) => r.severity === 'error')).toEqual([]);
    const steep = bored(30, { perTurn: 9 }).remarks.find((r) => r.rule === 'ramp-too-steep');
    expect(steep?.severity).toBe('error');
    expect(steep?.message).toMatch(/16.*5° at most/);
  });

  it('goes round once more for each spring pass, with nothing left to finish only where that is typed', () => {
    const rounds = (typed = {}) =>
      bore(30, typed).work[0]!.motion.kind === 'path'
        ? (bore(30, typed).work[0]!.motion as { passes: unknown[] }).passes.length
        : 0;
    expect(rounds({ finishStock: 0 })).toBe(rounds() - 1);
    const { motion } = bore(30, { springPasses: 2 }).work[0]!;
    if (motion.kind !== 'path') throw new Error('no path');
    const turns = motion.passes.at(-1)!.moves.map((m) => (m.kind === 'arc' ? m.turns : 0));
    expect(Math.max(...turns)).toBe(3);
  });

  it('opens a step that no counterbore of the list makes, over the hole that is drilled', () => {
    const row = rowOf(counterbored({ diameter: 20 }), { more: mills });
    expect(row.reasons).toEqual([]);
    expect(row.method?.id).toBe('drilled');
    expect(made(row, 'helical-bore').parameters.find((p) => p.key === 'diameter')?.value).toBe(20);
  });

  it('leaves no core on a blind floor, whatever was drilled: below a drill’s point the metal is solid', () => {
    const deep = (through: boolean) => {
      const callout = `⌀40 F7 ${through ? 'THRU' : '↧20'}`;
      const bar: Tool = {
        ...endMill(60, 40),
        id: 'bar',
        kind: 'boring-bar',
        diameter: 40.0375,
        fluteLength: 3,
        neckDiameter: 30,
        neckLength: 60,
      };
      const more = [endMill(51, 16), { ...drill(52, 25), fluteLength: 60 }, bar];
      const row = rowOf(plain(40, through), { callout, more });
      expect(row).toMatchObject({ reasons: [], method: { id: 'bored' } });
      const { motion } = made(row, 'helical-bore').work[0]!;
      if (motion.kind !== 'path') throw new Error('no path');
      const first = motion.passes[0]!.moves.find((m) => m.kind === 'arc');
      return first?.kind === 'arc' ? first.to[0] - first.centre[0] : NaN;
    };
    expect(deep(false) - 16 / 2).toBeLessThanOrEqual(0);
    // Through, the drill has left nothing inside: one ring at the wall is enough.
    expect(deep(true)).toBeCloseTo((40 - 0.4 - 16) / 2, 6);
  });

  it('leaves small holes to a drill of their size until somebody asks for it', () => {
    const row = rowOf(plain(9.3), { more: mills });
    expect(row).toMatchObject({ state: 'open', notMade: 'no tool' });
    expect(row.methods.map((m) => m.id)).toContain('milled-small');
    expect(rowOf(plain(9.3), { more: [endMill(55, 6)], method: 'milled-small' }).state).toBe('planned');
  });
});
