import { describe, expect, it } from 'vitest';
import type { MethodOperation } from '../../methods/schema.ts';
import { widestHeight } from '../../tools/kinds/back-chamfer-cutter.ts';
import { radiusAt, toolProfile } from '../../tools/profile.ts';
import { hole, made, rowOf, usual } from '../../testing/fixtures.ts';

const OPERATIONS: MethodOperation[] = ['spot', 'drill', 'back-rim-break'].map((kind) => ({
  kind,
  part: 'hole',
  set: {},
}));
const cutter = usual('back-chamfer-cutter', 60, 8, {
  neckDiameter: 5,
  tipDiameter: 6,
  fluteLength: 3,
  neckLength: 60,
});
const rowWith = (diameter: number, more = [cutter], typed = {}) =>
  rowOf(hole({ kind: 'through', stack: [{ shape: 'cylinder', diameter, length: 30 }] }), {
    operations: OPERATIONS,
    more: [...more, usual('drill', 70, diameter, { fluteLength: 90 })],
    typed: { 'back-rim-break': typed },
  });

describe('a back rim break', () => {
  it('leaves the far rim as wide as it is wanted, its widest place below the exit', () => {
    const o = made(rowWith(12), 'back-rim-break');
    const [w] = o.work;
    expect(w!.z).toBeCloseTo(-(30 + 0.3 + widestHeight(cutter)), 9);
    const round =
      w!.motion.kind === 'path' && w!.motion.passes[0]!.moves.find((m) => m.kind === 'arc' && m.turns > 0);
    if (!round || round.kind !== 'arc') throw new Error('no round');
    const orbit = Math.hypot(round.to[0] - round.centre[0], round.to[1] - round.centre[1]);
    // The back cone at the exit's level, by the cutter's own outline, above its widest place.
    const height = -30 - w!.z;
    expect(2 * (orbit + radiusAt(toolProfile(cutter, null), height))).toBeCloseTo(12.6, 6);
    expect(w!.wanted).toEqual([{ z: -30, diameter: 12.6, angleDeg: 90, below: true }]);
  });

  it('goes in and out on the axis, where the head has room', () => {
    const { motion, x, y } = made(rowWith(12), 'back-rim-break').work[0]!;
    if (motion.kind !== 'path') throw new Error('no path');
    const { start, moves } = motion.passes[0]!;
    expect([start[0], start[1]]).toEqual([x, y]);
    const last = moves.at(-1)!;
    expect(last.kind === 'dwell' ? null : last.to.slice(0, 2)).toEqual([x, y]);
  });

  it('is refused where head, neck or flank have no room, and not wanted in a blind hole', () => {
    expect(rowWith(8.1).reasons.join()).toContain('No back chamfer cutter goes through');
    // Its neck would run into the wall.
    expect(rowWith(12, [{ ...cutter, neckDiameter: 7.6 }]).reasons.join()).toContain(
      'No back chamfer cutter',
    );
    expect(rowWith(12, [cutter], { width: 1.6 }).reasons.join()).toContain('No back chamfer cutter');
    const blind = rowOf(hole({ depth: 20 }), { operations: OPERATIONS, more: [cutter] });
    expect(blind.remarks.map((r) => r.message)).toContain('A blind hole has no far rim.');
  });

  it('tells what must stay clear below the part', () => {
    const remark = made(rowWith(12), 'back-rim-break').remarks.find((r) => r.rule === 'below-the-part');
    expect(remark?.onSheet).toContain('clear below');
  });
});
