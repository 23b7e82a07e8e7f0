import { beforeEach, describe, expect, it } from 'vitest';
import type { MetalMesh } from '@yellow-pin/core/metal/picture';
import type { Frame, Reel } from '../workers/metal-steps.ts';
import { motionAt, startOf, stepFrom, usePlay } from './play-store.ts';

const reel: Reel = {
  setupId: 's1',
  total: 10,
  ends: Float64Array.from([1, 2, 4, 7, 10]),
  lines: Uint32Array.from([5, 5, 6, 7, 7]),
  tools: Uint16Array.from([1, 1, 1, 2, 2]),
};
const line = (n: number): number => reel.lines[n]!;
const tool = (n: number): number => reel.tools[n]!;

describe('moments of a program', () => {
  it('belong to the motion that is under way', () => {
    expect([0, 0.5, 1, 3.9, 4, 9.9, 10, 99].map((s) => motionAt(reel, s))).toEqual([0, 0, 1, 2, 3, 4, 4, 4]);
    expect([0, 1, 3, 4].map((n) => startOf(reel, n))).toEqual([0, 1, 4, 7]);
  });

  it('are stepped through by line and by tool, forth and back', () => {
    expect(stepFrom(reel, 0, 1, line)).toBe(2);
    expect(stepFrom(reel, 2, 1, line)).toBe(4);
    expect(stepFrom(reel, 5, 1, line)).toBe(10);
    expect(stepFrom(reel, 0.5, 1, tool)).toBe(4);
    expect(stepFrom(reel, 5, -1, line)).toBe(4);
    expect(stepFrom(reel, 4, -1, line)).toBe(2);
    expect(stepFrom(reel, 4, -1, tool)).toBe(0);
    expect(stepFrom(reel, 0, -1, line)).toBe(0);
  });
});

describe('what is shown', () => {
  const mesh = (v: number): MetalMesh => ({
    positions: Float32Array.from([v]),
    normals: new Float32Array(1),
    tools: new Uint16Array(1),
  });
  const frame = (...patches: [number, number][]): Frame => ({
    pose: { tool: 1, at: null, line: 1, isRapid: false, motion: 0 },
    patches: patches.map(([patch, v]) => ({ patch, mesh: mesh(v) })),
  });
  beforeEach(() => usePlay.getState().load(reel));

  it('changes patch by patch; what is not told of stays as it was', () => {
    usePlay.getState().take(frame([0, 1], [1, 2]));
    const before = usePlay.getState().patches;
    usePlay.getState().take(frame([1, 3]));
    const { patches } = usePlay.getState();
    expect([...patches].map(([k, m]) => [k, m.positions[0]])).toEqual([
      [0, 1],
      [1, 3],
    ]);
    expect(patches.get(0)).toBe(before.get(0));
    usePlay.getState().take(frame());
    expect(usePlay.getState().patches).toBe(patches);
  });

  it('begins anew with another program', () => {
    usePlay.getState().take(frame([0, 1]));
    usePlay.getState().set({ seconds: 5, isPlaying: true });
    usePlay.getState().load({ ...reel, setupId: 's2' });
    expect(usePlay.getState()).toMatchObject({ seconds: 0, isPlaying: false, pose: null });
    expect(usePlay.getState().patches.size).toBe(0);
  });
});
