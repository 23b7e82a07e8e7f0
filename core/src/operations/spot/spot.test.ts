import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rimDiameter } from '../../cutting/depths.ts';
import { counterbored, hole, made, rowOf, TOOLS, type Typed, howOf } from '../../testing/fixtures.ts';

const plain = (diameter: number) =>
  hole({ kind: 'through', stack: [{ shape: 'cylinder', diameter, length: 30 }] });
const spotted = (diameter: number, typed: Typed = {}) => made(rowOf(plain(diameter), { typed }), 'spot');

describe('a spot', () => {
  it('leaves the rim that is wanted (handbook: rim 9.2 at 120° is 2.6558 deep)', () => {
    const spot = spotted(8.5, { spot: { rim: 9.2 } });
    expect(spot.tool.pointAngleDeg).toBe(120);
    expect(spot.work[0]!.z).toBeCloseTo(-2.6558, 4);
  });

  it('takes the angle of the model’s chamfer (handbook: rim 9.2 at 90° is 4.6 deep)', () => {
    const chamfered = hole({
      kind: 'through',
      stack: [
        { shape: 'cone', startDiameter: 9.2, endDiameter: 8.5, angle: 90, length: 0.35 },
        { shape: 'cylinder', diameter: 8.5, length: 29.65 },
      ],
    });
    const spot = made(rowOf(chamfered), 'spot');
    expect(spot.tool.pointAngleDeg).toBe(90);
    expect(spot.work[0]!.z).toBeCloseTo(-4.6, 4);
  });

  it('is at least as blunt as the drill that follows, and holds for two turns', () => {
    const spot = spotted(8.5);
    expect(spot.tool.pointAngleDeg).toBeGreaterThanOrEqual(118);
    const how = howOf(spot);
    const turns = ((how.how === 'dwell' ? how.seconds : 0) * spot.speed) / 60;
    expect(turns).toBeGreaterThanOrEqual(2 - 1e-9);
    expect(turns).toBeLessThan(2.5);
  });

  it('asks for a rim no tool can make as an error, not as a deeper plunge of the shank', () => {
    const { remarks } = spotted(8.5, { spot: { rim: 17 } });
    expect(remarks).toContainEqual(expect.objectContaining({ rule: 'spot-rim', severity: 'error' }));
  });

  it('breaks a plain edge, and only starts what is opened wider afterwards', () => {
    const rimOf = (o: ReturnType<typeof made>): number =>
      rimDiameter(-o.work[0]!.z, o.tool.pointAngleDeg!, o.tool.tipDiameter);
    expect(rimOf(spotted(8.5))).toBeGreaterThan(8.5);
    const bored = counterbored({ floor: 6 });
    expect(rimOf(made(rowOf(bored), 'spot'))).toBeCloseTo(0.8 * 6.6, 6);
  });

  it('makes the typed rim with whatever spot drill there is', () => {
    fc.assert(
      fc.property(fc.double({ min: 2, max: 15, noNaN: true }), (rim) => {
        const { work, tool } = spotted(8.5, { spot: { rim } });
        expect(rimDiameter(-work[0]!.z, tool.pointAngleDeg!, tool.tipDiameter)).toBeCloseTo(rim, 6);
        expect(TOOLS.some((t) => t.id === tool.id && t.kind === 'spot-drill')).toBe(true);
      }),
    );
  });
});

describe('how deep a spot goes', () => {
  const feature = hole({ depth: 20, stack: [{ shape: 'cylinder', diameter: 8.5, length: 20 }] });
  const spotOf = (typed: Record<string, number | string>) =>
    made(rowOf(feature, { typed: { spot: typed } }), 'spot');
  it('is said by the rim, by its own depth, or by a share of the drill (N40)', () => {
    const angle = spotOf({}).tool.pointAngleDeg!;
    expect(spotOf({ by: 'depth', tip: 1.5 }).work[0]!.z).toBeCloseTo(-1.5, 9);
    const half = spotOf({ by: 'share of ⌀', share: 0.5 });
    expect(half.work[0]!.z).toBeCloseTo(-(8.5 * 0.25) / Math.tan((angle * Math.PI) / 360), 6);
    expect(half.parameters.find((p) => p.key === 'rim')!.value).toBeCloseTo(4.25, 9);
  });
});
