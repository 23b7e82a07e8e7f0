import { beforeEach, describe, expect, it } from 'vitest';
import { BOUNDS, hole, plan } from '@yellow-pin/core/testing/fixtures';
import { setupFrame } from '@yellow-pin/core/setup/setup-frame';
import type { Look } from '@yellow-pin/core/model/look';
import { loadPlan, usePick, usePlan, type Picking } from '../job/store.ts';
import { prompt, takeLook } from './take-look.ts';

const look = (part: Partial<Look> = {}): Look => ({
  point: [50, 2, 0],
  face: 3,
  normal: [0, -1, 0],
  isPlane: true,
  round: null,
  edge: { edge: 7, away: 1, length: 100, middle: [50, 0, 0], direction: [-1, 0, 0], centre: null },
  vertex: { point: [100, 0, 0], away: 50 },
  ...part,
});
const now = () => usePlan.getState().plan!.setups[0]!;
const take = (picking: Picking, at: Look): string | null => {
  const features = [{ label: 'A1', feature: hole({ entry: [20, 20, 0] }) }];
  takeLook(picking, at, { setup: now(), frame: setupFrame(now(), BOUNDS), features, size: 100 });
  return usePick.getState().pickSaid;
};
beforeEach(() => {
  loadPlan(plan());
  usePick.setState({ picking: null, pickSaid: null });
});

describe('picking on the part', () => {
  it('a face is up, and the setup’s name follows', () => {
    expect(take({ for: 'up' }, look())).toBeNull();
    expect(now()).toMatchObject({ name: 'front up', attitude: { up: [0, -1, 0] } });
    expect(take({ for: 'up' }, look({ isPlane: false }))).toContain('not flat');
  });
  it('three corners make a plane, and what cannot be used is said', () => {
    let p: Picking = { for: 'up-points', got: [] };
    for (const point of [
      [0, 0, 0],
      [100, 0, 0],
    ] as [number, number, number][]) {
      expect(take(p, look({ vertex: { point, away: 1 } }))).toBeNull();
      p = usePick.getState().picking!;
    }
    expect(prompt(p)).toContain('corner 3 of 3');
    expect(take(p, look({ vertex: { point: [50, 0, 0], away: 1 } }))).toContain('in a line');
    expect(take(p, look({ normal: [0, 0, -1], vertex: { point: [0, 80, 0], away: 1 } }))).toBeNull();
    expect(now().attitude.up).toEqual([0, 0, -1]);
  });
  it('an edge has no sense: X keeps the nearer one', () => {
    take({ for: 'x' }, look());
    expect(now().attitude.x).toEqual([1, 0, 0]);
    take({ for: 'x' }, look({ edge: { ...look().edge!, direction: [0, 1, 0] } }));
    expect(now().attitude.x).toEqual([0, 1, 0]);
    expect(take({ for: 'x' }, look({ edge: { ...look().edge!, direction: [0, 0, 1] } }))).toContain(
      'straight up',
    );
    expect(take({ for: 'x' }, look({ edge: null }))).toContain('No straight edge');
  });
  it('zero takes the nearest of rim, corner and middle, by name', () => {
    take({ for: 'zero' }, look({ edge: { ...look().edge!, direction: null, centre: [20, 20, 0] } }));
    expect(now().zero).toMatchObject({ kind: 'point', point: [20, 20, 0], name: 'centre of A1' });
    take({ for: 'zero' }, look());
    expect(now().zero).toMatchObject({ point: [50, 0, 0], name: 'the middle of an edge' });
    take({ for: 'zero' }, look({ vertex: { point: [100, 0, 0], away: 1 } }));
    expect(now().zero).toMatchObject({ point: [100, 0, 0], name: 'a corner of the part' });
    expect(take({ for: 'zero' }, look({ edge: null, vertex: null }))).toContain('near enough');
  });
  it('a hollow round face becomes a hole, edges are chosen and let go', () => {
    take(
      { for: 'hole' },
      look({
        isPlane: false,
        round: { axis: [0, 0, -1], origin: [10, 10, 0], radius: 3, hollow: true, low: 2, high: 14 },
      }),
    );
    expect(usePlan.getState().plan!.corrections[0]).toMatchObject({
      kind: 'made',
      feature: { entry: [10, 10, -2], axis: [-0, -0, 1], diameter: 6, depth: 12, faces: [3] },
    });
    take({ for: 'edges', got: [] }, look());
    expect(usePick.getState().picking).toEqual({ for: 'edges', got: [7] });
    take({ for: 'edges', got: [7] }, look());
    expect(usePick.getState().picking).toEqual({ for: 'edges', got: [] });
  });
  it('a clamp stands where it was put, whatever zero does later', () => {
    take({ for: 'clamp' }, look({ point: [50, 40, 0] }));
    const box = now().holding.keepOuts[0]!;
    expect([box.min, box.max]).toEqual([
      [35, 25, 0],
      [65, 55, 25],
    ]);
  });
});
